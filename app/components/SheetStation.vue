<script setup lang="ts">
import { v7 as newId } from 'uuid'
import { judgeAgainstHistory } from '~~/core/motor/history-judgement'
import { motorFigures } from '~~/core/motor/motor-figures'
import { judgeSheet } from '~~/core/motor/sheet-judgement'
import { isMetered } from '~~/core/motor/sheet-reading'
import type { JobBook, ReadingRow, SheetRow } from '~~/messages/book'
import type { SheetFields, SheetStation } from '~~/messages/bench-entries'
import { fieldsOfReading, motorReading, type ReadingFields } from '~~/messages/readings/reading-kinds'
import { compareJob } from '~~/work/job-comparison'
import type { MeasuringOutlook, MeasuringProcedure } from '~~/messages/measuring'
import { historyBefore } from '~~/work/motor-history'
import { countingReadings, machineFacts, standingReadings, windingCelsius } from '~~/work/sheet-readings'

/** A test sheet: readings typed line by line, judged while they are typed, kept as they are entered. */
const props = defineProps<{ book: JobBook; station: Exclude<SheetStation, 'rebuild'> }>()
const outbox = useOutbox()
const session = useSessionStore()
const workshop = useWorkshopStore()
const machine = computed(() => machineFacts(props.book.type))
const sheets = computed(() => props.book.sheets.filter((sheet) => sheet.station === props.station))
const chosenId = ref<string | null>(null)
const sheet = computed<SheetRow | null>(
  () => sheets.value.find((entry) => entry.id === chosenId.value) ?? sheets.value.at(-1) ?? null,
)
const typing = shallowRef<ReadingFields | null>(null)
const corrected = shallowRef<ReadingRow | null>(null)
const meters = computed(() => {
  const find = (id: string | null, quantity: 'voltage' | 'current') =>
    workshop.metersFor(quantity).find((meter) => meter.id === id) ?? null
  return {
    voltage: find(sheet.value?.voltageMeterId ?? null, 'voltage'),
    current: find(sheet.value?.currentMeterId ?? null, 'current'),
  }
})

const instruments = computed(() => (workshop.book?.instruments ?? []).filter((entry) => !entry.retired))
const measuring = ref<MeasuringProcedure | null>(null)
watch(
  () => sheet.value?.id,
  () => {
    measuring.value = null
  },
)
/** What the supply can do at this machine; until the server has said so, what any sheet can. */
const possible = ref<readonly MeasuringProcedure[]>(['sweep'])
/** One just begun is asked about once it has arrived there. */
const isOnItsWay = (id: string): boolean =>
  outbox.waiting.some((entry) => entry.kind === 'command' && entry.name === 'sheet.save' && entry.payload.id === id)
watch(
  () => (sheet.value?.withMeter && instruments.value.length > 0 && !isOnItsWay(sheet.value.id) ? sheet.value.id : null),
  async (id) => {
    if (!id) return
    const outlook = await $fetch<MeasuringOutlook>(`/api/measuring/${id}`).catch(() => null)
    if (outlook && sheet.value?.id === id) possible.value = outlook.procedures
  },
  { immediate: true },
)
const wayWords: Readonly<Record<MeasuringProcedure, string>> = {
  sweep: 'Measure with the supply',
  step: 'Test a step',
  sequence: 'Test the sequence switch',
  relay: 'Test the relay',
}

