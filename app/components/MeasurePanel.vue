<script setup lang="ts">
import type { InstrumentRow, SheetRow } from '~~/shared/book'
import type { ClampAdvice, MeasuringState } from '~~/shared/measuring'

/** Measures the motor into this sheet with a supply: what to clamp, one key, a hand when it is asked for, and a stop. */
const props = defineProps<{ sheet: SheetRow; instruments: readonly InstrumentRow[] }>()
const emit = defineEmits<{ leave: [] }>()
const job = useJobStore()

const instrumentId = ref(props.instruments[0]?.id ?? '')
const clamp = shallowRef<ClampAdvice | null | undefined>(undefined)
const state = shallowRef<MeasuringState | null>(null)
const failure = ref('')
const cut = ref(false)
const going = computed(() => state.value?.status === 'running' || state.value?.status === 'hold')
let stream: EventSource | null = null

function listen(): void {
  stream?.close()
  stream = new EventSource(`/api/measuring/${props.sheet.id}/live`)
  stream.onmessage = (message) => {
    cut.value = false
    const before = state.value?.readings
    state.value = JSON.parse(message.data as string) as MeasuringState
    if (state.value.readings !== before) void job.open(props.sheet.jobId)
    if (!going.value) stream?.close()
  }
  stream.onerror = () => { cut.value = true }
}
onMounted(async () => {
  try {
    const found = await $fetch<{ state: MeasuringState | null; clamp: ClampAdvice | null }>(`/api/measuring/${props.sheet.id}`)
    // One that has ended is history; the next begins anew.
    state.value = found.state?.status === 'running' || found.state?.status === 'hold' ? found.state : null
    clamp.value = found.clamp
  } catch (error) {
    failure.value = problemSentence(error)
  }
  if (going.value) listen()
})
onBeforeUnmount(() => stream?.close())

async function post(what: 'start' | 'held' | 'stop', body?: object): Promise<void> {
  failure.value = ''
  try {
    const answer = await $fetch<{ state: MeasuringState | null }>(`/api/measuring/${props.sheet.id}/${what}`, { method: 'POST', ...(body ? { body } : {}) })
    if (what === 'start') {
      state.value = answer.state
      listen()
    }
  } catch (error) {
    failure.value = problemSentence(error)
  }
}
const label = computed(() => (state.value?.status === 'hold' ? 'It is held' : going.value ? 'Stop, output off' : state.value ? 'Back to the sheet' : 'Clamped: measure'))
/** A pedal pressed twice for “it is held” is no stop; Escape always is. */
const PEDAL_REST_MS = 900
let heldAt = 0
function act(): void {
  if (state.value?.status === 'hold') {
    heldAt = performance.now()
    void post('held')
  } else if (going.value) {
    if (performance.now() - heldAt > PEDAL_REST_MS) void post('stop')
  }
  else if (state.value) emit('leave')
  else if (clamp.value) void post('start', { instrumentId: instrumentId.value })
}
useNextAction({ label, run: act, back: () => (going.value ? void post('stop') : emit('leave')) })
useBenchKeys([{ key: 'Escape', label: 'Stop measuring, output off', run: () => (going.value ? void post('stop') : emit('leave')) }])
const rpm = computed(() => { const speed = state.value?.latest?.radPerSecond; return speed === null || speed === undefined ? null : Math.round((speed * 60) / (2 * Math.PI)) })
</script>

<template>
  <section class="measure" aria-labelledby="measure-head">
    <h3 id="measure-head">Measure with the supply</h3>
    <template v-if="!state">
      <p v-if="instruments.length > 1" class="row"><label class="label" for="instrument">Supply</label><select id="instrument" v-model="instrumentId"><option v-for="entry in instruments" :key="entry.id" :value="entry.id">{{ entry.name }}</option></select></p>
      <p v-if="clamp === null" class="sign sign--care">This machine has a wound field: the sweep of a motor with a magnet does not fit it. Type its readings by hand.</p>
      <ol v-if="clamp" class="clamp">
        <li>Take off: {{ clamp.takeOff.join(' and ').toLowerCase() }}. Through them the lamps would draw as well.</li>
        <li><span class="lead lead--red">Red</span> to the {{ clamp.red.toLowerCase() }}.</li>
        <li><span class="lead lead--black">Black</span> to the {{ clamp.black.toLowerCase() }}.</li>
      </ol>
      <p class="caution">It starts at 1.5 V and stops at a short. Springs and gears turn by themselves: fingers away unless it asks for one.</p>
    </template>
    <template v-else>
      <p class="says" :class="{ ask: state.status === 'hold' }" role="status">{{ state.says }}<span v-if="state.hold" class="quiet"> {{ state.hold.turn }} of {{ state.hold.of }}</span></p>
      <progress :value="state.done" :max="state.of" :aria-label="`${state.done} of ${state.of} steps`" />
      <div v-if="state.latest" class="now"><span><b class="numeral">{{ state.latest.volts.toFixed(2) }}</b> V</span><span><b class="numeral">{{ (state.latest.amps * 1000).toFixed(1) }}</b> mA</span><span><b class="numeral">{{ rpm === null ? '?' : rpm.toLocaleString('en-GB') }}</b> rpm</span></div>
      <p v-if="cut && going" class="sign sign--care">The connection to the server is cut. The supply goes off by itself; this screen looks again.</p>
    </template>
    <p v-if="failure" class="sign sign--fault" role="alert">{{ failure }}</p>
    <div class="acts">
      <v-btn color="primary" variant="flat" @click="act">{{ label }}<kbd>Space</kbd></v-btn>
      <v-btn variant="outlined" @click="going ? post('stop') : emit('leave')">{{ going ? 'Stop' : 'Leave' }}<kbd>Esc</kbd></v-btn>
    </div>
  </section>
</template>

<style scoped>
.measure { border-top: 3px solid var(--green); padding-top: 10px; display: grid; gap: 12px; }
.row { display: flex; gap: 12px; align-items: center; } select { min-height: var(--target); border: 0; border-bottom: 1px solid var(--steel); background: transparent; color: var(--ink); font: inherit; flex: 1; } select option { background: var(--sheet); color: var(--ink); }
.clamp { margin: 0; padding-left: 22px; display: grid; gap: 6px; }
.lead { font-weight: 650; padding: 0 6px; border-bottom: 4px solid; } .lead--red { border-color: var(--red); } .lead--black { border-color: var(--ink); }
.says { font-size: 1.25rem; font-weight: 650; line-height: 1.25; } .ask { color: var(--amber-ink); } .says .quiet { font-weight: 400; margin-left: 8px; white-space: nowrap; }
progress { width: 100%; height: 12px; accent-color: var(--green); }
.now { display: grid; grid-template-columns: repeat(3, 1fr); gap: 12px; } .now span { display: grid; color: var(--soft); font-size: 0.88rem; } .now b { font-weight: 500; color: var(--ink); }
.acts { display: flex; gap: 8px; flex-wrap: wrap; }
</style>
