<script setup lang="ts">
import { cutText } from '~~/messages/cut-text'
import { v7 as newId } from 'uuid'
import type { JobBook, PartRow } from '~~/messages/book'
import type { PartFields } from '~~/messages/bench-entries'
import { partStates, type PartState } from '~~/messages/vocabulary'
import { mendOfJob } from '~~/work/mend-of-job'
import { unprovedRepairs } from '~~/work/unproved-repairs'

/** What was confirmed is put right, left, or declined; parts wanted are kept beside it. */
const props = defineProps<{ book: JobBook }>()
const session = useSessionStore()
const outbox = useOutbox()
const route = useRoute()
const workshop = useWorkshopStore()
onMounted(() => void workshop.need())
const { ready, described } = useDescribedEngine(computed(() => props.book))
const tasks = computed(() =>
  ready.value ? mendOfJob(props.book, described.value.description, workshop.book?.shelf ?? []) : [],
)
/** What somebody took first; else the order of the ledger. */
const first = ref('')
const task = computed(() => tasks.value.find((entry) => entry.finding.id === first.value) ?? tasks.value[0] ?? null)
/** A repair is proved by one act: where it is made, in one key. */
const unproved = computed(() => unprovedRepairs(props.book))
const retest = computed(() => `/jobs/${props.book.job.id}/find`)
useBenchKeys([
  {
    key: 'r',
    label: 'The retest of what was mended',
    run: () => {
      if (unproved.value.length > 0) void navigateTo(retest.value)
    },
  },
])
const { moveTo } = useJobActions(computed(() => props.book))
const confirmed = computed(() => props.book.findings.filter((finding) => finding.state === 'confirmed'))
const settled = computed(() =>
  props.book.findings.filter((finding) => ['mended', 'left', 'declined'].includes(finding.state)),
)
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
    <h2 v-if="!task">To mend</h2>
    <p v-if="confirmed.length === 0" class="quiet">
      {{
        settled.length > 0
          ? 'Everything confirmed is settled. The retest at Prove decides.'
          : 'Nothing is confirmed yet: suspicions are settled at Find.'
      }}
    </p>
    <MendCard v-if="task" :key="task.finding.id" :book="book" :task="task" :others="tasks.length - 1" />
    <section v-if="unproved.length > 0" class="proof" aria-label="Not proved yet">
      <p>
        <b>{{ unproved.join(', ') }}</b><span class="quiet">Mended, and nothing tried since: one act proves it.</span>
      </p>
      <NuxtLink :to="retest" class="plain">The retest <kbd>R</kbd></NuxtLink>
    </section>
    <section v-if="tasks.length > 1" aria-label="What follows">
      <h2>Then</h2>
      <ul class="ruled-list">
        <li v-for="entry in tasks.filter((other) => other !== task)" :key="entry.finding.id">
          <button type="button" class="then" @click="first = entry.finding.id">
            <b>{{ entry.finding.what }}</b>
            <span class="quiet">{{ entry.ways[0]?.name ?? entry.finding.remedy }}</span>
            <span v-if="entry.ways[0]" class="figure">{{ entry.ways[0].minutes }} min</span>
          </button>
        </li>
      </ul>
    </section>
    <template v-if="settled.length > 0"
      ><h2>Settled</h2>
      <ul class="ruled-list">
        <li v-for="finding in settled" :key="finding.id"><FindingLine :finding="finding" /></li></ul
    ></template>
    <FinishTasks v-if="ready" :book="book" :description="described.description" />
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
.then {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 70px;
  gap: 12px;
  width: 100%;
  min-height: var(--target);
  align-items: center;
}
.mend {
  display: grid;
  gap: 12px;
}
.proof {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 6px 18px;
  padding: 8px 0 8px 14px;
  border-left: 3px solid var(--sound);
}
.proof p {
  display: grid;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  align-items: center;
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
}
</style>
