<script setup lang="ts">
import { showMoment } from '~~/work/describe-due'
import { minutesUsed } from '~~/work/minutes-used'
import type { FindingRow, JobBook } from '~~/messages/book'
import { findingOrigins, findingStates, partStates, type FindingState, stationName } from '~~/messages/vocabulary'

/** The job's ledger, always beside the work: findings, parts wanted, minutes against estimate. */
const props = defineProps<{ book: JobBook }>()
defineEmits<{ photograph: []; phone: [] }>()
const session = useSessionStore()
const jobs = useJobStore()
const dialog = useFindingDialog()
const viewer = usePhotographViewer()
/** Two hundred of them would be the whole column: the latest, until somebody wants all. */
const PHOTOGRAPHS_SHOWN = 8
const allPhotographs = ref(false)
const photographs = computed(() => props.book.photographs.filter((entry) => entry.width > 0))
const shownPhotographs = computed(() =>
  allPhotographs.value ? photographs.value : photographs.value.slice(-PHOTOGRAPHS_SHOWN),
)
const order: FindingState[] = ['confirmed', 'suspected', 'mended', 'left', 'declined', 'ruled-out']
const findings = computed(() =>
  [...props.book.findings].sort((a, b) => order.indexOf(a.state) - order.indexOf(b.state)),
)
const minutes = computed(() => minutesUsed(props.book.notes))
const overEstimate = computed(
  () => props.book.job.estimateMinutes !== null && minutes.value > props.book.job.estimateMinutes,
)
/** What the shop has noted of every engine of the type, latest first; it is there before the search needs it. */
const typeNotes = computed(() =>
  props.book.type.notes
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .reverse(),
)
const NOTES_SHOWN = 4
const wanted = computed(() => props.book.parts.filter((part) => part.state !== 'dropped'))
const signOf: Record<FindingState, string> = {
  suspected: 'sign--ask',
  confirmed: 'sign--fault',
  mended: 'sign--sound',
  left: 'sign--care',
  declined: 'sign--care',
  'ruled-out': 'sign--ask',
}
const open = (finding: FindingRow): void => {
  if (session.mayWrite) dialog.openFor(finding)
}
</script>