const counting = computed(() => (sheet.value ? countingReadings(sheet.value, machine.value) : []))
const draftReading = computed(() => (typing.value ? motorReading(typing.value) : null))
const supplyOf = (entry: SheetRow): 'dc' | 'ac' => (entry.supply === 'ac' ? 'ac' : 'dc')
/** The latest sheet here on the other kind of supply: a wound field is told by both together. */
const otherSupply = computed(() => {
  const here = sheet.value
  const other =
    here && machine.value.power === 'ac'
      ? sheets.value.findLast((entry) => entry.withMeter && supplyOf(entry) !== supplyOf(here))
      : undefined
  return other ? countingReadings(other, machine.value) : []
})
const conditions = computed(() => ({
  windingCelsius: sheet.value ? windingCelsius(sheet.value) : null,
  supply: sheet.value ? supplyOf(sheet.value) : ('ac' as const),
  otherSupply: otherSupply.value,
}))
const judgement = computed(() =>
  judgeSheet(
    draftReading.value && !corrected.value ? [...counting.value, draftReading.value] : counting.value,
    machine.value,
    conditions.value,
  ),
)
const { past } = useMotorPast(() => props.book.engine.id)
const history = computed(() => {
  const before = past.value && judgement.value.fit ? historyBefore(past.value, sheet.value?.id ?? null) : null
  const judged = before && judgement.value.fit ? judgeAgainstHistory(motorFigures(judgement.value.fit), before) : null
  return judged && judged.lines.length > 0 ? judged : null
})
const lines = computed(() => (sheet.value ? standingReadings(sheet.value.readings) : []))
const comparison = computed(() => (props.station === 'prove' ? compareJob(props.book) : null))

function startFields(withMeter: boolean): SheetFields {
  // The same meters and supply as on the sheet it will be compared with.
  const before = props.book.sheets.find((entry) => entry.station === 'first-run' && entry.withMeter === withMeter)
  return {
    station: props.station,
    withMeter,
    roomCelsius: null,
    warmedUp: false,
    remarks: '',
    supply:
      before?.supply ?? (props.book.type.power === 'ac' ? 'ac' : props.book.type.power === 'dcc' ? 'dcc' : 'smooth-dc'),
    voltageMeterId: before?.voltageMeterId ?? workshop.metersFor('voltage')[0]?.id ?? null,
    currentMeterId: before?.currentMeterId ?? workshop.metersFor('current')[0]?.id ?? null,
  }
}

async function openSheet(withMeter: boolean): Promise<void> {
  const id = newId()
  const jobId = props.book.job.id
  await outbox.send('sheet.save', { id, jobId, fields: startFields(withMeter) })
  chosenId.value = id
}

async function changeSheet(changes: Partial<SheetFields>): Promise<void> {
  const row = sheet.value
  if (!row) return
  const { station, withMeter, roomCelsius, warmedUp, supply, voltageMeterId, currentMeterId, remarks } = row
  const base: SheetFields = {
    station,
    withMeter,
    roomCelsius,
    warmedUp,
    supply,
    voltageMeterId,
    currentMeterId,
    remarks,
  }
  await outbox.send('sheet.save', { id: row.id, jobId: row.jobId, fields: { ...base, ...changes } }, row, 'conditions')
}

async function addReading(fields: ReadingFields): Promise<void> {
  const row = sheet.value
  if (!row) return
  const id = newId()
  const supersedesId = corrected.value?.id ?? null
  corrected.value = null
  typing.value = null
  await outbox.send('reading.add', { id, jobId: row.jobId, sheetId: row.id, supersedesId, fields })
}

async function strike(line: ReadingRow): Promise<void> {
  const id = newId()
  const jobId = props.book.job.id
  await outbox.send('reading.strike', { id, jobId, sheetId: line.sheetId, readingId: line.id, reason: '' })
}

async function vouch(line: ReadingRow): Promise<void> {
  const id = newId()
  const jobId = props.book.job.id
  await outbox.send('reading.add', {
    id,
    jobId,
    sheetId: line.sheetId,
    supersedesId: line.id,
    fields: { ...fieldsOfReading(line), vouched: true },
  })
}
</script>

