<script setup lang="ts">
import { v7 as newId } from 'uuid'
import { usualStepTest } from '~~/bench/supply/step-test'
import type { JobBook, SheetRow } from '~~/messages/book'
import { afterStep } from '~~/messages/readings/after-step'
import { understandBoxes } from '~~/messages/readings/typed-line'
import { careState, dryAt } from '~~/work/care-state'
import { showMoment } from '~~/work/describe-due'
import { showFigure } from '~~/work/shown-figure'
import { testedSteps } from '~~/work/tested-steps'
import { wayBackOfJob, type BackVerdict } from '~~/work/way-back-of-job'

/** Back together, a test after each step: each held against the one before, so that the wrong step names itself. */
const props = defineProps<{ book: JobBook }>()
const outbox = useOutbox()
const { ready, described } = useDescribedEngine(computed(() => props.book))
const session = useSessionStore()
const workshop = useWorkshopStore()
onMounted(() => void workshop.load())

const sheet = computed<SheetRow | null>(
  () => props.book.sheets.filter((entry) => entry.station === 'rebuild').at(-1) ?? null,
)
/** A test of the way back is judged there, by what its part may add; any other against the one before it. */
const judged = computed(() =>
  ready.value
    ? wayBackOfJob(props.book, described.value.description, usualStepTest(props.book.type.nominalVolts).volts).judged
    : new Map<string, BackVerdict>(),
)
const steps = computed(() =>
  testedSteps(props.book.sheets).map((step) => ({ ...step, verdict: judged.value.get(step.at) ?? step.verdict })),
)
const instruments = computed(() => (workshop.book?.instruments ?? []).filter((entry) => !entry.retired))
const timers = useTimerStore()
const dry = computed(() => {
  const end = dryAt(careState(props.book.care))
  return end !== null && end > timers.now ? end : null
})
const name = ref('')
const way = ref<'supply' | 'hand' | null>(null)
const typed = reactive({ voltage: '', current: '' })
const problem = ref('')

/** The usual order; what was tested last is left out. */
const usual = [
  'Motor alone',
  'Motor in its frame',
  'First axle',
  'Second axle',
  'Third axle',
  'Rods on one side',
  'Rods on both sides',
  'Valve gear',
  'Both trucks',
  'Body on',
]
const suggestions = computed(() =>
  usual.filter((entry) => !steps.value.some((step) => step.name === entry)).slice(0, 4),
)

async function sheetForSteps(): Promise<string> {
  if (sheet.value) return sheet.value.id
  const id = newId()
  const jobId = props.book.job.id
  await outbox.send('sheet.save', {
    id,
    jobId,
    fields: {
      station: 'rebuild',
      withMeter: true,
      roomCelsius: null,
      warmedUp: false,
      remarks: '',
      supply: props.book.type.power === 'ac' ? 'ac' : 'smooth-dc',
      voltageMeterId: workshop.metersFor('voltage')[0]?.id ?? null,
      currentMeterId: workshop.metersFor('current')[0]?.id ?? null,
    },
  })
  return id
}
async function begin(how: 'supply' | 'hand'): Promise<void> {
  problem.value = name.value.trim() ? '' : 'Say which step was just done.'
  if (problem.value) return
  await sheetForSteps()
  way.value = how
}
function testStep(step: string): void {
  name.value = step
  void begin(instruments.value.length > 0 ? 'supply' : 'hand')
}
async function writeDown(turns: 'forward' | 'reverse' | 'stands'): Promise<void> {
  const meters = {
    voltage: workshop.metersFor('voltage').find((meter) => meter.id === sheet.value?.voltageMeterId) ?? null,
    current: workshop.metersFor('current').find((meter) => meter.id === sheet.value?.currentMeterId) ?? null,
  }
  const { quantities, errors, missing } = understandBoxes(
    { ...typed },
    afterStep.boxes('none'),
    afterStep.contradictions,
    meters,
  )
  const { voltage, current } = quantities
  problem.value =
    Object.values(errors)[0] ?? (missing ? `Type the ${missing === 'voltage' ? 'volts' : 'current'} as well.` : '')
  if (!voltage || !current || problem.value) return
  const sheetId = await sheetForSteps()
  const id = newId()
  const jobId = props.book.job.id
  await outbox.send('reading.add', {
    id,
    jobId,
    sheetId,
    supersedesId: null,
    fields: {
      kind: 'step',
      step: name.value.trim(),
      turns,
      quantities: { ...quantities, voltage, current },
      vouched: false,
    },
  })
  typed.current = ''
  leave()
}
function leave(): void {
  way.value = null
  name.value = ''
  problem.value = ''
}
const turnWords = { forward: 'forward', reverse: 'in reverse', stands: 'stands' } as const
</script>

