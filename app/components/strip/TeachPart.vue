<script setup lang="ts">
import type { Difference } from '~~/core/engine/difference-schema'
import { deviations, type Deviation } from '~~/messages/strip-entries'

/** What holds it, or lies over it, otherwise than planned: said once, for this engine or for every one of its type. */
const props = defineProps<{ part: { id: string; name: string; minutes: number }; what: Teaching; type: string }>()
const emit = defineEmits<{
  teach: [difference: Difference, scope: 'engine' | 'type', remark: string]
  note: [remark: string]
  leave: []
}>()
type Teaching = Extract<Deviation, 'other-fasteners' | 'hidden' | 'glued' | 'riveted'>

const usual: Record<Teaching, string> = { 'other-fasteners': '', hidden: '', glued: 'Glue', riveted: 'Rivets' }
const name = ref('')
const heldBy = ref(usual[props.what])
const minutes = ref('')
const number = computed(() => Number(minutes.value.trim().replace(',', '.')))
const hidden = computed(() => props.what === 'hidden')
const problem = computed(() => {
  if (hidden.value && !name.value.trim()) return 'Name what lies over it.'
  if (!heldBy.value.trim()) return 'Say what holds it: 4 screws M2 × 6, countersunk.'
  return minutes.value.trim() !== '' && !(number.value > 0 && number.value <= 600)
    ? 'Minutes in digits, more than 0.'
    : ''
})
const tried = ref(false)
const USUAL_DETAIL_MINUTES = 1

/** It opens at the foot of a long card: all of it is to be seen, not the first field alone. */
const form = useTemplateRef<HTMLElement>('form')
onMounted(() => form.value?.scrollIntoView({ block: 'nearest' }))

function teach(scope: 'engine' | 'type'): void {
  tried.value = true
  if (problem.value) return
  const taken = minutes.value.trim() === '' ? null : number.value
  const held = heldBy.value.trim()
  const difference: Difference = hidden.value
    ? {
        kind: 'covered',
        part: props.part.id,
        name: name.value.trim(),
        heldBy: held,
        minutes: taken ?? USUAL_DETAIL_MINUTES,
      }
    : { kind: 'fastened', part: props.part.id, heldBy: held, minutes: taken, refitMinutes: null }
  emit('teach', difference, scope, [hidden.value ? name.value.trim() : '', held].filter(Boolean).join(', '))
}
</script>

<template>
  <section ref="form" class="teach" :aria-label="deviations[what]">
    <h3>{{ deviations[what] }}</h3>
    <div class="fields">
      <v-text-field
        v-if="hidden"
        v-model="name"
        v-focus-first
        label="What lies over it"
        placeholder="Roof vent"
        maxlength="120"
        hide-details
      />
      <v-text-field
        v-model="heldBy"
        v-focus-first="!hidden"
        :label="hidden ? 'What holds that' : 'What holds it'"
        placeholder="4 screws M2 × 6"
        maxlength="120"
        hide-details
        @keydown.enter.prevent="teach('engine')"
      />
      <v-text-field
        v-model="minutes"
        :label="`Minutes (planned ${part.minutes.toFixed(1)})`"
        inputmode="decimal"
        hide-details
        @keydown.enter.prevent="teach('engine')"
      />
    </div>
    <p v-if="tried && problem" class="sign sign--care" role="alert">{{ problem }}</p>
    <div class="acts">
      <v-btn color="primary" variant="flat" @click="teach('engine')">On this engine</v-btn>
      <v-btn variant="outlined" @click="teach('type')">On every {{ type }}</v-btn>
      <v-btn variant="text" @click="emit('note', heldBy.trim())">Only note it</v-btn>
      <v-btn variant="text" @click="emit('leave')">Leave</v-btn>
    </div>
  </section>
</template>

<style scoped>
.teach {
  display: grid;
  gap: 8px;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
.acts {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
</style>