<template>
  <div class="sheet">
    <LazyLeftOver v-if="station === 'prove'" :book="book" />
    <div v-if="!sheet" class="begin">
      <Cautions :station="station" />
      <h2>{{ station === 'prove' ? 'The same readings again' : 'Before anything is touched' }}</h2>
      <p class="quiet">
        {{
          station === 'prove'
            ? 'Taken as they were at First run, so that before stands against after.'
            : 'The figures the work is judged against. With a meter, or with eye, ear and a watch; both count.'
        }}
      </p>
      <div v-if="session.mayWrite" class="begin-choices">
        <v-btn color="primary" size="large" @click="openSheet(true)">With a meter</v-btn>
        <v-btn color="primary" size="large" variant="outlined" @click="openSheet(false)">Without a meter</v-btn>
      </div>
      <p v-else class="quiet">No sheet yet.</p>
    </div>
    <template v-else>
      <div v-if="sheets.length > 1 || session.mayWrite" class="sheets">
        <button
          v-for="(entry, index) in sheets"
          :key="entry.id"
          type="button"
          :class="{ on: entry.id === sheet.id }"
          :aria-pressed="entry.id === sheet.id"
          @click="chosenId = entry.id"
        >
          Sheet {{ index + 1 }} <span class="quiet">{{ entry.withMeter ? 'meter' : 'no meter' }}</span>
        </button>
        <template v-if="session.mayWrite"
          ><button type="button" class="new" @click="openSheet(true)">New, with a meter</button
          ><button type="button" class="new" @click="openSheet(false)">New, without</button></template
        >
      </div>
      <SheetConditions :sheet="sheet" :power="machine.power" @change="changeSheet" />
      <div class="two">
        <div class="typing">
          <MeasurePanel
            v-if="measuring"
            :key="`measure-${sheet.id}`"
            :sheet="sheet"
            :instruments="instruments"
            :procedure="measuring"
            @leave="measuring = null"
          />
          <div v-else-if="session.mayWrite && sheet.withMeter && instruments.length > 0" class="supply">
            <v-btn v-for="way in possible" :key="way" variant="outlined" color="primary" @click="measuring = way">{{
              wayWords[way]
            }}</v-btn>
          </div>
          <ReadingPad
            v-if="session.mayWrite && !measuring"
            :key="sheet.id"
            :sheet="sheet"
            :meters="meters"
            :trial="book.job.trial || book.job.complaint"
            :attempts="book.job.trialAttempts"
            :corrected="corrected"
            :keep="addReading"
            @typing="typing = $event"
            @leave="corrected = null"
          />
        </div>
        <div class="judged">
          <LazySheetChart v-if="counting.some(isMetered)" :readings="counting" :fit="judgement.fit" />
          <HistoryLines v-if="history" :judgement="history" :motor-since="past?.motorSince ?? null" />
          <SequenceLine :lines="lines" />
          <RelayLine :lines="lines" />
          <SheetFigures :judgement="judgement" :type="book.type" :with-meter="sheet.withMeter" :readings="counting" />
        </div>
        <div class="written">
          <ReadingLines
            :lines="lines"
            :machine="machine"
            @strike="strike"
            @vouch="vouch"
            @correct="corrected = $event"
          />
        </div>
      </div>
      <section v-if="comparison && comparison.before" class="against">
        <h2>Before and after</h2>
        <ComparisonTable :comparison="comparison" />
      </section>
    </template>
    <StationNotes :book="book" :station="station" />
  </div>
</template>

<style scoped>
.sheet {
  display: grid;
  gap: 16px;
  grid-template-columns: minmax(0, 1fr);
}
.begin {
  display: grid;
  gap: 10px;
}
.begin-choices {
  display: flex;
  gap: 12px;
  margin-top: 6px;
  flex-wrap: wrap;
}
.sheets {
  display: flex;
  gap: 4px;
  flex-wrap: wrap;
  border-bottom: 1px solid var(--rule);
}
.sheets button {
  min-height: var(--target);
  padding: 0 14px;
  font-weight: 600;
  border-bottom: 3px solid transparent;
  color: var(--soft);
}
.sheets button.on {
  color: var(--ink);
  border-bottom-color: var(--brass);
}
.sheets .new {
  font-weight: 550;
  color: var(--green);
  font-size: 0.92rem;
}
.sheets button + .new {
  margin-left: auto;
}
.sheets .new + .new {
  margin-left: 0;
}
.two {
  display: grid;
  gap: 26px;
  grid-template-columns: minmax(0, 1fr);
}
@media (min-width: 1080px) {
  .two {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    grid-template-rows: auto 1fr;
  }
  .judged {
    grid-row: 1 / span 2;
    grid-column: 2;
  }
}
.supply {
  margin-bottom: 10px;
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
.judged {
  display: grid;
  gap: 14px;
  align-content: start;
  grid-template-columns: minmax(0, 1fr);
}
.against {
  display: grid;
  gap: 8px;
}
</style>
