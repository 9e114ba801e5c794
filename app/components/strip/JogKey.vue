<script setup lang="ts">
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { problemSentence } from '~/stores/problem-sentence'

/** Held, it gives pulses at low volts: a crank pin or the next segment comes into reach. */
const props = defineProps<{ engineId: string; disabled: boolean }>()
const workshop = useWorkshopStore()
onMounted(() => void workshop.need())
const supply = computed(() => workshop.book?.instruments.find((row) => !row.retired) ?? null)
const says = ref('')
const failure = ref('')
const held = ref<'forward' | 'back' | null>(null)
/** Said again this often while the key is down. */
const AGAIN_MS = 250

async function tell(down: boolean): Promise<void> {
  if (!supply.value) return
  try {
    const answer = await $fetch<{ says: string }>('/api/measuring/jog', {
      method: 'POST',
      body: {
        instrumentId: supply.value.id,
        engineId: props.engineId,
        held: down,
        reversed: held.value === 'back',
      },
    })
    says.value = answer.says
    failure.value = ''
  } catch (error) {
    failure.value = problemSentence(error)
    held.value = null
  }
}
const { pause, resume } = useIntervalFn(() => void tell(true), AGAIN_MS, { immediate: false })
function press(way: 'forward' | 'back'): void {
  if (held.value || props.disabled || !supply.value) return
  held.value = way
  void tell(true)
  resume()
}
function letGo(): void {
  if (!held.value) return
  pause()
  held.value = null
  void tell(false)
}
const typing = (target: EventTarget | null): boolean =>
  (target as HTMLElement | null)?.closest('input, textarea, select, [contenteditable="true"]') != null
useEventListener('keyup', (event: KeyboardEvent) => {
  if (event.key.toLowerCase() === 'j') letGo()
})
useEventListener('blur', letGo)
useEventListener('keydown', (event: KeyboardEvent) => {
  if (event.key === 'J' && !typing(event.target) && !event.ctrlKey && !event.metaKey) press('back')
})
useBenchKeys([{ key: 'j', label: 'Hold: jog the mechanism, with Shift the other way', run: () => press('forward') }])
onBeforeUnmount(letGo)
</script>

<template>
  <div v-if="supply" class="jog">
    <button
      v-for="way in ['forward', 'back'] as const"
      :key="way"
      type="button"
      class="plain"
      :disabled="disabled"
      :aria-pressed="held === way"
      @pointerdown.prevent="press(way)"
      @pointerup="letGo"
      @pointerleave="letGo"
      @keydown.space.prevent="press(way)"
      @keyup.space.prevent="letGo"
    >
      {{ way === 'forward' ? 'Hold to jog' : 'the other way' }} <kbd v-if="way === 'forward'">J</kbd
      ><kbd v-else>⇧J</kbd>
    </button>
    <span v-if="failure" class="sign sign--care" role="alert">{{ failure }}</span>
    <span v-else class="quiet" role="status">{{
      held ? says || 'Looking for the supply' : `${supply.name}, clips on the motor’s leads`
    }}</span>
  </div>
</template>

<style scoped>
.jog {
  display: flex;
  gap: 4px 14px;
  align-items: center;
  flex-wrap: wrap;
}
button {
  touch-action: none;
  user-select: none;
}
[aria-pressed='true'] {
  box-shadow: inset 0 -4px 0 var(--brass);
}
</style>
