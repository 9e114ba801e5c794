<script setup lang="ts">
import { problemSentence } from '~/stores/problem-sentence'
import type { InstrumentRow, SheetRow } from '~~/messages/book'
import {
  LEADS_OFF,
  type MeasuringAnswer,
  type MeasuringOutlook,
  type MeasuringProcedure,
  type MeasuringState,
} from '~~/messages/measuring'

/** Measures into this sheet with a supply: what to clamp, one key, a hand or a word when it is asked for, and a stop. */
const props = withDefaults(
  defineProps<{
    sheet: SheetRow
    instruments: readonly InstrumentRow[]
    procedure?: MeasuringProcedure
    step?: string
  }>(),
  { procedure: 'sweep', step: '' },
)
const emit = defineEmits<{ leave: [] }>()

const instrumentId = ref(props.instruments[0]?.id ?? '')
const outlook = shallowRef<MeasuringOutlook | null>(null)
const leadsOff = ref(false)
const clamp = computed(() => {
  const found = outlook.value
  if (!found) return null
  if (props.procedure === 'relay' || (props.procedure === 'sequence' && leadsOff.value)) return found.railsMotorsOff
  return props.procedure === 'sequence' ? found.rails : found.motor
})
const state = shallowRef<MeasuringState | null>(null)
const failure = ref('')
const cut = ref(false)
const isGoing = (entry: MeasuringState | null): boolean =>
  entry !== null && ['running', 'hold', 'asks'].includes(entry.status)
const going = computed(() => isGoing(state.value))
let stream: EventSource | null = null

function listen(): void {
  stream?.close()
  stream = new EventSource(`/api/measuring/${props.sheet.id}/live`)
  stream.onmessage = (message) => {
    cut.value = false
    state.value = JSON.parse(message.data as string) as MeasuringState
    if (!going.value) stream?.close()
  }
  stream.onerror = () => {
    cut.value = true
  }
}
const outbox = useOutbox()
/** The server measures into the sheet as it has it: what is still on its way there comes first. */
const sheetArrived = computed(() => !outbox.waiting.some((entry) => entry.subject === `sheet:${props.sheet.id}`))
onMounted(() => {
  watch(sheetArrived, (arrived) => void (arrived && !state.value && lookAhead()), { immediate: true })
})
async function lookAhead(): Promise<void> {
  failure.value = ''
  try {
    const found = await $fetch<MeasuringOutlook>(`/api/measuring/${props.sheet.id}`)
    // One that has ended is history; the next begins anew.
    state.value = isGoing(found.state) ? found.state : null
    outlook.value = found
  } catch (error) {
    failure.value = problemSentence(error)
  }
  if (going.value) listen()
}
onBeforeUnmount(() => stream?.close())

