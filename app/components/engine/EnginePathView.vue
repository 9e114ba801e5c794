<script setup lang="ts">
import { Circuit, offTheTrack, ohmsBetween } from '~~/core/engine/circuit'
import type { ComponentState, EngineDescription } from '~~/core/engine/description-schema'
import { driveTrain, trackSpeed } from '~~/core/engine/drive-train'
import { DECODER_SWITCH, hasDecoder } from '~~/core/engine/fit-decoder'
import { identicalFaults, type ProbeTest } from '~~/core/engine/identical-faults'
import { operatingPoint } from '~~/core/engine/operating-point'
import { runningPositions } from '~~/core/engine/pickup-map'
import { scaleSpeed } from '~~/core/measure/scales'
import { isNoWay, planAccess } from '~~/core/strip/minimal-removal'
import { stateWords } from '~/drawing/state-words'

/** The current path as something to try out: what would the meter read, and what would this engine do, if that were open. */
const props = defineProps<{ description: EngineDescription; nominalVolts: number; scaleRatio: number | null }>()

const circuit = computed(() => new Circuit(props.description))
const states = ref<Record<string, ComponentState>>({})
const selected = ref<string | null>(null)
const probes = ref<string[]>([])
const meter = ref<'volts' | 'ohms'>('volts')
const supply = ref<'track' | 'motor' | 'none'>('track')
const volts = ref(props.nominalVolts)
const reverse = ref(false)
const switches = ref<Record<string, string>>({})
watch(
  () => props.description,
  (description) => {
    states.value = {}
    selected.value = null
    probes.value = []
    switches.value = runningPositions(description)
  },
  { immediate: true },
)

const condition = computed(() => ({ states: states.value, switches: switches.value }))
const point = computed(() => {
  const [motor] = props.description.motors
  if (supply.value === 'none' || (supply.value === 'motor' && !motor)) return null
  const clamp =
    supply.value === 'track' || !motor
      ? props.description.rails
      : { plus: terminalOf(motor.feeds.plus), minus: terminalOf(motor.feeds.minus) }
  return operatingPoint(
    circuit.value,
    supply.value === 'track'
      ? condition.value
      : { ...condition.value, states: { ...states.value, ...offTheTrack(props.description) } },
    { ...clamp, volts: reverse.value ? -volts.value : volts.value, limitAmps: 3 },
  )
})
const terminalOf = (feed: string): string =>
  props.description.components.find((component) => component.id === feed)?.to ?? props.description.rails.plus
const chosen = computed(() => props.description.components.find((component) => component.id === selected.value) ?? null)
const train = computed(() => driveTrain(props.description))
const faulty = computed(() => Object.entries(states.value).filter(([, state]) => state !== 'good'))

const does = computed(() => {
  const now = point.value
  if (!now) return { headline: 'Off the supply', detail: 'The meter reads ohms between any two points.' }
  const [motor] = now.motors
  const rpm = (Math.abs(motor?.radPerSecond ?? 0) * 60) / (2 * Math.PI)
  if (now.limited)
    return {
      headline: `Short: the supply limits at ${Math.abs(now.supplyAmps).toFixed(1)} A`,
      detail: `${Math.abs(now.supplyVolts).toFixed(1)} V is left of ${volts.value} V.`,
    }
  const milliamps = Math.abs(now.supplyAmps) * 1000
  if (rpm < 10)
    return {
      headline: milliamps < 1 ? 'Nothing: no current' : 'Stands',
      detail: `The supply gives ${milliamps < 1 ? 'under 1' : milliamps.toFixed(0)} mA.`,
    }
  const speed = trackSpeed(train.value, motor?.radPerSecond ?? 0)
  const scaled =
    speed !== null && props.scaleRatio
      ? `, ${scaleSpeed(Math.abs(speed), props.scaleRatio).kilometresPerHour.toFixed(0)} km/h to scale`
      : ''
  return {
    headline: `Runs ${(speed ?? 0) < 0 ? 'in reverse' : 'forward'}, ${milliamps.toFixed(0)} mA`,
    detail: `Motor ${(Math.round(rpm / 10) * 10).toLocaleString('en-GB')} rpm without a load${scaled}.`,
  }
})
const lamps = computed(() =>
  Object.entries(point.value?.lamps ?? {}).map(([id, share]) => ({
    name: props.description.components.find((component) => component.id === id)?.name ?? id,
    words: share < 0.02 ? 'dark' : share < 0.35 ? 'dim' : 'bright',
  })),
)