<template>
  <aside class="ledger" aria-label="Ledger">
    <section>
      <div class="head">
        <h2>Findings</h2>
        <button v-if="session.mayWrite" type="button" class="add" @click="dialog.openNew()">
          Note one <kbd>F</kbd>
        </button>
      </div>
      <p v-if="findings.length === 0" class="quiet">Nothing found yet.</p>
      <ul class="list">
        <li v-for="finding in findings" :key="finding.id">
          <button type="button" class="finding" :disabled="!session.mayWrite" @click="open(finding)">
            <span class="sign" :class="signOf[finding.state]">{{ findingStates[finding.state] }}</span>
            <span>{{ finding.what }}</span>
            <span v-if="finding.origin !== 'arrived'" class="quiet">{{ findingOrigins[finding.origin] }}</span>
          </button>
        </li>
      </ul>
    </section>
    <section v-if="typeNotes.length > 0" aria-label="Noted of the type">
      <div class="head">
        <h2>Every {{ book.type.name }}</h2>
      </div>
      <ul class="list">
        <li v-for="(note, index) in typeNotes.slice(0, NOTES_SHOWN)" :key="index" class="noted">{{ note }}</li>
      </ul>
      <details v-if="typeNotes.length > NOTES_SHOWN" class="journal">
        <summary>{{ typeNotes.length - NOTES_SHOWN }} more</summary>
        <ul class="list">
          <li v-for="(note, index) in typeNotes.slice(NOTES_SHOWN)" :key="index" class="noted">{{ note }}</li>
        </ul>
      </details>
    </section>
    <section>
      <div class="head"><h2>Parts wanted</h2></div>
      <p v-if="wanted.length === 0" class="quiet">None.</p>
      <ul class="list">
        <li v-for="part in wanted" :key="part.id" class="part">
          <span>{{ part.quantity }} × {{ part.what }}</span
          ><span class="quiet">{{ partStates[part.state] }}</span>
        </li>
      </ul>
    </section>
    <section>
      <h2>Minutes</h2>
      <p class="minutes">
        <span class="numeral">{{ minutes }}</span><span class="quiet">
          {{
            book.job.estimateMinutes === null ? 'used, no estimate' : `used of ${book.job.estimateMinutes} estimated`
          }}</span
        >
      </p>
      <div
        v-if="book.job.estimateMinutes"
        class="gauge"
        role="img"
        :aria-label="`${minutes} of ${book.job.estimateMinutes} minutes`"
      >
        <i
          :class="{ over: overEstimate }"
          :style="{ width: `${Math.min(100, (minutes / book.job.estimateMinutes) * 100)}%` }"
        />
      </div>
      <p v-if="overEstimate" class="sign sign--care">Over the estimate</p>
    </section>
    <section>
      <div class="head">
        <h2>Photographs</h2>
        <button v-if="session.mayWrite" type="button" class="add" @click="$emit('photograph')">
          Take one <kbd>P</kbd>
        </button>
        <button v-if="session.mayWrite" type="button" class="add" @click="$emit('phone')">Phone <kbd>H</kbd></button>
      </div>
      <div v-if="book.photographs.length > 0" class="photographs">
        <button
          v-for="photograph in shownPhotographs"
          :key="photograph.id"
          type="button"
          @click="viewer.open(photograph.id)"
        >
          <img
            :src="`/api/photographs/${photograph.id}/thumbnail`"
            :alt="photograph.caption || `Photograph at ${stationName(photograph.station)}`"
            loading="lazy"
          />
        </button>
        <span v-if="book.photographs.some((entry) => entry.width === 0)" class="quiet"
          >{{ book.photographs.filter((entry) => entry.width === 0).length }} on the way</span
        >
        <button
          v-if="photographs.length > shownPhotographs.length"
          type="button"
          class="add"
          @click="allPhotographs = true"
        >
          All {{ photographs.length }}
        </button>
      </div>
      <p v-else class="quiet">None yet. Before each removal is the time.</p>
    </section>
    <details class="journal" @toggle="jobs.need(['journal'])">
      <summary>Journal of this job</summary>
      <ol v-if="jobs.has(['journal'])" class="list">
        <li v-for="line in book.journal" :key="line.sequence" class="entry">
          <span>{{ line.summary }}</span><span class="quiet">{{ line.person }}, {{ showMoment(line.capturedAt) }}</span>
        </li>
      </ol>
    </details>
  </aside>
</template>

<style scoped>
.ledger {
  display: grid;
  gap: 20px;
  align-content: start;
  font-size: 0.94rem;
}
.ledger h2 {
  font-size: 1rem;
}

.head {
  display: flex;
  flex-wrap: wrap;
  column-gap: 14px;
  align-items: center;
  justify-content: space-between;
  min-height: 36px;
}
.add {
  color: var(--green);
  font-weight: 600;
  min-height: var(--target);
  display: inline-flex;
  align-items: center;
  gap: 8px;
  font-size: 0.92rem;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
}
.list li {
  border-top: 1px solid var(--rule);
}
.finding {
  display: grid;
  gap: 1px;
  text-align: left;
  width: 100%;
  padding: 8px 0;
  min-height: var(--target);
}
.finding:hover:not(:disabled) {
  background: var(--sheet);
}
.finding .sign {
  font-size: 0.84rem;
  font-weight: 600;
}
.noted {
  padding: 7px 0;
  overflow-wrap: anywhere;
}
.part {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 8px 0;
}
.minutes {
  display: flex;
  align-items: baseline;
  gap: 6px;
}
.gauge {
  height: 7px;
  border: 1px solid var(--steel);
  margin: 4px 0;
}
.gauge i {
  display: block;
  height: 100%;
  background: var(--steel);
}
.gauge i.over {
  background: var(--amber);
}
.photographs {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
  align-items: center;
}
.photographs img {
  width: 100%;
  aspect-ratio: 4 / 3;
  object-fit: cover;
  display: block;
  border: 1px solid var(--rule);
}
.journal summary {
  cursor: pointer;
  font-weight: 600;
  min-height: var(--target);
  display: flex;
  align-items: center;
}
.entry {
  display: grid;
  padding: 6px 0;
  font-size: 0.86rem;
}
</style>
