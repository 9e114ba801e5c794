<script setup lang="ts">
import { cutText } from '~~/messages/cut-text'
import { v7 as newId } from 'uuid'
import type { FindingRow, JobBook, PartRow } from '~~/messages/book'
import type { PartFields } from '~~/messages/bench-entries'
import { partStates, type FindingState, type PartState } from '~~/messages/vocabulary'

/** What was confirmed is put right, left, or declined; parts wanted are kept beside it. */
const props = defineProps<{ book: JobBook }>()
const session = useSessionStore()
const outbox = useOutbox()
const route = useRoute()
const { setState } = useFindingState(computed(() => props.book))
const { moveTo } = useJobActions(computed(() => props.book))
const confirmed = computed(() => props.book.findings.filter((finding) => finding.state === 'confirmed'))
const settled = computed(() =>
  props.book.findings.filter((finding) => ['mended', 'left', 'declined'].includes(finding.state)),
)
const choices: ReadonlyArray<{ state: FindingState; word: string }> = [
  { state: 'mended', word: 'Mended' },
  { state: 'left', word: 'Left' },
  { state: 'declined', word: 'Declined' },
]
const { draft: part, handOver } = useDraft<PartFields>(`part.${props.book.job.id}`, () => ({
  what: '',
  quantity: 1,
  state: 'wanted',
  price: null,
}))
const partsWaiting = computed(() =>
  props.book.parts.filter((entry) => entry.state === 'wanted' || entry.state === 'ordered'),
)
const partBox = ref<{ focus: () => void }>()
onMounted(() => {
  if (route.query.form === 'part') partBox.value?.focus()
})

const act = (finding: FindingRow, state: FindingState): void => void setState(finding, state)

async function addPart(): Promise<void> {
  if (part.value.what.trim() === '') return
  const id = newId()
  const jobId = props.book.job.id
  await handOver((fields) =>
    outbox.send('part.save', {
      id,
      jobId,
      fields: { ...fields, quantity: Math.max(1, Math.round(Number(fields.quantity) || 1)) },
    }),
  )
}

async function setPart(row: PartRow, state: PartState): Promise<void> {
  const jobId = props.book.job.id
  const base = { what: row.what, quantity: row.quantity, state: row.state, price: row.price }
  await outbox.send('part.save', { id: row.id, jobId, fields: { ...base, state } }, row)
}
</script>

<template>
  <div class="mend">
    <Cautions station="mend" />
    <h2>To mend</h2>
    <p v-if="confirmed.length === 0" class="quiet">
      {{
        settled.length > 0
          ? 'Everything confirmed is settled. The retest at Prove decides.'
          : 'Nothing is confirmed yet: suspicions are settled at Find.'
      }}
    </p>
    <ul class="ruled-list">
      <li v-for="finding in confirmed" :key="finding.id" class="line">
        <div>
          <strong>{{ finding.what }}</strong>
          <div class="quiet">{{ [finding.place, finding.remedy].filter(Boolean).join('. ') }}</div>
        </div>
        <div v-if="session.mayWrite" class="choices">
          <v-btn
            v-for="choice in choices"
            :key="choice.state"
            :variant="choice.state === 'mended' ? 'flat' : 'outlined'"
            :color="choice.state === 'mended' ? 'primary' : undefined"
            @click="act(finding, choice.state)"
            >{{ choice.word }}</v-btn
          >
        </div>
      </li>
    </ul>
    <template v-if="settled.length > 0"
      ><h2>Settled</h2>
      <ul class="ruled-list">
        <li v-for="finding in settled" :key="finding.id"><FindingLine :finding="finding" /></li></ul
    ></template>
    <h2>Parts</h2>
    <ul v-if="book.parts.length > 0" class="ruled-list">
      <li v-for="row in book.parts" :key="row.id" class="line">
        <span>{{ row.quantity }} × {{ row.what }}</span
        ><v-select
          :model-value="row.state"
          :items="Object.entries(partStates).map(([value, title]) => ({ value, title }))"
          label="State"
          class="part-state"
          :disabled="!session.mayWrite"
          @update:model-value="setPart(row, $event)"
        />
      </li>
    </ul>
    <form v-if="session.mayWrite" class="add" @submit.prevent="addPart">
      <v-text-field v-model="part.quantity" label="Number" inputmode="numeric" class="few" /><v-text-field
        ref="partBox"
        v-model="part.what"
        label="Part wanted"
      /><v-btn type="submit" variant="outlined">Add part</v-btn>
    </form>
    <v-btn
      v-if="session.mayWrite && partsWaiting.length > 0 && book.job.state === 'open'"
      variant="outlined"
      class="wait"
      @click="moveTo('mend', 'waiting', cutText(partsWaiting.map((row) => row.what).join(', '), 200))"
      >Put aside until {{ partsWaiting.length === 1 ? 'the part comes' : 'the parts come' }}</v-btn
    >
    <v-btn
      v-if="session.mayWrite && book.job.state === 'waiting'"
      variant="outlined"
      class="wait"
      @click="moveTo(book.job.station)"
      >Back on the bench</v-btn
    >
    <StationNotes :book="book" station="mend" />
  </div>
</template>

<style scoped>
.mend {
  display: grid;
  gap: 12px;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  align-items: center;
}
.choices {
  display: flex;
  gap: 8px;
  flex: none;
}
.add {
  display: flex;
  gap: 14px;
  align-items: end;
}
.few {
  flex: 0 0 90px;
}
.part-state {
  flex: 0 0 200px;
}
.wait {
  justify-self: start;
}
@media (max-width: 600px) {
  .line {
    flex-direction: column;
    align-items: stretch;
  }
  .choices {
    flex-wrap: wrap;
  }
}
</style>