const reading = computed(() => {
  const [first, second] = probes.value
  if (!first || !second) return null
  if (meter.value === 'ohms') {
    const ohms = ohmsBetween(
      circuit.value,
      { ...condition.value, states: { ...states.value, ...offTheTrack(props.description) } },
      first,
      second,
    )
    return ohms > 1e6 ? 'open' : ohms < 9.95 ? `${ohms.toFixed(1)} Ω` : `${ohms.toPrecision(3)} Ω`
  }
  const [a, b] = [point.value?.nodeVolts[first], point.value?.nodeVolts[second]]
  return a === null || b === null || a === undefined || b === undefined ? 'nothing' : `${(a - b).toFixed(2)} V`
})
const nodeName = (id: string): string => props.description.nodes.find((node) => node.id === id)?.name ?? id
const accessTo = (id: string): string => {
  const access = props.description.nodes.find((node) => node.id === id)?.access
  if (!access) return 'reached as it stands'
  const plan = planAccess(props.description, access)
  return isNoWay(plan)
    ? plan.message
    : plan.minutes < 0.1
      ? 'reached as it stands'
      : `${Math.ceil(plan.minutes)} min to get there`
}

/** Other single faults that would make the engine do the very same on the track. */
const alike = computed(() => {
  const [only, ...others] = faulty.value
  if (!only || others.length > 0) return null
  const tests: ProbeTest[] = [{ kind: 'run', ...props.description.rails, volts: props.nominalVolts }]
  const known = { switches: switches.value }
  const group = identicalFaults(circuit.value, tests, known).find((entry) =>
    entry.faults.some((fault) => fault.component === only[0] && fault.state === only[1]),
  )
  if (!group) return null
  return {
    sound: group.sound,
    others: group.faults
      .filter((fault) => fault.component !== only[0])
      .map(
        (fault) =>
          `${props.description.components.find((component) => component.id === fault.component)?.name ?? fault.component}: ${stateWords[fault.state]}`,
      ),
  }
})

function probe(id: string): void {
  probes.value = probes.value.includes(id)
    ? probes.value.filter((other) => other !== id)
    : [...probes.value.slice(-1), id]
}
function setState(state: ComponentState): void {
  if (!selected.value) return
  const { [selected.value]: _before, ...rest } = states.value
  states.value = state === 'good' ? rest : { ...rest, [selected.value]: state }
}
const withFaults = computed(() => props.description.components.filter((component) => component.faults.length > 0))
const choices = computed(() => (chosen.value ? (['good', ...chosen.value.faults] as ComponentState[]) : []))
const showAlike = ref(false)
useBenchKeys([
  {
    key: 'Escape',
    label: 'Everything good again',
    run: () => {
      states.value = {}
      selected.value = null
      probes.value = []
    },
  },
  ...(['1', '2', '3', '4', '5'] as const).map((key, index) => ({
    key,
    label: `State ${key} of what is chosen`,
    run: () => {
      const state = choices.value[index]
      if (state) setState(state)
    },
  })),
])
</script>

