<script setup lang="ts">
import type { EngineTag, InstrumentRow } from '~~/messages/book'
import {
  READINGS_PER_SECOND,
  type ClampPlace,
  type KeptReading,
  type LiveBenchState,
  type LiveReading,
} from '~~/messages/live-bench'
import type { BenchChange } from '~~/messages/commands'

/** One bench supply: what it reads in numerals to be seen from a metre away, its last minute, and what it is set to. */
const props = defineProps<{
  instrument: InstrumentRow
  state: LiveBenchState | null
  takenBy: string | null
  ring: () => readonly LiveReading[]
  selected: boolean
  place: number | null
  kept: KeptReading | null
}>()
const emit = defineEmits<{
  open: [engineId: string | null, place: ClampPlace]
  set: [change: BenchChange]
  close: []
  zero: []
  select: []
  keep: [held: boolean]
  strike: [kept: KeptReading]
}>()
const session = useSessionStore()

const engine = shallowRef<EngineTag | null>(null)
const clampPlace = ref<ClampPlace>('motor')
const live = computed(() => props.state?.status === 'live')
const settings = computed(() => props.state?.settings ?? null)

/** The numerals change five times a second, as the mean since the last change: twenty a second cannot be read. */
const shown = shallowRef<{
  volts: number
  amps: number
  rpm: number | null
  limited: boolean
  lowest: number
  highest: number
} | null>(null)
const EVERY_MS = 200
let timer: ReturnType<typeof setInterval> | null = null
onMounted(() => {
  timer = setInterval(() => {
    const ring = props.ring()
    const latest = ring.slice(-Math.round((EVERY_MS / 1000) * READINGS_PER_SECOND))
    if (!live.value || latest.length === 0) {
      shown.value = null
      return
    }
    const mean = (pick: (reading: LiveReading) => number): number =>
      latest.reduce((sum, reading) => sum + pick(reading), 0) / latest.length
    const speeds = latest.flatMap((reading) => (reading.radPerSecond === null ? [] : [reading.radPerSecond]))
    const recent = ring.slice(-10 * READINGS_PER_SECOND).map((reading) => Math.abs(reading.amps))
    shown.value = {
      volts: mean((reading) => reading.volts),
      amps: mean((reading) => reading.amps),
      limited: latest.some((reading) => reading.limited),
      rpm:
        speeds.length > 0
          ? (speeds.reduce((sum, speed) => sum + speed, 0) / speeds.length) * (60 / (2 * Math.PI))
          : null,
      lowest: Math.min(...recent),
      highest: Math.max(...recent),
    }
  }, EVERY_MS)
})
onBeforeUnmount(() => {
  if (timer) clearInterval(timer)
})

const milliamps = (amps: number): string =>
  Math.abs(amps) < 0.0995 ? (Math.abs(amps) * 1000).toFixed(1) : (Math.abs(amps) * 1000).toFixed(0)
const hundreds = (rpm: number): string => (Math.round(Math.abs(rpm) / 100) * 100).toLocaleString('en-GB')
const typedVolts = ref('')
const typedLimit = ref('')
const read = (text: string): number => Number(text.replace(',', '.').replace(/\s*(v|ma)?$/i, ''))
const problem = ref('')
function setVolts(): void {
  const volts = read(typedVolts.value)
  problem.value = volts >= 0 && volts <= 24 && typedVolts.value.trim() !== '' ? '' : 'Volts are a number from 0 to 24.'
  if (problem.value) return
  emit('set', { volts })
  typedVolts.value = ''
}
function setLimit(): void {
  const milli = read(typedLimit.value)
  problem.value =
    milli >= 10 && milli <= 3000 && typedLimit.value.trim() !== '' ? '' : 'The limit is a number from 10 to 3000 mA.'
  if (problem.value) return
  emit('set', { ampsLimit: milli / 1000 })
  typedLimit.value = ''
}
</script>

