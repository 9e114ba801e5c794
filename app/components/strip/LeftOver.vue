<script setup lang="ts">
import type { JobBook } from '~~/messages/book'
import { deviations } from '~~/messages/strip-entries'
import { cellName } from '~~/core/strip/tray'
import { openThings, stripState } from '~~/work/strip-state'

/** Nothing left over: what still lies in the tray, and what was provisional, before anything is proved. */
const props = defineProps<{ book: JobBook }>()
const session = useSessionStore()
const steps = useStripSteps(computed(() => props.book))
const state = computed(() => stripState(props.book.strip, props.book.search))
const lying = computed(() => (props.book.strip.length === 0 ? [] : state.value.lying))
const provisional = computed(() => [...state.value.provisional])
const nothing = computed(() => lying.value.length === 0 && provisional.value.length === 0)
const { draft, handOver } = useDraft(`sign-off.${props.book.job.id}`, () => ({ words: '' }))
async function signOff(): Promise<void> {
  if (draft.value.words.trim() === '') return
  const open = openThings(state.value)
  await handOver(({ words }) => steps.add({ kind: 'signed-off', words: words.trim(), open }))
}
const leave = (part: string, words: string): Promise<void> =>
  steps.putBack({ id: part, name: words }, 'left-off', 'left off at Prove')
</script>

<template>
  <section v-if="!nothing" class="left" aria-label="Left over">
    <p v-if="state.signedOff" class="sign sign--care">Signed off: “{{ state.signedOff.words }}”</p>
    <p class="sign" :class="state.signedOff ? 'sign--care' : 'sign--fault'">
      {{
        [
          lying.length > 0 ? `${lying.length} ${lying.length === 1 ? 'thing is' : 'things are'} not back in place` : '',
          provisional.length > 0 ? `${provisional.length} provisional` : '',
        ]
          .filter(Boolean)
          .join(', ')
      }}
    </p>
    <ul class="ruled-list">
      <li v-for="thing in lying" :key="thing.part">
        <span
          >{{ thing.words }}<span v-if="thing.cell" class="quiet">, in {{ cellName(thing.cell) }}</span></span
        ><button v-if="session.mayWrite" type="button" class="plain" @click="leave(thing.part, thing.words)">
          Left off on purpose
        </button>
      </li>
      <li v-for="[thing, words] in provisional" :key="thing">
        <span>{{ words }}</span><span class="quiet">provisional</span>
      </li>
    </ul>
    <form v-if="session.mayWrite && !state.signedOff" class="sign-off" @submit.prevent="signOff">
      <v-text-field v-model="draft.words" label="Why it goes on all the same" maxlength="300" hide-details />
      <v-btn type="submit" variant="outlined" :disabled="draft.words.trim() === ''">Sign it off</v-btn>
    </form>
    <NuxtLink :to="`/jobs/${book.job.id}/rebuild`" class="plain">Back to Rebuild</NuxtLink>
    <ul v-if="state.notAsPlanned.length > 0" class="quiet">
      <li v-for="entry in state.notAsPlanned" :key="entry.entryId">{{ deviations[entry.what] }}: {{ entry.words }}</li>
    </ul>
  </section>
</template>

<style scoped>
.left {
  border: 2px solid var(--red);
  border-radius: 3px;
  padding: 10px 14px;
  display: grid;
  gap: 8px;
}
.sign-off {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 10px;
  align-items: center;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: center;
}
.plain {
  font-weight: 600;
  color: var(--green);
  min-height: var(--target);
  display: inline-flex;
  align-items: center;
}
</style>
