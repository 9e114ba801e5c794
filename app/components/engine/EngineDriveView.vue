<script setup lang="ts">
import { Circuit } from '~~/core/engine/circuit'
import type { EngineDescription } from '~~/core/engine/description-schema'
import { driveTrain, looseHalves, ordersOf, pullsAgainstItself, trackSpeed } from '~~/core/engine/drive-train'
import { inSentence } from '~~/core/engine/name-in-sentence'
import { operatingPoint } from '~~/core/engine/operating-point'
import { runningPositions } from '~~/core/engine/pickup-map'
import { scaleSpeed } from '~~/core/measure/scales'
import { layOutDrive } from '~/drawing/drive-layout'

/** The drive from motor to wheels: how fast each part turns, and at which frequency it would show itself. */
const props = defineProps<{ description: EngineDescription; nominalVolts: number; scaleRatio: number | null }>()

const slipping = ref<Set<string>>(new Set())
watch(
  () => props.description,
  () => {
    slipping.value = new Set()
  },
)
const train = computed(() => driveTrain(props.description, slipping.value))
const layout = computed(() => layOutDrive(props.description, driveTrain(props.description)))
const freeRpm = computed(() => {
  const point = operatingPoint(
    new Circuit(props.description),
    { switches: runningPositions(props.description) },
    { ...props.description.rails, volts: props.nominalVolts },
  )
  return Math.round((Math.abs(point.motors[0]?.radPerSecond ?? 0) * 60) / (2 * Math.PI) / 100) * 100
})
const rpm = ref(0)
watch(
  freeRpm,
  (value) => {
    rpm.value = value
  },
  { immediate: true },
)
const speed = computed(() => trackSpeed(train.value, (rpm.value * 2 * Math.PI) / 60))
const scaled = computed(() =>
  speed.value === null || !props.scaleRatio ? null : scaleSpeed(Math.abs(speed.value), props.scaleRatio),
)
/** Parts that turn alike share a line. */
const orders = computed(() => {
  const lines: Array<{ order: number; kind: string; rotors: string[]; what: string[] }> = []
  for (const { order, what, rotor, kind } of ordersOf(props.description, train.value)) {
    const line = lines.find((entry) => entry.kind === kind && Math.abs(entry.order - order) < 1e-3 * order)
    if (!line) lines.push({ order, kind, rotors: [rotor], what: [what] })
    else if (!line.what.includes(what)) line.what.push(what)
  }
  return lines
})
const coinciding = computed(
  () =>
    new Set(
      orders.value.filter((order, index) =>
        orders.value.some(
          (other, place) => place !== index && Math.abs(other.order - order.order) < 0.01 * order.order,
        ),
      ),
    ),
)
const hertz = (order: number): string => showFigure((order * rpm.value) / 60)
const showFigure = (value: number): string =>
  value >= 100
    ? value.toFixed(0)
    : value >= 10
      ? value.toFixed(1)
      : value >= 1
        ? value.toFixed(2)
        : value.toPrecision(2)
const showOrder = (order: number): string =>
  order >= 0.995 ? `${Number(order.toPrecision(3))}` : `1/${Number((1 / order).toPrecision(3))}`
const turning = (id: string): boolean => train.value.turning.has(id)
const motionOf = (drawn: { rotor: { id: string }; turns: number }): string =>
  turning(drawn.rotor.id) ? `${showOrder(Math.abs(drawn.turns))}  ${hertz(Math.abs(drawn.turns))} Hz` : 'stands'
const freeAxles = computed(() =>
  train.value.wheels
    .filter((wheel) => !wheel.driven)
    .map((wheel) => props.description.wheelSets.find((entry) => entry.id === wheel.wheelSet)?.name ?? ''),
)
const loose = computed(() =>
  looseHalves(props.description, slipping.value).map((half) => ({
    ...half,
    name: inSentence(props.description.wheelSets.find((entry) => entry.id === half.wheelSet)?.name ?? ''),
  })),
)
const muffSlips = (rotor: string): boolean =>
  loose.value.some((half) => props.description.wheelSets.find((entry) => entry.id === half.wheelSet)?.rotor === rotor)
const linkClass = (kind: string): string => `link-${kind}`
const wrapped = (name: string): string[] => {
  const lines: string[] = []
  for (const word of name.split(' ')) {
    const last = lines.at(-1)
    if (last !== undefined && last.length + word.length < 17) lines[lines.length - 1] = `${last} ${word}`
    else lines.push(word)
  }
  return lines.slice(0, 2)
}
function toggle(id: string): void {
  const next = new Set(slipping.value)
  if (!next.delete(id)) next.add(id)
  slipping.value = next
}
const mayslip = computed(() =>
  props.description.links.filter((link) => ['press-fit', 'joint', 'muff', 'rods', 'mesh', 'worm'].includes(link.kind)),
)
</script>

