<script setup lang="ts">
import { minutesUsed } from '~~/work/minutes-used'
import { readMoney } from '~~/work/read-money'
import { oiledInWords } from '~~/work/oiled-in-words'
import type { JobBook } from '~~/messages/book'
import { compareJob } from '~~/work/job-comparison'
import { priceOfWork, showMoney } from '~~/work/money'
import type { HandBackFields } from '~~/messages/bench-entries'

/** What the owner gets told and pays, with the readings that prove the work. */
const props = defineProps<{ book: JobBook }>()
const outbox = useOutbox()
const session = useSessionStore()
const workshop = useWorkshopStore()
const comparison = computed(() => compareJob(props.book))
const open = computed(() =>
  props.book.findings.filter((finding) => finding.state === 'confirmed' || finding.state === 'suspected'),
)
const openArrivals = computed(() => props.book.job.arrivals.filter((item) => item.fate === null))
const initial = (): HandBackFields =>
  props.book.job.handBack ?? {
    leftUndone: '',
    lubricants: oiledInWords(props.book.care),
    dueAgain: '',
    partsReturned: '',
    price: null,
  }
const { draft, handOver } = useDraft<HandBackFields>(`hand-back.${props.book.job.id}`, initial)
const parts = computed(() =>
  props.book.parts
    .filter((part) => part.state === 'fitted' && part.price !== null)
    .reduce((sum, part) => sum + (part.price ?? 0) * part.quantity, 0),
)
const reckoned = computed(() => {
  const settings = workshop.book?.workshop
  if (!settings) return null
  const { taxName, taxPercent, hourlyRate } = settings
  return {
    ...priceOfWork({ minutes: minutesUsed(props.book.notes), hourlyRate, parts: parts.value, taxPercent }),
    taxName,
    taxPercent,
  }
})
const overLimit = computed(() => {
  const limit = props.book.job.moneyLimit
  return limit !== null && (draft.value.price ?? 0) > limit
})
const price = computed({
  get: () => (draft.value.price === null ? '' : (draft.value.price / 100).toFixed(2)),
  set: (text: string) => {
    draft.value.price = text.trim() === '' ? null : (readMoney(text) ?? draft.value.price)
  },
})

const paper = useFreshPaper()
async function submit(): Promise<void> {
  const { job } = props.book
  const base = initial()
  await handOver((fields) => outbox.send('job.hand-back', { id: job.id, fields }, { version: job.version, ...base }))
}
defineExpose({ submit })
</script>

<template>
  <div class="hand-back">
    <div class="head">
      <h2>Before and after</h2>
      <v-btn variant="outlined" :href="`/api/jobs/${book.job.id}/hand-back`" target="_blank" @click="paper.open"
        >Printed sheet (PDF)</v-btn
      ><v-btn variant="outlined" :href="`/api/jobs/${book.job.id}/leaflet`" target="_blank" @click="paper.open"
        >Care leaflet (PDF)</v-btn
      >
      <p v-if="paper.late.value" class="quiet" role="status">{{ paper.words }}</p>
    </div>
    <ComparisonTable :comparison="comparison" />
    <section v-if="open.length > 0 || openArrivals.length > 0" class="open">
      <h2>Still open</h2>
      <p v-for="finding in open" :key="finding.id" class="sign sign--care">{{ finding.what }}</p>
      <p v-for="item in openArrivals" :key="item.id" class="sign sign--care">
        {{ item.what }}: what became of it is not noted (at Take in)
      </p>
    </section>
    <form class="form" @submit.prevent="submit">
      <h2>For the owner</h2>
      <div class="fields">
        <v-textarea
          v-model="draft.leftUndone"
          class="wide"
          label="Left undone, and why"
          :readonly="!session.mayWrite"
        />
        <v-text-field v-model="draft.lubricants" label="Lubricants used" :readonly="!session.mayWrite" />
        <v-text-field
          v-model="draft.dueAgain"
          label="Due again"
          placeholder="After 24 h of running, or in a year"
          :readonly="!session.mayWrite"
        />
        <v-text-field v-model="draft.partsReturned" label="Original parts returned" :readonly="!session.mayWrite" />
        <v-text-field
          v-model.lazy="price"
          :label="`Price (${workshop.currency})`"
          inputmode="decimal"
          :readonly="!session.mayWrite"
          :error-messages="
            overLimit ? [`Above the owner’s limit of ${showMoney(book.job.moneyLimit ?? 0, workshop.currency)}.`] : []
          "
        />
      </div>
      <p v-if="reckoned" class="quiet">
        {{ minutesUsed(book.notes) }} min at the shop’s rate: {{ showMoney(reckoned.work, workshop.currency)
        }}<template v-if="parts">, parts {{ showMoney(parts, workshop.currency) }}</template
        ><template v-if="reckoned.tax"
          >, {{ reckoned.taxName }} {{ reckoned.taxPercent }} %
          {{ showMoney(reckoned.tax, workshop.currency) }}</template
        >; together {{ showMoney(reckoned.gross, workshop.currency) }}.
        <button v-if="session.mayWrite" type="button" class="take" @click="draft.price = reckoned.gross">
          Take it as the price
        </button>
      </p>
      <div class="choices">
        <v-btn v-if="session.mayWrite && book.job.state === 'handed-back'" type="submit" variant="outlined"
          >Keep the changed sheet</v-btn
        >
      </div>
    </form>
    <LearnFromJob :book="book" />
  </div>
</template>

<style scoped>
.hand-back {
  display: grid;
  gap: 20px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
}
.open {
  display: grid;
  gap: 6px;
}
.form {
  display: grid;
  gap: 12px;
}
.take {
  color: var(--green);
  font-weight: 600;
  min-height: var(--target);
}
</style>
