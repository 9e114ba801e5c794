<script setup lang="ts">
import { describeConstruction } from '~~/core/knowledge/constructions'
import { diagnosisKnowledge } from '~~/core/knowledge/diagnosis-knowledge'
import type { Circumstance } from '~~/core/knowledge/knowledge-schema'
import { circumstanceWords } from '~~/work/circumstance-words'
import { circumstancesIn } from '~~/work/search-history'
import { tellableOf, type TellableObservation } from '~~/work/told-at-the-counter'
import type { JobFields } from '~~/messages/book-entries'
import type { Construction, Power } from '~~/messages/vocabulary'

/** What the owner tells, what is seen over the counter and what is known of its past, by tapping: the search begins with it. */
const fields = defineModel<JobFields>({ required: true })
const props = defineProps<{ construction: Construction; power: Power; about: string }>()

const tellable = computed(() =>
  tellableOf(describeConstruction(props.construction, props.power), diagnosisKnowledge).map((entry) => ({
    ...entry,
    id: `${entry.test}/${entry.outcome}`,
  })),
)
const from = (source: TellableObservation['from']) => tellable.value.filter((entry) => entry.from === source)
const told = computed<readonly string[]>({
  get: () => (fields.value.told ?? []).map(({ test, outcome }) => `${test}/${outcome}`),
  // Two answers to one question exclude each other: the last one tapped counts.
  set: (ids) => {
    const known = fields.value.told ?? []
    const last = new Map(
      ids.flatMap((id) => {
        const entry = tellable.value.find((row) => row.id === id)
        const before = known.find(({ test, outcome }) => `${test}/${outcome}` === id)
        const kept = entry ? { test: entry.test, outcome: entry.outcome, words: entry.words } : before
        return kept ? [[kept.test, kept] as const] : []
      }),
    )
    fields.value.told = [...last.values()]
  },
})
/** Said of the complaint itself, or of a later state than that it comes in. */
const notAsked: ReadonlySet<string> = new Set(['complained-of', 'just-refitted'])
const pasts = Object.entries(circumstanceWords).flatMap(([id, words]) => (notAsked.has(id) ? [] : [{ id, words }]))
/** As the words have it until somebody taps. */
const past = computed<readonly string[]>({
  get: () => fields.value.past ?? circumstancesIn(props.about),
  set: (ids) => {
    fields.value.past = ids as Circumstance[]
  },
})
</script>

<template>
  <div class="told">
    <TapWords v-model="told" label="What it does, as told" :items="from('told')" />
    <TapWords v-model="told" label="What is seen over the counter" :items="from('counter')" />
    <TapWords
      v-model="past"
      label="Its past"
      :hint="fields.past ? '' : 'Read from what is written; tap to put it right.'"
      :items="pasts"
    />
  </div>
</template>

<style scoped>
.told {
  display: grid;
  gap: 14px;
  margin: 10px 0 8px;
}
</style>