<template>
  <div class="drive">
    <div>
      <div class="scroll" tabindex="0" role="group" aria-label="Drive train from motor to wheels">
        <svg
          :viewBox="`0 0 ${layout.width} ${layout.height}`"
          :style="{ minWidth: `${Math.min(layout.width, 760)}px`, maxWidth: `${layout.width * 1.15}px` }"
        >
          <line
            v-for="drawn in layout.links"
            :key="drawn.link.id"
            :x1="drawn.x1"
            :y1="drawn.y1"
            :x2="drawn.x2"
            :y2="drawn.y2"
            :class="[linkClass(drawn.link.kind), { slips: slipping.has(drawn.link.id) }]"
          />
          <g
            v-for="drawn in layout.rotors"
            :key="drawn.rotor.id"
            :class="{ still: !turning(drawn.rotor.id) }"
            :transform="`translate(${drawn.x},${drawn.y})`"
          >
            <template v-if="drawn.rotor.kind === 'armature'">
              <rect x="-30" y="-20" width="60" height="40" rx="4" class="body" />
              <path d="M-12,-20 V20 M12,-20 V20" class="fine" />
              <line x1="30" x2="42" y1="0" y2="0" class="shaft" />
            </template>
            <template v-else-if="drawn.rotor.kind === 'worm'">
              <rect x="-24" y="-10" width="48" height="20" rx="9" class="body" />
              <path d="M-16,10 L-8,-10 M-6,10 L2,-10 M4,10 L12,-10 M14,10 L20,-6" class="fine" />
            </template>
            <template v-else-if="drawn.rotor.kind === 'shaft'">
              <line x1="-26" x2="26" y1="0" y2="0" class="shaft" />
              <circle cx="-26" r="5" class="body" />
              <circle cx="26" r="5" class="body" />
            </template>
            <template v-else-if="drawn.rotor.kind === 'axle'">
              <circle :r="drawn.radius" class="wheel" />
              <circle :r="drawn.radius - 5" class="fine" />
              <path
                v-if="drawn.split"
                :d="`M0,${3 - drawn.radius} V${drawn.radius - 3}`"
                class="muff"
                :class="{ slips: muffSlips(drawn.rotor.id) }"
              />
              <circle r="4" class="hub" />
            </template>
            <template v-else>
              <circle :r="drawn.radius" class="gear" />
              <circle r="3.5" class="hub" />
            </template>
            <template v-if="drawn.rotor.kind === 'axle'">
              <text
                v-for="(line, index) in wrapped(drawn.rotor.name)"
                :key="index"
                :x="drawn.radius + 9"
                :y="-4 + index * 13"
                class="name beside"
              >
                {{ line }}
              </text>
              <text :x="drawn.radius + 9" :y="-4 + wrapped(drawn.rotor.name).length * 13" class="turns beside">
                {{ motionOf(drawn) }}
              </text>
            </template>
            <template v-else>
              <text
                v-for="(line, index) in wrapped(drawn.rotor.name)"
                :key="index"
                :y="Math.max(drawn.radius, 20) + 13 + index * 12"
                class="name"
              >
                {{ line }}
              </text>
              <text :y="-Math.max(drawn.radius, 18) - 6" class="turns">{{ motionOf(drawn) }}</text>
            </template>
          </g>
        </svg>
      </div>
      <p class="quiet">
        Over each part: its turns for one turn of the motor, and how often a second that is at
        {{ rpm.toLocaleString('en-GB') }} rpm.
      </p>
    </div>
    <aside>
      <section class="says" aria-live="polite">
        <p class="headline">
          {{
            speed === null
              ? 'Nothing is driven'
              : pullsAgainstItself(train)
                ? 'It cannot turn'
                : scaled
                  ? `${scaled.kilometresPerHour.toFixed(0)} km/h to scale`
                  : `${(Math.abs(speed) * 100).toFixed(1)} cm/s`
          }}
        </p>
        <p v-if="speed !== null">
          {{ (Math.abs(speed) * 100).toFixed(1) }} cm/s on the track<template v-if="scaled"
            >, {{ scaled.milesPerHour.toFixed(0) }} mph to scale</template
          >.
        </p>
        <p v-for="half in loose" :key="half.muff">
          {{
            half.turnedByRods
              ? `Only the rods turn the far wheel of the ${half.name} now: it creeps out of quarter and binds once a turn.`
              : `The far wheel of the ${half.name} is not driven any more.`
          }}
        </p>
        <p v-if="freeAxles.length" class="quiet">Not driven, only rolling: {{ freeAxles.join(', ').toLowerCase() }}.</p>
      </section>
      <section>
        <label class="label" for="rpm">Motor</label>
        <div class="slider">
          <input
            id="rpm"
            v-model.number="rpm"
            type="range"
            min="500"
            :max="Math.max(20000, freeRpm)"
            step="100"
          /><output class="figure">{{ rpm.toLocaleString('en-GB') }} rpm</output>
        </div>
        <p class="quiet">
          Reckoned free at {{ nominalVolts }} V: {{ freeRpm.toLocaleString('en-GB') }} rpm, from the usual constants of
          this construction.
        </p>
      </section>
      <section>
        <label class="label" for="slip">What if one link slipped</label>
        <select
          id="slip"
          :value="''"
          @change="
            ($event) => {
              toggle(($event.target as HTMLSelectElement).value)
              ;($event.target as HTMLSelectElement).value = ''
            }
          "
        >
          <option value="">Choose a link</option>
          <option v-for="link in mayslip" :key="link.id" :value="link.id">
            {{ link.name }}{{ slipping.has(link.id) ? ', slipping' : '' }}
          </option>
        </select>
        <p v-for="id in slipping" :key="id" class="sign sign--fault">
          {{ description.links.find((link) => link.id === id)?.name }} slips
          <button type="button" class="plain" @click="toggle(id)">Holds again</button>
        </p>
      </section>
      <section>
        <h3>Where it would show</h3>
        <table>
          <thead>
            <tr>
              <th scope="col">Part</th>
              <th scope="col">Per motor turn</th>
              <th scope="col">Hz</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="order in orders" :key="`${order.kind}${order.order}`" :class="{ twin: coinciding.has(order) }">
              <th scope="row">
                {{ order.what[0]
                }}<span v-if="order.what.length > 1" class="quiet" :title="order.what.slice(1).join(', ')">
                  and {{ order.what.length - 1 }} more</span
                >
              </th>
              <td class="figure">{{ showOrder(order.order) }}</td>
              <td class="figure">{{ hertz(order.order) }}</td>
            </tr>
          </tbody>
        </table>
        <p v-if="coinciding.size" class="quiet">
          Lines marked ◇ lie on one frequency: current or sound alone cannot tell them apart.
        </p>
      </section>
    </aside>
  </div>
