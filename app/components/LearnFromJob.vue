<script setup lang="ts">
import { faultOfSuspect } from '~~/core/knowledge/suspect-id'
import { showMoment } from '~~/work/describe-due'
import { v7 as newId } from 'uuid'
import type { JobBook } from '~~/messages/book'

/** A closed job adds to what the shop knows: which suspects were really so, and a word on the type. */
const props = defineProps<{ book: JobBook }>()
const outbox = useOutbox()
const session = useSessionStore()

/** Confirmed at the search, each once; what was struck out is not among them. */
const confirmed = computed(() => {
  const struck = new Set(props.book.search.flatMap((row) => (row.entry.kind === 'struck' ? [row.entry.entryId] : [])))
  const seen = new Map<string, string>()
  for (const { id, entry } of props.book.search)
    if (entry.kind === 'confirmed' && !struck.has(id)) seen.set(entry.suspect, entry.words)
  return [...seen].map(([suspect, words]) => ({ suspect, words: words.charAt(0).toUpperCase() + words.slice(1) }))
})
const { draft, clear } = useDraft(`learn.${props.book.job.id}`, () => ({ leftOut: [] as string[], typeNote: '' }))
const own = computed(() => props.book.learned.own)
const counts = computed(() => own.value !== null && !own.value.withdrawn)
const before = computed(() => {
  const { construction, type } = props.book.learned
  const [alike, same] = [construction.jobs, type.jobs]
  if (alike + same === 0)
    return counts.value ? 'It is the first such machine.' : 'No such machine has been counted yet.'
  return `${counts.value ? 'Counted besides it' : 'Counted so far'}: ${same} ${same === 1 ? 'job' : 'jobs'} on this type, ${alike} on others made alike.`
})
const timesFound = (suspect: string): number => {
  const fault = faultOfSuspect(suspect)
  return (props.book.learned.construction.found[fault] ?? 0) + (props.book.learned.type.found[fault] ?? 0)
}
async function send(withdrawn: boolean): Promise<void> {
  const id = newId()
  const { id: jobId } = props.book.job
  const suspects = confirmed.value
    .map((entry) => entry.suspect)
    .filter((suspect) => !draft.value.leftOut.includes(suspect))
  const typeNote = withdrawn ? '' : draft.value.typeNote.trim()
  await outbox.send('knowledge.learn', { id, jobId, fields: { suspects, typeNote, withdrawn } })
  if (!withdrawn) clear()
}
function toggle(suspect: string): void {
  draft.value.leftOut = draft.value.leftOut.includes(suspect)
    ? draft.value.leftOut.filter((entry) => entry !== suspect)
    : [...draft.value.leftOut, suspect]
}
</script>

<template>
  <section v-if="book.search.length > 0 || own" class="learn" aria-label="Add to what we know">
    <h2>Add to what we know</h2>
    <p class="quiet">The next search on a machine like this starts from it. {{ before }}</p>
    <template v-if="counts && own">
      <p class="sign sign--sound">
        {{
          own.suspects.length === 0
            ? 'Counted as a job without a confirmed fault'
            : `Counted: ${own.suspects.length} ${own.suspects.length === 1 ? 'fault' : 'faults'}`
        }}, {{ showMoment(own.at) }}, {{ own.author.split(' ')[0] }}.
      </p>
      <button v-if="session.mayWrite" type="button" class="plain" @click="send(true)">Take it back</button>
    </template>
    <template v-else>
      <p v-if="confirmed.length === 0">
        Nothing was confirmed at the search: it counts as a machine that had none of it.
      </p>
      <ul v-else class="ruled-list">
        <li v-for="entry in confirmed" :key="entry.suspect">
          <label class="line"
            ><input
              type="checkbox"
              :checked="!draft.leftOut.includes(entry.suspect)"
              :disabled="!session.mayWrite"
              @change="toggle(entry.suspect)"
            /><span>{{ entry.words }}</span
            ><span class="quiet">{{
              timesFound(entry.suspect) === 0 ? 'for the first time' : `${timesFound(entry.suspect)} before`
            }}</span></label
          >
        </li>
      </ul>
      <v-text-field
        v-model="draft.typeNote"
        :label="`To be noted of every ${book.type.maker} ${book.type.name}`"
        maxlength="600"
        :readonly="!session.mayWrite"
        hide-details
      />
      <div v-if="session.mayWrite"><v-btn variant="outlined" @click="send(false)">Add it</v-btn></div>
    </template>
  </section>
</template>

<style scoped>
.learn {
  display: grid;
  gap: 10px;
  border-top: 1px solid var(--rule);
  padding-top: 16px;
}
.ruled-list > li {
  padding: 0;
}
.line {
  display: grid;
  grid-template-columns: 26px 1fr max-content;
  gap: 10px;
  align-items: center;
  min-height: var(--target);
}
input {
  width: 20px;
  height: 20px;
  accent-color: var(--green);
}
.plain {
  font-weight: 600;
  color: var(--green);
  min-height: var(--target);
  justify-self: start;
}
</style>
