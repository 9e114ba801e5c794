<script setup lang="ts">
import { showMoment } from '~~/work/describe-due'
import type { JobBook, NoteRow } from '~~/messages/book'
import type { StationId } from '~~/messages/vocabulary'

/** Notes and minutes at a station: added, or corrected by a later one; never erased. */
const props = defineProps<{ book: JobBook; station: StationId }>()
const session = useSessionStore()
const { addNote } = useJobActions(computed(() => props.book))
const { draft, handOver } = useDraft(`note.${props.book.job.id}.${props.station}`, () => ({
  text: '',
  minutes: '',
  supersedesId: null as string | null,
}))
const superseded = computed(() => new Set(props.book.notes.map((note) => note.supersedesId)))
const notes = computed(() =>
  props.book.notes.filter((note) => note.station === props.station && !superseded.value.has(note.id)),
)
const minutes = computed(() => (draft.value.minutes.trim() === '' ? 0 : Number(draft.value.minutes)))
const problem = computed(() =>
  Number.isInteger(minutes.value) && minutes.value >= 0 && minutes.value < 6000 ? '' : 'Whole minutes in digits.',
)

async function keep(): Promise<void> {
  if (problem.value || (draft.value.text.trim() === '' && minutes.value === 0)) return
  const spent = minutes.value
  await handOver((note) => addNote(props.station, note.text.trim(), spent, note.supersedesId))
}

function correct(note: NoteRow): void {
  draft.value = { text: note.text, minutes: note.minutes ? String(note.minutes) : '', supersedesId: note.id }
}
</script>

<template>
  <section class="notes" aria-label="Notes and minutes">
    <h2>Notes and minutes</h2>
    <ul v-if="notes.length > 0" class="ruled-list">
      <li v-for="note in notes" :key="note.id" class="note">
        <span class="text">{{ note.text }}</span><span class="figure">{{
          note.minutes ? `${note.minutes} min` : ''
        }}</span
        ><span class="quiet">{{ note.author.split(' ')[0] }}, {{ showMoment(note.capturedAt) }}</span
        ><button v-if="session.mayWrite" type="button" class="correct" @click="correct(note)">Correct</button>
      </li>
    </ul>
    <form v-if="session.mayWrite" class="add" @submit.prevent="keep">
      <v-textarea
        v-model="draft.text"
        :label="draft.supersedesId ? 'Corrected note' : 'Note'"
        @keydown.enter.exact.prevent="keep"
      />
      <v-text-field
        v-model="draft.minutes"
        label="Minutes"
        inputmode="numeric"
        class="few"
        :error-messages="problem ? [problem] : []"
      />
      <v-btn type="submit" variant="outlined">Keep</v-btn>
    </form>
  </section>
</template>

<style scoped>
.notes {
  margin-top: 14px;
  display: grid;
  gap: 8px;
}
.note {
  display: grid;
  grid-template-columns: 1fr 70px max-content 70px;
  gap: 14px;
  align-items: baseline;
}
.text {
  white-space: pre-wrap;
}
.correct {
  color: var(--soft);
  font-weight: 550;
  min-height: 28px;
}
.add {
  display: flex;
  gap: 14px;
  align-items: end;
}
.few {
  flex: 0 0 110px;
}
@media (max-width: 600px) {
  .note {
    grid-template-columns: 1fr max-content;
  }
}
</style>