</template>

<style scoped>
.drive {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  gap: 24px;
  align-items: start;
}
.scroll {
  overflow-x: auto;
}
svg {
  width: 100%;
  height: auto;
  display: block;
}
.body {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.8;
}
.gear {
  fill: var(--sheet);
  stroke: var(--brass);
  stroke-width: 6;
  stroke-dasharray: 4 3;
}
.wheel {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 4;
}
.fine {
  fill: none;
  stroke: var(--steel);
  stroke-width: 1.5;
}
.hub {
  fill: var(--ink);
}
.shaft {
  stroke: var(--ink);
  stroke-width: 4;
  stroke-linecap: round;
}
line[class^='link'] {
  stroke: var(--steel);
  stroke-width: 2;
}
.link-rods {
  stroke: var(--ink) !important;
  stroke-width: 6 !important;
}
.link-press-fit,
.link-joint {
  stroke-width: 4 !important;
}
.muff {
  stroke: var(--brass);
  stroke-width: 5;
  fill: none;
}
.slips {
  stroke: var(--red) !important;
  stroke-dasharray: 5 5;
}
.still {
  opacity: 0.45;
}
.name,
.turns {
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3.5px;
}
.beside {
  text-anchor: start !important;
}
.name {
  font-size: 12px;
  text-anchor: middle;
  fill: var(--ink);
}
.turns {
  font-size: 11.5px;
  text-anchor: middle;
  fill: var(--soft);
  font-family: var(--mono);
  white-space: pre;
}
aside {
  display: grid;
  gap: 14px;
}
section {
  border-top: 1px solid var(--rule);
  padding-top: 10px;
  display: grid;
  gap: 6px;
}
.says {
  border-top: 3px solid var(--green);
}
.headline {
  font-size: 1.3rem;
  font-weight: 650;
  line-height: 1.2;
}
.slider {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 10px;
  align-items: center;
}
input[type='range'] {
  accent-color: var(--green);
  min-height: var(--target);
}
select {
  min-height: var(--target);
  border: 0;
  border-bottom: 1px solid var(--steel);
  background: transparent;
  color: var(--ink);
  font: inherit;
  width: 100%;
}
select option {
  background: var(--sheet);
  color: var(--ink);
}
.plain {
  color: var(--green);
  font-weight: 600;
  min-height: var(--target);
  text-decoration: underline;
  margin-left: 8px;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.88rem;
}
th {
  text-align: left;
  font-weight: 450;
  padding: 4px 8px 4px 0;
}
thead th {
  color: var(--soft);
  font-size: 0.8rem;
}
td {
  text-align: right;
  padding: 4px 0 4px 8px;
  white-space: nowrap;
}
tbody tr {
  border-top: 1px solid var(--rule);
}
thead th:not(:first-child) {
  text-align: right;
}
.twin th::before {
  content: '◇ ';
  color: var(--amber-ink);
}
@media (max-width: 960px) {
  .drive {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