<template>
  <div class="path">
    <div class="board">
      <CurrentPathDrawing
        :description="description"
        :states="states"
        :switches="switches"
        :point="point"
        :selected="selected"
        :probes="probes"
        @select="selected = selected === $event ? null : $event"
        @probe="probe"
      />
      <p class="quiet hint">
        Tap a sign to ask what if it were open or poor; tap a point to put a probe there. Wheels bear the number of
        their axle, from the front.
      </p>
    </div>
    <aside>
      <section class="says" aria-live="polite">
        <p class="headline">{{ does.headline }}</p>
        <p>{{ does.detail }}</p>
        <p v-for="lamp in lamps" :key="lamp.name" class="quiet">{{ lamp.name }}: {{ lamp.words }}</p>
      </section>
      <section>
        <div class="row">
          <label class="label" for="supply">Supply</label>
          <select id="supply" v-model="supply">
            <option value="track">on the track</option>
            <option value="motor">at the motor’s terminals</option>
            <option value="none">off</option>
          </select>
        </div>
        <div v-if="supply !== 'none'" class="row">
          <label class="label" for="volts">Volts</label>
          <input id="volts" v-model.number="volts" type="range" min="0" :max="nominalVolts * 1.25" step="0.5" /><output
            class="figure"
            >{{ volts.toFixed(1) }} V</output
          >
        </div>
        <div v-if="supply !== 'none' && description.power !== 'ac'" class="row">
          <span class="label">Polarity</span
          ><button type="button" class="plain" @click="reverse = !reverse">
            {{ reverse ? 'plus on the left rail' : 'plus on the right rail' }}
          </button>
        </div>
        <div v-for="entry in description.switches" :key="entry.id" class="row">
          <label class="label" :for="`switch-${entry.id}`">{{ entry.name }}</label>
          <select :id="`switch-${entry.id}`" v-model="switches[entry.id]">
            <option v-for="position in entry.positions" :key="position.id" :value="position.id">
              {{ position.name }}
            </option>
          </select>
        </div>
        <p v-if="hasDecoder(description) && switches[DECODER_SWITCH] === 'silent'" class="quiet">
          As on plain DC with its DC operation switched off.
        </p>
      </section>
      <section>
        <div class="row">
          <label class="label" for="element">What if</label
          ><select id="element" v-model="selected">
            <option :value="null">any element</option>
            <option v-for="component in withFaults" :key="component.id" :value="component.id">
              {{ component.name }}
            </option>
          </select>
        </div>
        <template v-if="chosen">
          <p class="quiet">
            {{
              chosen.ohms === null
                ? 'open while sound'
                : chosen.ohms < 1
                  ? `${chosen.ohms} Ω while sound`
                  : `${Number(chosen.ohms.toPrecision(3))} Ω while sound`
            }}
          </p>
          <div v-if="choices.length > 1" class="states">
            <button
              v-for="(state, index) in choices"
              :key="state"
              type="button"
              :class="{ on: (states[chosen.id] ?? 'good') === state }"
              :aria-pressed="(states[chosen.id] ?? 'good') === state"
              @click="setState(state)"
            >
              <kbd>{{ index + 1 }}</kbd>{{ stateWords[state] }}
            </button>
          </div>
          <p v-else class="quiet">Nothing of this kind goes wrong with it.</p>
          <div v-if="alike" class="alike">
            <p v-if="alike.sound" class="sign sign--care">On the track this looks like a sound engine.</p>
            <template v-if="alike.others.length">
              <p>
                On the track
                {{ alike.others.length === 1 ? 'one other fault looks' : `${alike.others.length} other faults look` }}
                the same.
                <button type="button" class="plain" @click="showAlike = !showAlike">
                  {{ showAlike ? 'Hide' : 'Which' }}
                </button>
              </p>
              <ul v-if="showAlike">
                <li v-for="other in alike.others" :key="other" class="quiet">{{ other }}</li>
              </ul>
            </template>
            <p v-else-if="!alike.sound">No other single fault does just this on the track.</p>
          </div>
        </template>
      </section>
      <section>
        <div class="row">
          <span class="label">Meter</span
          ><span class="pair"
            ><button
              type="button"
              :class="{ on: meter === 'volts' }"
              :aria-pressed="meter === 'volts'"
              @click="meter = 'volts'"
            >
              volts</button
            ><button
              type="button"
              :class="{ on: meter === 'ohms' }"
              :aria-pressed="meter === 'ohms'"
              @click="meter = 'ohms'"
            >
              ohms
            </button></span
          >
        </div>
        <template v-if="probes.length === 2"
          ><p class="numeral">{{ reading }}</p>
          <p v-for="(id, index) in probes" :key="id" class="quiet">
            {{ index === 0 ? 'Red' : 'Black' }}: {{ nodeName(id) }}, {{ accessTo(id) }}
          </p></template
        >
        <p v-else class="quiet">
          {{
            probes.length === 1
              ? `Red on ${nodeName(probes[0] ?? '').toLowerCase()}. Tap where black goes.`
              : 'Tap two points to see what a meter should read there.'
          }}{{ meter === 'ohms' ? ' Ohms are read off the track.' : '' }}
        </p>
      </section>
      <v-btn
        v-if="faulty.length || probes.length"
        variant="outlined"
        @click="
          () => {
            states = {}
            probes = []
            selected = null
          }
        "
        >Everything good again<kbd>Esc</kbd></v-btn
      >
    </aside>
  </div>
</template>

<style scoped>
.path {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 18px;
}
.hint {
  margin-top: 8px;
}
aside {
  display: grid;
  gap: 14px 28px;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  align-items: start;
}
section {
  border-top: 1px solid var(--rule);
  padding-top: 10px;
  display: grid;
  gap: 6px;
  align-content: start;
}
.says {
  border-top: 3px solid var(--green);
}
.headline {
  font-size: 1.3rem;
  font-weight: 650;
  line-height: 1.2;
}
.row {
  display: grid;
  grid-template-columns: 104px 1fr auto;
  gap: 10px;
  align-items: center;
}
select {
  min-height: var(--target);
  border: 0;
  border-bottom: 1px solid var(--steel);
  background: transparent;
  color: var(--ink);
  font: inherit;
  width: 100%;
  grid-column: 2 / -1;
}
select option {
  background: var(--sheet);
  color: var(--ink);
}
input[type='range'] {
  accent-color: var(--green);
  width: 100%;
  min-height: var(--target);
}
.plain {
  color: var(--green);
  font-weight: 600;
  min-height: var(--target);
  text-decoration: underline;
  text-underline-offset: 3px;
}
.states {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.states button,
.pair button {
  border: 1px solid var(--rule);
  min-height: var(--target);
  padding: 0 12px;
  display: flex;
  gap: 10px;
  align-items: center;
  font-weight: 600;
  background: var(--sheet);
}
.pair {
  display: flex;
  gap: 6px;
  grid-column: 2 / -1;
}
.pair button {
  flex: 1;
  justify-content: center;
}
.on {
  border-color: var(--brass) !important;
  box-shadow: inset 0 -3px 0 var(--brass);
}
.alike {
  display: grid;
  gap: 4px;
  font-size: 0.92rem;
}
.alike ul {
  margin: 0;
  padding-left: 18px;
  max-height: 220px;
  overflow-y: auto;
}
</style>