<template>
  <section
    class="watched"
    :class="{ selected }"
    :aria-label="instrument.name"
    @focusin="emit('select')"
    @click="emit('select')"
  >
    <header>
      <kbd v-if="place !== null">{{ place }}</kbd>
      <h2>{{ instrument.name }}</h2>
      <p v-if="live && state?.engine" class="engine">
        {{ state.engine.name }}, {{ state.place === 'motor' ? 'motor alone' : 'by its rails' }}
      </p>
      <span v-if="live" class="sign" :class="settings?.on ? 'sign--fault' : 'sign--ask'">{{
        settings?.on ? 'Output on' : 'Output off'
      }}</span>
      <span v-else class="quiet">{{
        instrument.kind === 'simulated' ? 'simulated' : `${instrument.host}, port ${instrument.port}`
      }}</span>
    </header>
    <template v-if="live && settings">
      <div class="now" aria-live="off">
        <p>
          <b class="big figure">{{ shown ? Math.abs(shown.volts).toFixed(2) : '–' }}</b><span
            >V{{ settings.reversed ? ', reversed' : '' }}</span
          >
        </p>
        <p>
          <b class="big figure">{{ shown ? milliamps(shown.amps) : '–' }}</b><span
            >mA<template v-if="shown?.limited"> at its limit</template></span
          >
        </p>
        <p>
          <b class="big figure">{{ shown?.rpm === null || !shown ? '–' : hundreds(shown.rpm) }}</b><span
            >rpm, about</span
          >
        </p>
      </div>
      <p class="quiet under">
        <template v-if="shown">Last 10 s: {{ milliamps(shown.lowest) }} to {{ milliamps(shown.highest) }} mA. </template
        ><template v-if="state?.speedFrom">Speed reckoned from {{ state.speedFrom }}.</template
        ><template v-else>No speed: it cannot be reckoned for this machine as it is clamped.</template>
      </p>
      <LazyLiveChart :ring="ring" class="chart" />
      <div v-if="session.mayWrite" class="controls">
        <button
          type="button"
          class="output"
          :class="{ on: settings.on }"
          :aria-pressed="settings.on"
          @click="emit('set', { on: !settings.on })"
        >
          {{ settings.on ? 'Output off' : 'Output on' }}<kbd :class="{ elsewhere: !selected }">Space</kbd>
        </button>
        <div class="stepper" role="group" aria-label="Volts set">
          <button type="button" aria-label="Half a volt less" @click="emit('set', { voltsBy: -0.5 })">−</button
          ><span
            ><b class="figure">{{ settings.volts.toFixed(1) }}</b> V set</span
          ><button type="button" aria-label="Half a volt more" @click="emit('set', { voltsBy: 0.5 })">+</button>
        </div>
        <form @submit.prevent="setVolts">
          <label
            >Set
            <input v-model="typedVolts" class="figure" inputmode="decimal" size="5" aria-label="Volts to set" />
            V</label
          >
        </form>
        <form @submit.prevent="setLimit">
          <label
            >Limit {{ Math.round(settings.ampsLimit * 1000) }} mA, to
            <input
              v-model="typedLimit"
              class="figure"
              inputmode="numeric"
              size="5"
              aria-label="Current limit to set, mA"
            />
            mA</label
          >
        </form>
        <button type="button" class="plain" @click="emit('set', { reversed: !settings.reversed })">
          Reverse<kbd :class="{ elsewhere: !selected }">R</kbd>
        </button>
        <button type="button" class="plain" @click="emit('close')">Close</button>
      </div>
      <div v-if="session.mayWrite && state?.engine" class="keeping">
        <span class="label">Into the sheet</span>
        <button type="button" class="plain" :disabled="!settings.on" @click="emit('keep', false)">
          Running<kbd :class="{ elsewhere: !selected }">M</kbd>
        </button>
        <button type="button" class="plain" :disabled="!settings.on" @click="emit('keep', true)">
          Held by a finger<kbd :class="{ elsewhere: !selected }">H</kbd>
        </button>
        <p v-if="kept" role="status">
          Kept in job <NuxtLink :to="`/jobs/${kept.jobId}/${kept.station}`">{{ kept.jobNumber }}</NuxtLink>:
          <span class="figure">{{ kept.volts.toFixed(2) }} V, {{ milliamps(kept.amps) }} mA</span>,
          {{ kept.kind === 'locked' ? 'held' : kept.direction }}
          <button type="button" class="plain" @click="emit('strike', kept)">Strike</button>
        </p>
      </div>
      <p v-if="problem" class="sign sign--care" role="alert">{{ problem }}</p>
      <p v-if="state?.clamp" class="quiet">
        Clamped: <span class="lead lead--red">red</span> to the {{ state.clamp.red.toLowerCase() }},
        <span class="lead lead--black">black</span> to the {{ state.clamp.black.toLowerCase()
        }}<template v-if="state.clamp.takeOff.length"
          >, with {{ state.clamp.takeOff.join(' and ').toLowerCase() }} off</template
        >.
      </p>
    </template>
    <template v-else>
      <p v-if="takenBy" class="sign sign--care">It is {{ takenBy }}.</p>
      <p v-else-if="state" class="sign" :class="state.status === 'failed' ? 'sign--fault' : 'sign--ask'" role="status">
        {{ state.says }}
      </p>
      <div v-if="!takenBy && session.mayWrite" class="begin">
        <p v-if="engine" class="wide">
          On this bench: <strong>{{ engine.name }}</strong>, {{ engine.typeName }}
          <button type="button" class="plain" @click="engine = null">Another</button>
        </p>
        <FindBox
          v-else
          class="wide"
          path="/api/engines"
          label="What lies on this bench"
          :title="(row: EngineTag) => row.name"
          :detail="(row: EngineTag) => row.typeName"
          @choose="engine = $event"
        />
        <div v-if="engine" class="ways" role="group" aria-label="Clamped">
          <button
            v-for="entry in ['motor', 'rails'] as const"
            :key="entry"
            type="button"
            :class="{ on: clampPlace === entry }"
            :aria-pressed="clampPlace === entry"
            @click="clampPlace = entry"
          >
            {{ entry === 'motor' ? 'Motor alone' : 'By its rails' }}
          </button>
        </div>
        <v-btn color="primary" variant="flat" @click="emit('open', engine?.id ?? null, clampPlace)">{{
          engine ? 'Watch it live' : 'Watch without an engine'
        }}</v-btn>
        <v-btn variant="outlined" @click="emit('zero')">Zero the leads</v-btn>
      </div>
    </template>
  </section>