async function post(what: 'start' | 'held' | 'stop' | 'answer', body?: object): Promise<void> {
  failure.value = ''
  try {
    const answer = await $fetch<{ state: MeasuringState | null }>(`/api/measuring/${props.sheet.id}/${what}`, {
      method: 'POST',
      ...(body ? { body } : {}),
    })
    if (what === 'start') {
      state.value = answer.state
      listen()
    }
  } catch (error) {
    failure.value = problemSentence(error)
  }
}
interface Answer {
  readonly key: string
  readonly turns: MeasuringAnswer
  readonly words: string
}
const answers = computed<readonly Answer[]>(() =>
  props.procedure === 'relay'
    ? [
        { key: '1', turns: 'clicks', words: 'It clicks' },
        { key: '2', turns: 'silent', words: 'Nothing' },
        { key: '3', turns: 'always-on', words: 'On all the time' },
      ]
    : [
        { key: '1', turns: 'forward', words: 'Forward' },
        { key: '2', turns: 'reverse', words: 'In reverse' },
        { key: '3', turns: 'stands', words: props.procedure === 'sequence' ? 'Neutral' : 'It stands' },
      ],
)
const say = (turns: MeasuringAnswer): void => {
  if (state.value?.status === 'asks') void post('answer', { turns })
}
const label = computed(() =>
  state.value?.status === 'hold'
    ? 'It is held'
    : state.value?.status === 'asks'
      ? 'Say what it does: 1, 2 or 3'
      : going.value
        ? 'Stop, output off'
        : state.value
          ? 'Back to the sheet'
          : 'Clamped: measure',
)
/** A pedal pressed twice for “it is held” is no stop; Escape always is. */
const PEDAL_REST_MS = 900
let heldAt = 0
function act(): void {
  if (state.value?.status === 'hold') {
    heldAt = performance.now()
    void post('held')
  } else if (state.value?.status === 'asks') {
    // The pedal cannot say which way; it must not stop the run either.
  } else if (going.value) {
    if (performance.now() - heldAt > PEDAL_REST_MS) void post('stop')
  } else if (state.value) emit('leave')
  else if (clamp.value)
    void post('start', {
      instrumentId: instrumentId.value,
      procedure: props.procedure,
      step: props.procedure === 'sequence' ? (leadsOff.value ? LEADS_OFF : '') : props.step,
    })
}
useNextAction({ label, run: act, back: () => (going.value ? void post('stop') : emit('leave')) })
useBenchKeys([
  { key: 'Escape', label: 'Stop measuring, output off', run: () => (going.value ? void post('stop') : emit('leave')) },
  ...answers.value.map(({ key, turns, words }) => ({ key, label: words, run: () => say(turns) })),
])
const heading = computed(
  () =>
    ({
      sweep: 'Measure with the supply',
      step: `Test: ${props.step}`,
      sequence: 'Test the sequence switch',
      relay: 'Test the relay',
    })[props.procedure],
)
const caution = computed(
  () =>
    ({
      sweep: outlook.value?.woundField
        ? 'It starts at 1.5 V and stops at a short. Never the bare motor: a wound field with nothing to drive races.'
        : 'It starts at 1.5 V and stops at a short.',
      step: 'A third of the nominal volts for a moment; it stops at a short.',
      sequence: 'AC of a bench supply, three quarters of the nominal volts, never mains.',
      relay:
        'DC of a bench supply up to the nominal volts, then AC up to three quarters of them, never mains. What it switches will sound.',
    })[props.procedure],
)
const movesByItself = computed(() =>
  props.procedure === 'relay' ? '' : 'Springs and gears turn by themselves: fingers away unless it asks for one.',
)
const onSupply = computed(() =>
  props.procedure === 'sweep' && outlook.value?.woundField
    ? props.sheet.supply === 'ac'
      ? 'on AC, as this sheet says; the DC one is a sheet of its own'
      : 'on smooth DC; the AC one is a sheet of its own'
    : '',
)
const rpm = computed(() => {
  const speed = state.value?.latest?.radPerSecond
  return speed === null || speed === undefined ? null : Math.round((speed * 60) / (2 * Math.PI))
})
</script>

