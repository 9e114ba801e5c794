<script setup lang="ts">
import { v7 as newId } from 'uuid'
import type { JobBook } from '~~/messages/book'
import { stripState } from '~~/work/strip-state'

/** Clip leads, trial glue, a temporary wire: listed from the moment they are noted until they are gone. */
const props = defineProps<{ book: JobBook }>()
const session = useSessionStore()
const steps = useStripSteps(computed(() => props.book))
const things = computed(() => [...stripState(props.book.strip, props.book.search).provisional])
const { draft, handOver } = useDraft(`provisional.${props.book.job.id}`, () => ({ words: '' }))

async function note(): Promise<void> {
  if (draft.value.words.trim() === '') return
  await handOver(({ words }) => steps.add({ kind: 'provisional', thing: newId(), words: words.trim(), gone: false }))
}
const takeAway = (thing: string, words: string): Promise<void> =>
  steps.add({ kind: 'provisional', thing, words, gone: true })
</script>

<template>
  <section aria-label="Provisional things">
    <h2>Provisional</h2>
    <ul v-if="things.length > 0" class="ruled-list">
      <li v-for="[thing, words] in things" :key="thing">
        <span class="sign sign--care">{{ words }}</span>
        <button v-if="session.mayWrite" type="button" class="plain" @click="takeAway(thing, words)">Gone again</button>
      </li>
    </ul>
    <form v-if="session.mayWrite" class="add" @submit.prevent="note">
      <v-text-field
        v-model="draft.words"
        label="Clip lead, trial glue, a temporary wire"
        maxlength="200"
        density="compact"
        hide-details
      /><v-btn type="submit" variant="outlined">Note it</v-btn>
    </form>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: center;
}
.add {
  display: flex;
  gap: 10px;
  align-items: center;
}
.plain {
  font-weight: 600;
  color: var(--green);
  min-height: var(--target);
}
</style>