</template>

<style scoped>
.watched {
  border-top: 3px solid var(--rule);
  padding-top: 10px;
  display: grid;
  gap: 10px;
  align-content: start;
}
.watched.selected {
  border-color: var(--brass);
}
header {
  display: flex;
  align-items: baseline;
  gap: 12px;
  flex-wrap: wrap;
}
header .sign,
header > .quiet {
  margin-left: auto;
}
.engine {
  color: var(--soft);
}
.watched {
  container-type: inline-size;
}
.now {
  display: grid;
  grid-template-columns: repeat(3, minmax(max-content, 1fr));
  gap: 14px;
}
.now p {
  display: grid;
}
.now span {
  color: var(--soft);
}
.big {
  font-size: clamp(34px, 8cqi, 64px);
  font-weight: 500;
  line-height: 1.05;
  letter-spacing: -0.02em;
}
.under {
  min-height: 1.4em;
}
.controls {
  display: flex;
  gap: 14px;
  align-items: center;
  flex-wrap: wrap;
}
.output {
  min-height: 54px;
  min-width: 190px;
  padding: 0 18px;
  font-weight: 650;
  background: var(--green);
  color: var(--on-green);
  border-radius: 3px;
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
}
.output.on {
  background: var(--red);
  color: var(--sheet);
}
.stepper {
  display: flex;
  align-items: center;
  border: 1px solid var(--rule);
}
.stepper button {
  width: 54px;
  height: 54px;
  font-size: 1.6rem;
  text-align: center;
}
.stepper span {
  min-width: 96px;
  text-align: center;
  color: var(--soft);
}
.stepper b {
  color: var(--ink);
  font-size: 1.15rem;
  font-weight: 600;
}
form label {
  display: flex;
  gap: 6px;
  align-items: center;
  color: var(--soft);
}
input {
  width: 4.2em;
  min-height: var(--target);
  border: 0;
  border-bottom: 1px solid var(--steel);
  background: transparent;
  color: var(--ink);
  text-align: right;
  padding: 0 4px;
  font-size: 1rem;
}
/* Keys keep their room on the benches they do not reach: nothing moves under a finger that is just pressing. */
.elsewhere {
  visibility: hidden;
}
.plain {
  color: var(--green);
  font-weight: 600;
  min-height: var(--target);
  display: inline-flex;
  align-items: center;
  gap: 8px;
}
.keeping {
  display: flex;
  gap: 4px 18px;
  align-items: center;
  flex-wrap: wrap;
}
.keeping .plain:disabled {
  color: var(--soft);
}
.keeping p {
  margin-left: auto;
}
.keeping p .plain {
  display: inline;
  margin-left: 10px;
}
.lead {
  font-weight: 650;
  border-bottom: 3px solid;
}
.lead--red {
  border-color: var(--red);
}
.lead--black {
  border-color: var(--ink);
}
.begin {
  display: flex;
  gap: 14px;
  align-items: end;
  flex-wrap: wrap;
}
.wide {
  flex: 1 1 100%;
}
.ways {
  display: flex;
  gap: 6px;
}
.ways button {
  border: 1px solid var(--rule);
  min-height: var(--target);
  padding: 0 14px;
  font-weight: 600;
  background: var(--sheet);
}
.ways .on {
  border-color: var(--brass);
  box-shadow: inset 0 -3px 0 var(--brass);
}
</style>