<template>
  <section class="measure" aria-labelledby="measure-head">
    <h3 id="measure-head">{{ heading }}</h3>
    <template v-if="!state">
      <p v-if="instruments.length > 1" class="row">
        <label class="label" for="instrument">Supply</label
        ><select id="instrument" v-model="instrumentId">
          <option v-for="entry in instruments" :key="entry.id" :value="entry.id">{{ entry.name }}</option>
        </select>
      </p>
      <p v-if="onSupply" class="quiet">Measured {{ onSupply }}: both together tell resistance, field and reactance.</p>
      <ClampDrawing
        v-if="outlook && clamp === outlook.motor"
        :drawing="outlook.motorDrawing"
        :red="clamp.red"
        :black="clamp.black"
      />
      <ol v-if="clamp" class="clamp">
        <li v-if="clamp.takeOff.length">
          Take off: {{ clamp.takeOff.join(' and ').toLowerCase() }}.<template
            v-if="procedure === 'sweep' && !outlook?.woundField"
          >
            Through them the lamps would draw as well.</template
          >
        </li>
        <li v-if="clamp.paperUnder.length">
          Drum at forward, a slip of paper under: {{ clamp.paperUnder.join(' and ').toLowerCase() }}.
        </li>
        <li><span class="lead lead--red">Red</span> to the {{ clamp.red.toLowerCase() }}.</li>
        <li><span class="lead lead--black">Black</span> to the {{ clamp.black.toLowerCase() }}.</li>
      </ol>
      <label v-if="procedure === 'sequence'" class="row"
        ><input v-model="leadsOff" type="checkbox" /> The motor’s leads are off, to watch the drum</label
      >
      <p class="caution">{{ caution }} {{ movesByItself }}</p>
    </template>
    <template v-else>
      <p class="says" :class="{ ask: state.status === 'hold' || state.status === 'asks' }" role="status">
        {{ state.says }}<span v-if="state.hold" class="quiet"> {{ state.hold.turn }} of {{ state.hold.of }}</span>
      </p>
      <div v-if="state.status === 'asks'" class="answers">
        <button v-for="entry in answers" :key="entry.key" type="button" @click="say(entry.turns)">
          {{ entry.words }}<kbd>{{ entry.key }}</kbd>
        </button>
      </div>
      <progress :value="state.done" :max="state.of" :aria-label="`${state.done} of ${state.of} steps`" />
      <div v-if="state.latest" class="now">
        <span
          ><b class="numeral">{{ state.latest.volts.toFixed(2) }}</b> V</span
        ><span
          ><b class="numeral">{{ (state.latest.amps * 1000).toFixed(1) }}</b> mA</span
        ><span v-if="procedure === 'sweep'"
          ><b class="numeral">{{ rpm === null ? '?' : rpm.toLocaleString('en-GB') }}</b> rpm</span
        >
      </div>
      <p v-if="cut && going" class="sign sign--care">
        The connection to the server is cut. The supply goes off by itself; this screen looks again.
      </p>
    </template>
    <p v-if="failure" class="sign sign--fault" role="alert">{{ failure }}</p>
    <p v-else-if="!outlook && !sheetArrived" class="quiet" role="status">This sheet is on its way to the server …</p>
    <div class="acts">
      <v-btn v-if="state?.status !== 'asks'" color="primary" variant="flat" @click="act"
        >{{ label }}<kbd>Space</kbd></v-btn
      >
      <v-btn variant="outlined" @click="going ? post('stop') : emit('leave')"
        >{{ going ? 'Stop' : 'Leave' }}<kbd>Esc</kbd></v-btn
      >
    </div>
  </section>
</template>

<style scoped>
.measure {
  border-top: 3px solid var(--green);
  padding-top: 10px;
  display: grid;
  gap: 12px;
}
.row {
  display: flex;
  gap: 12px;
  align-items: center;
}
select {
  min-height: var(--target);
  border: 0;
  border-bottom: 1px solid var(--steel);
  background: transparent;
  color: var(--ink);
  font: inherit;
  flex: 1;
}
select option {
  background: var(--sheet);
  color: var(--ink);
}
.clamp {
  margin: 0;
  padding-left: 22px;
  display: grid;
  gap: 6px;
}
.lead {
  font-weight: 650;
  padding: 0 6px;
  border-bottom: 4px solid;
}
.lead--red {
  border-color: var(--red);
}
.lead--black {
  border-color: var(--ink);
}
.says {
  font-size: 1.25rem;
  font-weight: 650;
  line-height: 1.25;
}
.ask {
  color: var(--amber-ink);
}
.says .quiet {
  font-weight: 400;
  margin-left: 8px;
  white-space: nowrap;
}
progress {
  width: 100%;
  height: 12px;
  accent-color: var(--green);
}
.now {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 12px;
}
.now span {
  display: grid;
  color: var(--soft);
  font-size: 0.88rem;
}
.now b {
  font-weight: 500;
  color: var(--ink);
}
.answers {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
}
.answers button {
  min-height: 64px;
  border: 1px solid var(--rule);
  background: var(--sheet);
  font-weight: 650;
  font-size: 1.08rem;
  display: flex;
  align-items: center;
  justify-content: center;
  gap: 12px;
}
.acts {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
</style>