<template>
  <div class="rebuild">
    <LazyWayBack
      v-if="ready"
      :book="book"
      :description="described.description"
      :testing="way !== null"
      :wet="dry !== null"
      @test="testStep"
    />
    <p v-if="dry !== null" class="sign sign--fault" role="alert">
      Still drying until {{ showMoment(new Date(dry).toISOString()) }}: no power before.
    </p>
    <Cautions station="rebuild" />
    <section aria-label="Steps tested" class="tested">
      <h2>Tested as it goes together</h2>
      <p v-if="steps.length === 0" class="quiet">
        Motor alone first, then after each step: a moment at low volts. The step that stops it or raises the current is
        the one that is wrong.
      </p>
      <ol v-else>
        <li v-for="step in steps" :key="`${step.at}${step.name}`" :class="step.verdict.weight">
          <div class="line">
            <strong>{{ step.name }}</strong><b class="figure">{{ showFigure(step.current) }}</b
            ><span class="quiet"
              >at {{ step.volts.toFixed(1) }} V, {{ turnWords[step.turns] }}{{ step.measured ? '' : ', typed' }}</span
            >
          </div>
          <p class="sign" :class="`sign--${step.verdict.weight}`">{{ step.verdict.sentence }}</p>
        </li>
      </ol>
    </section>
    <section v-if="session.mayWrite" class="next" :class="{ bare: way === 'supply' }" aria-label="Next test">
      <template v-if="way === null">
        <v-text-field
          v-model="name"
          label="Step just done"
          maxlength="120"
          @keydown.enter.prevent="instruments.length ? begin('supply') : begin('hand')"
        />
        <div class="suggestions">
          <button
            v-for="entry in suggestions"
            :key="entry"
            type="button"
            :class="{ on: name === entry }"
            @click="name = entry"
          >
            {{ entry }}
          </button>
        </div>
        <p v-if="problem" class="sign sign--care" role="alert">{{ problem }}</p>
        <div class="acts">
          <v-btn v-if="instruments.length" color="primary" variant="flat" @click="begin('supply')"
            >Test with the supply</v-btn
          ><v-btn variant="outlined" @click="begin('hand')">Type the current</v-btn>
        </div>
      </template>
      <MeasurePanel
        v-else-if="way === 'supply' && sheet"
        :key="name"
        :sheet="sheet"
        :instruments="instruments"
        procedure="step"
        :step="name.trim()"
        @leave="leave"
      />
      <template v-else-if="way === 'hand'">
        <h3>{{ name }}</h3>
        <div class="typed">
          <v-text-field v-model="typed.voltage" v-focus-first label="Volts" inputmode="decimal" /><v-text-field
            v-model="typed.current"
            label="Current, mA"
            inputmode="decimal"
          />
        </div>
        <p v-if="problem" class="sign sign--care" role="alert">{{ problem }}</p>
        <p class="label">Which way did it turn with red on plus?</p>
        <div class="acts">
          <v-btn v-for="(words, turns) in turnWords" :key="turns" variant="outlined" @click="writeDown(turns)">{{
            words
          }}</v-btn><v-btn variant="text" @click="leave">Leave</v-btn>
        </div>
      </template>
    </section>
    <ProvisionalThings :book="book" />
    <StationNotes :book="book" station="rebuild" />
  </div>
</template>

<style scoped>
.rebuild {
  display: grid;
  gap: 16px;
}
.tested {
  display: grid;
  gap: 8px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-top: 1px solid var(--rule);
  border-left: 4px solid transparent;
  padding: 8px 0 8px 12px;
  display: grid;
  gap: 2px;
}
li.fault {
  border-left-color: var(--red);
}
li.care {
  border-left-color: var(--amber);
}
li.sound {
  border-left-color: var(--sound);
}
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 14px;
  align-items: baseline;
}
.line .figure {
  font-size: 1.25rem;
}
.line .quiet {
  grid-column: 2;
  text-align: right;
}
li .sign {
  align-items: flex-start;
  font-size: 0.94rem;
}
li .sign::before {
  margin-top: 4px;
}
.next {
  border-top: 3px solid var(--green);
  padding-top: 10px;
  display: grid;
  gap: 10px;
}
.next.bare {
  border: 0;
  padding: 0;
}
.suggestions,
.acts {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
.suggestions button {
  border: 1px solid var(--rule);
  background: var(--sheet);
  min-height: var(--target);
  padding: 0 14px;
  font-weight: 550;
}
.suggestions .on {
  border-color: var(--brass);
  box-shadow: inset 0 -3px 0 var(--brass);
}
.typed {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 200px));
  gap: 16px;
}
</style>
