<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { area, line } from 'd3-shape'
import type { EngineDescription } from '~~/core/engine/description-schema'
import { inSentence } from '~~/core/engine/name-in-sentence'
import type { Pole } from '~~/core/engine/poles'
import { pickupMap } from '~~/core/engine/pickup-map'
import { trainLayout } from '~~/core/engine/train-layout'
import { deadTracks, stallRemedyRows, stretchesOf } from '~~/core/knowledge/stall-knowledge'
import { findScale, scaleSpeed } from '~~/core/measure/scales'
import { coastOf } from '~~/core/mechanism/coast-of-engine'
import {
  contactGrades,
  contactPoints,
  effectivePoints,
  gradeOf,
  UNMEASURED_GRADE,
  type ContactGrade,
} from '~~/core/mechanism/contact-grades'
import { stallRemedies } from '~~/core/mechanism/stall-remedies'
import { stallRisk, type ContactPoint } from '~~/core/mechanism/stall-risk'
import { optionOf } from '~~/core/knowledge/schools-of-practice'
import { schools } from '~~/core/knowledge/schools'
import type { JobBook } from '~~/messages/book'
import { priceOfMinutes, showMoney } from '~~/work/money'

/** The engine pushed over a dead piece of track: where nothing supplies it, whether it rolls through, and what would help. */
const props = defineProps<{ book: JobBook; description: EngineDescription }>()
const workshop = useWorkshopStore()
const sheet = useContinuitySheet(
  () => props.book,
  () => props.description,
)

const USUAL_GAUGE_MM = 16.5
const gaugeMm = computed(() => props.book.type.gaugeMm ?? USUAL_GAUGE_MM)
const scaleRatio = computed(() =>
  props.book.type.scaleId ? (findScale(props.book.type.scaleId)?.ratio ?? null) : null,
)
const { draft } = useDraft(`stall.${props.book.engine.id}`, () => ({
  track: 'long-frog',
  rail: 'plus' as Pole,
  lengthMm: null as number | null,
  speedMmPerSecond: 60,
  grades: {} as Record<string, ContactGrade>,
}))
const track = computed(
  () => deadTracks.find((entry) => entry.id === draft.value.track) ?? (deadTracks[0] as (typeof deadTracks)[number]),
)
const stretches = computed(() => {
  const made = stretchesOf(track.value, gaugeMm.value, draft.value.rail)
  const own = draft.value.lengthMm
  return own !== null && own >= 1 && made.length === 1
    ? made.map((entry) => ({ ...entry, toMm: entry.fromMm + Math.min(400, own) }))
    : made
})
const lengthShown = computed(
  () =>
    Math.max(...stretches.value.map((entry) => entry.toMm)) - Math.min(...stretches.value.map((entry) => entry.fromMm)),
)

/** What is no length leaves the preset’s, and the box says so. */
function setLength(box: HTMLInputElement): void {
  const typed = Number(box.value)
  draft.value.lengthMm = typed >= 1 ? typed : null
  box.value = String(lengthShown.value)
}

const points = computed(() => pickupMap(props.description))
const measured = computed(
  () =>
    Object.fromEntries(
      sheet.judged.value.flatMap((entry) => {
        const grade = gradeOf(entry)
        return grade ? [[entry.wheel.point, grade]] : []
      }),
    ) as Record<string, ContactGrade>,
)
const grades = computed<Record<string, ContactGrade>>(() => ({ ...measured.value, ...draft.value.grades }))
const gradeWords: Readonly<Record<ContactGrade, string>> = {
  clean: 'bright',
  dull: 'dull',
  dirty: 'dirty',
  dead: 'never touches',
}
function nextGrade(point: string): void {
  const now = grades.value[point] ?? UNMEASURED_GRADE
  draft.value.grades = {
    ...draft.value.grades,
    [point]: contactGrades[(contactGrades.indexOf(now) + 1) % contactGrades.length] as ContactGrade,
  }
}
const measuredCount = computed(
  () => Object.keys(measured.value).filter((point) => contacts.value.some((entry) => entry.id === point)).length,
)

const coast = computed(() => coastOf(props.description, draft.value.speedMmPerSecond / 1000))
const coastMm = computed(() => coast.value?.coastMm ?? 0)
const contacts = computed(() => contactPoints(props.description, grades.value))
const scaled = (times: number): ContactPoint[] =>
  contacts.value.map((point) => ({
    ...point,
    failChance: point.failChance === 1 ? 1 : Math.min(1, point.failChance * times),
  }))
const riskOf = (list: readonly ContactPoint[]) =>
  stallRisk({ points: list, stretches: stretches.value, bridgedMm: coastMm.value })
const risk = computed(() => riskOf(contacts.value))
/** The chances of the contacts are judged: with half and with twice of them. */
const range = computed(() => [riskOf(scaled(0.5)).stopsPerPass, riskOf(scaled(2)).stopsPerPass] as const)
const remedies = computed(() =>
  stallRemedies(props.description, stallRemedyRows, {
    stretches: stretches.value,
    grades: grades.value,
    metresPerSecond: draft.value.speedMmPerSecond / 1000,
    coastMm: coastMm.value,
    amps: coast.value?.amps ?? 0.2,
  }),
)
/** What the shop holds with: its own way is said so, and what changes the machine waits for the owner where it keeps them authentic. */
const heldWith = (id: string): string => {
  const school = schools.find((entry) => entry.id === id)
  return school ? optionOf(school, props.book.practice.schools).id : ''
}
const schoolOf = (kind: string): string => {
  const way = kind === 'stay-alive' ? 'stay-alive' : kind === 'clean' || kind === 'wipers' ? 'clean-and-pickups' : ''
  return [
    way !== '' && heldWith('dead-track') === way ? 'The way of this shop.' : '',
    kind !== 'clean' && heldWith('originality') === 'keep' ? 'Changes the machine: the owner’s word first.' : '',
  ]
    .filter(Boolean)
    .join(' ')
}
const railName = (pole: Pole): string =>
  props.description.nodes.find((node) => node.id === props.description.rails[pole])?.name ?? pole
const perRail = computed(() =>
  (['plus', 'minus'] as const).map((pole) => ({
    pole,
    name: railName(pole),
    ...effectivePoints(contacts.value, pole),
  })),
)

const currency = computed(() => workshop.currency)
const hourlyRate = computed(() => workshop.book?.workshop.hourlyRate ?? 0)
const money = (minutes: number, parts: number): string =>
  showMoney(parts + priceOfMinutes(minutes, hourlyRate.value), currency.value)
const perPass = (stops: number): string =>
  stops < 0.0005 ? '0' : stops < 0.01 ? stops.toFixed(3) : stops < 0.1 ? stops.toFixed(2) : stops.toFixed(1)
/** What brings it under this many stops a pass is enough. */
const ENOUGH = 0.025
const enough = computed(() => {
  const options = remedies.value.flatMap((entry) => [
    { entry, cleaned: false, stops: entry.risk.stopsPerPass },
    ...(entry.withCleaning ? [{ entry, cleaned: true, stops: entry.withCleaning.stopsPerPass }] : []),
  ])
  const cleaning = remedies.value.find((entry) => entry.row.kind === 'clean')
  const cost = ({ entry, cleaned }: (typeof options)[number]): number =>
    entry.price +
    (cleaned ? (cleaning?.price ?? 0) : 0) +
    priceOfMinutes(entry.minutes + (cleaned ? (cleaning?.minutes ?? 0) : 0), hourlyRate.value)
  const best = options.filter((option) => option.stops <= ENOUGH).sort((one, other) => cost(one) - cost(other))[0]
  if (risk.value.stopsPerPass <= ENOUGH) return 'Nothing is needed here.'
  if (!best) return 'None of these is enough alone or with cleaning: it needs two of them, or a live frog.'
  return `Cheapest that is enough: ${inSentence(best.entry.name)}${best.cleaned ? ', and clean' : ''}: ${perPass(best.stops)} stops a pass for ${showMoney(cost(best), currency.value)}.`
})

// The picture: track along the width, the engine standing where the front is pushed to.
const WIDTH = 1100
const front = ref(0)
const first = computed(() => risk.value.positions[0]?.frontMm ?? 0)
const last = computed(() => risk.value.positions.at(-1)?.frontMm ?? 1)
const trainMm = computed(() =>
  trainLayout(props.description).reduce((end, unit) => Math.max(end, unit.startMm + unit.lengthMm), 0),
)
watch(
  [() => risk.value.worst.frontMm, () => draft.value.track, () => draft.value.rail],
  () => {
    front.value = risk.value.worst.frontMm
  },
  { immediate: true },
)
const x = computed(() =>
  scaleLinear()
    .domain([first.value - trainMm.value, last.value + 14])
    .range([8, WIDTH - 8]),
)
const place = computed(() => risk.value.positions[Math.round(front.value - first.value)] ?? risk.value.worst)
const dead = (point: { readonly side: string; readonly rail: Pole | null }, atMm: number): boolean =>
  point.rail !== null &&
  stretches.value.some(
    (entry) => (entry.pole === 'both' || entry.pole === point.rail) && atMm >= entry.fromMm && atMm < entry.toMm,
  )
const starts = computed(() => new Map(trainLayout(props.description).map((unit) => [unit.unit, unit])))
// Front leading to the right, as it rolls; the left rail lies above.
const railY = (side: string): number => (side === 'left' ? 74 : side === 'right' ? 150 : 112)
const wheels = computed(() =>
  points.value.map((point) => {
    const atMm = front.value - ((starts.value.get(point.unit)?.startMm ?? 0) + point.xMm)
    const grade = grades.value[point.id] ?? UNMEASURED_GRADE
    return {
      point,
      cx: x.value(atMm),
      cy: railY(point.side),
      grade,
      state: !point.collects ? 'idle' : dead(point, atMm) || grade === 'dead' ? 'off' : 'on',
    }
  }),
)
const sideOf = (pole: Pole): 'left' | 'right' | 'centre' =>
  props.description.power === 'ac' ? (pole === 'plus' ? 'centre' : 'left') : pole === 'plus' ? 'right' : 'left'
const drawnDead = computed(() =>
  stretches.value.flatMap((entry) =>
    (entry.pole === 'both' ? (['plus', 'minus'] as const) : [entry.pole]).map((pole) => ({
      key: `${pole}${entry.fromMm}`,
      y: railY(sideOf(pole)),
      from: x.value(entry.fromMm),
      to: x.value(entry.toMm),
    })),
  ),
)
const CHART_TOP = 206
const CHART_FOOT = 300
const y = scaleLinear().domain([0, 1]).range([CHART_FOOT, CHART_TOP])
const chartPoints = computed(() =>
  risk.value.positions.map((entry) => [x.value(entry.frontMm), y(entry.noSupply)] as [number, number]),
)
const curve = computed(() => line()(chartPoints.value) ?? '')
const filled = computed(
  () =>
    area<[number, number]>()
      .x((entry) => entry[0])
      .y0(CHART_FOOT)
      .y1((entry) => entry[1])(chartPoints.value) ?? '',
)
const verdict = computed(() => {
  const { longestWithoutMm, stopsPerPass } = risk.value
  if (longestWithoutMm > coastMm.value)
    return {
      tone: 'fault',
      words: `For ${longestWithoutMm} mm no point of one rail stands on live metal, and it rolls ${coastMm.value.toFixed(1)} mm: it stops there however clean it is.`,
    }
  if (stopsPerPass >= 0.1)
    return {
      tone: 'fault',
      words:
        longestWithoutMm > 0
          ? `It can roll over the ${longestWithoutMm} mm without contact; what stops it is contacts that do not touch.`
          : 'Some point always stands on live metal; what stops it is contacts that do not touch.',
    }
  if (stopsPerPass >= 0.01)
    return { tone: 'care', words: 'It mostly rides through; a few passes in a hundred end there.' }
  return { tone: 'sound', words: 'It rides through.' }
})
const kmPerHour = computed(() =>
  scaleRatio.value === null
    ? null
    : scaleSpeed(draft.value.speedMmPerSecond / 1000, scaleRatio.value).kilometresPerHour,
)
</script>

<template>
  <div class="stall">
    <p v-if="contacts.length === 0" class="quiet">Nothing of this engine collects: there is no stalling to reckon.</p>
    <template v-else>
      <div class="asked">
        <label
          >Over
          <select v-model="draft.track">
            <option v-for="entry in deadTracks" :key="entry.id" :value="entry.id">{{ entry.name }}</option>
          </select></label
        >
        <label v-if="track.perGauge.some((entry) => entry.pole !== 'both')"
          >dead first in the
          <select v-model="draft.rail">
            <option value="plus">{{ railName('plus') }}</option>
            <option value="minus">{{ railName('minus') }}</option>
          </select></label
        >
        <label v-if="track.perGauge.length === 1"
          >dead for
          <input
            :value="lengthShown"
            type="number"
            min="1"
            max="400"
            step="1"
            inputmode="numeric"
            @change="setLength($event.target as HTMLInputElement)"
          />
          mm</label
        >
        <label
          >at
          <input
            v-model.number="draft.speedMmPerSecond"
            type="range"
            min="10"
            max="400"
            step="5"
            aria-label="Speed in millimetres per second"
          />
          <b class="figure">{{ draft.speedMmPerSecond }} mm/s</b
          ><span v-if="kmPerHour !== null" class="quiet">&nbsp;{{ Math.round(kmPerHour) }} km/h to scale</span></label
        >
      </div>
      <p class="verdict sign" :class="`sign--${verdict.tone}`" role="status">{{ verdict.words }}</p>
      <div class="scroll" tabindex="0" role="group" aria-label="The engine over the dead piece">
        <svg :viewBox="`0 0 ${WIDTH} 336`">
          <line x1="0" :x2="WIDTH" :y1="railY('left')" :y2="railY('left')" class="rail" />
          <line x1="0" :x2="WIDTH" :y1="railY('right')" :y2="railY('right')" class="rail" />
          <line
            v-if="description.power === 'ac'"
            x1="0"
            :x2="WIDTH"
            :y1="railY('centre')"
            :y2="railY('centre')"
            class="rail thin"
          />
          <g v-for="entry in drawnDead" :key="entry.key">
            <line :x1="entry.from" :x2="entry.to" :y1="entry.y" :y2="entry.y" class="gone" />
            <line :x1="entry.from" :x2="entry.to" :y1="entry.y" :y2="entry.y" class="dead" />
            <text :x="(entry.from + entry.to) / 2" :y="entry.y + (entry.y > 112 ? 27 : -18)" class="deadname">
              dead
            </text>
          </g>
          <g v-for="[id, unit] in starts" :key="id">
            <rect
              :x="x(front - unit.startMm - unit.lengthMm + 8)"
              y="46"
              :width="x(unit.lengthMm) - x(0)"
              height="132"
              rx="7"
              class="unit"
            />
          </g>
          <path :d="`M${x(front + 8)},100 l12,12 l-12,12`" class="nose" />
          <g
            v-for="wheel in wheels"
            :key="wheel.point.id"
            :transform="`translate(${wheel.cx},${wheel.cy})`"
            class="contact"
            :class="[wheel.state, `grade-${wheel.grade}`]"
            :role="wheel.point.collects ? 'button' : undefined"
            :tabindex="wheel.point.collects ? 0 : undefined"
            :aria-label="
              wheel.point.collects
                ? `${wheel.point.id.replace('.', ' ').replaceAll('-', ' ')}: ${gradeWords[wheel.grade]}, ${wheel.state === 'on' ? 'on live metal' : 'no supply here'}`
                : undefined
            "
            @click="wheel.point.collects && nextGrade(wheel.point.id)"
            @keydown.enter="wheel.point.collects && nextGrade(wheel.point.id)"
          >
            <title>
              {{
                wheel.point.collects
                  ? `${gradeWords[wheel.grade]}: tap to say otherwise`
                  : wheel.point.tyre
                    ? 'tyre'
                    : 'does not collect'
              }}
            </title>
            <rect x="-14" y="-22" width="28" height="44" class="hit" />
            <circle r="10" class="rim" />
            <path v-if="wheel.state === 'on'" d="M-4,0 L-1,3.5 L4.5,-3.5" class="tick" />
            <path v-else-if="wheel.state === 'off'" d="M-4,-4 L4,4 M-4,4 L4,-4" class="cross" />
            <circle v-if="wheel.point.collects && wheel.grade !== 'clean'" r="13.5" class="dirt" />
          </g>
          <text x="8" y="24" class="note">from above, running to the right</text>
          <text x="8" :y="CHART_TOP - 10" class="note">chance of no supply with its front here</text>
          <path :d="filled" class="filled" />
          <path :d="curve" class="curve" />
          <line x1="0" :x2="WIDTH" :y1="CHART_FOOT" :y2="CHART_FOOT" class="axis" />
          <line x1="0" :x2="WIDTH" :y1="CHART_TOP" :y2="CHART_TOP" class="axis faint" />
          <text :x="WIDTH - 4" :y="CHART_TOP + 13" class="note end">100 %</text>
          <line :x1="x(front)" :x2="x(front)" y1="40" :y2="CHART_FOOT" class="cursor" />
          <circle :cx="x(front)" :cy="y(place.noSupply)" r="6" class="here" />
          <text
            :x="x(front) + (x(front) > WIDTH / 2 ? -10 : 10)"
            :y="CHART_FOOT + 24"
            class="reading"
            :class="{ end: x(front) > WIDTH / 2 }"
          >
            {{ Math.round(place.noSupply * 100) }} % without supply: {{ place.live.plus }} and
            {{ place.live.minus }} points on live metal
          </text>
        </svg>
      </div>
      <label class="push"
        ><span class="label">Push it along</span
        ><input
          v-model.number="front"
          type="range"
          :min="first"
          :max="last"
          step="1"
          aria-label="Where the front of the engine stands, in millimetres"
      /></label>
      <div class="figures">
        <div>
          <span class="numeral">{{ perPass(risk.stopsPerPass) }}</span><span class="quiet"
            >stops a pass; {{ perPass(range[0]) }} to {{ perPass(range[1]) }} with contacts twice as good or bad</span
          >
        </div>
        <div>
          <span class="numeral">{{ risk.longestWithoutMm }} mm</span
          ><span class="quiet">with no point of one rail on live metal</span>
        </div>
        <div>
          <span class="numeral">{{ coastMm.toFixed(1) }} mm</span
          ><span class="quiet">it rolls on by itself, from its motor, gears and mass</span>
        </div>
        <div v-for="entry in perRail" :key="entry.pole">
          <span class="numeral"
            >{{ entry.effective.toFixed(1) }}<i>/{{ entry.fitted }}</i></span
          ><span class="quiet">points touch on the {{ entry.name.toLowerCase() }}</span>
        </div>
      </div>
      <p class="quiet">
        Tap a contact to say how it is: {{ contactGrades.map((grade) => gradeWords[grade]).join(', ') }}.
        {{
          measuredCount === 0
            ? 'None is measured wheel by wheel yet: each counts as dull.'
            : `${measuredCount} of ${contacts.length} come from the continuity sheet.`
        }}
        How often a dull or dirty contact fails is judged, not measured.
        <button v-if="Object.keys(draft.grades).length > 0" type="button" class="plain" @click="draft.grades = {}">
          Back to what was measured
        </button>
      </p>
      <section aria-label="What would help">
        <h2>What would help</h2>
        <p class="enough">{{ enough }}</p>
        <div class="grid" tabindex="0" role="group" aria-label="Remedies compared">
          <table>
            <thead>
              <tr>
                <th scope="col">Remedy</th>
                <th scope="col" class="number">Minutes</th>
                <th scope="col" class="number">Price</th>
                <th scope="col" class="number">Stops a pass</th>
                <th scope="col" class="number">and cleaned</th>
              </tr>
            </thead>
            <tbody>
              <tr class="as-is">
                <th scope="row">As it is</th>
                <td class="number">–</td>
                <td class="number">–</td>
                <td class="number figure">{{ perPass(risk.stopsPerPass) }}</td>
                <td class="number">–</td>
              </tr>
              <tr v-for="entry in remedies" :key="entry.name">
                <th scope="row">
                  {{ entry.name
                  }}<span v-if="entry.adds > 0" class="quiet"
                    >, {{ entry.adds }} more {{ entry.adds === 1 ? 'point' : 'points' }}</span
                  >
                  <div v-if="entry.row.against" class="quiet">{{ entry.row.against }}</div>
                  <div v-if="schoolOf(entry.row.kind)" class="quiet">{{ schoolOf(entry.row.kind) }}</div>
                </th>
                <td class="number figure">{{ Math.round(entry.minutes) }}</td>
                <td class="number figure">{{ money(entry.minutes, entry.price) }}</td>
                <td class="number figure">{{ perPass(entry.risk.stopsPerPass) }}</td>
                <td class="number figure">{{ entry.withCleaning ? perPass(entry.withCleaning.stopsPerPass) : '–' }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <p class="quiet">Price: parts, and the minutes at the shop’s rate. Minutes and parts are judged.</p>
      </section>
    </template>
  </div>
</template>

<style scoped>
.stall {
  display: grid;
  gap: 14px;
  min-width: 0;
  grid-template-columns: minmax(0, 1fr);
}
.asked {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  align-items: center;
}
.asked label {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: var(--target);
}
select,
.asked input[type='number'] {
  font: inherit;
  font-weight: 600;
  color: var(--ink);
  background: var(--sheet);
  border: 0;
  border-bottom: 2px solid var(--steel);
  min-height: 40px;
  padding: 0 8px;
  border-radius: 0;
}
.asked input[type='number'] {
  width: 76px;
  text-align: right;
  font-family: var(--mono);
}
input[type='range'] {
  accent-color: var(--green);
  min-height: var(--target);
  width: 110px;
}
.verdict {
  font-weight: 600;
  font-size: 1.05rem;
  align-items: start;
}
.verdict::before {
  margin-top: 5px;
}
.figures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 10px 22px;
  border-top: 1px solid var(--rule);
  padding-top: 10px;
}
.figures > div {
  display: grid;
  align-content: start;
}
.figures i {
  font-style: normal;
  color: var(--soft);
  font-size: 0.7em;
}
.scroll,
.grid {
  overflow-x: auto;
}
.scroll > svg {
  width: 100%;
  min-width: 720px;
  height: auto;
  display: block;
}
.rail {
  stroke: var(--steel);
  stroke-width: 4;
}
.rail.thin {
  stroke-dasharray: 2 5;
}
.gone {
  stroke: var(--paper);
  stroke-width: 8;
}
.dead {
  stroke: var(--red);
  stroke-width: 4;
  stroke-dasharray: 3 5;
}
.deadname {
  font-size: 15px;
  font-weight: 600;
  fill: var(--red);
  text-anchor: middle;
}
.unit {
  fill: color-mix(in srgb, var(--brass) 9%, transparent);
  stroke: var(--rule);
  stroke-width: 1.5;
}
.nose {
  fill: none;
  stroke: var(--brass);
  stroke-width: 3;
  stroke-linejoin: round;
}
.contact .rim {
  fill: var(--paper);
  stroke: var(--steel);
  stroke-width: 1.8;
}
.contact.on .rim {
  fill: var(--green);
  stroke: var(--green);
}
.contact.off .rim {
  stroke: var(--red);
  stroke-width: 2.2;
}
.contact.idle .rim {
  stroke-dasharray: 2 3;
  r: 7;
}
.contact[role='button'] {
  cursor: pointer;
}
.tick {
  stroke: var(--on-green);
  stroke-width: 2.2;
  fill: none;
}
.cross {
  stroke: var(--red);
  stroke-width: 2.2;
}
.hit {
  fill: transparent;
}
.dirt {
  fill: none;
  stroke: var(--brass);
  stroke-width: 2;
  stroke-dasharray: 2 4;
}
.grade-dirty .dirt {
  stroke-width: 4;
}
.grade-dead .dirt {
  stroke: var(--red);
}
.note {
  font-size: 15px;
  fill: var(--soft);
}
.end {
  text-anchor: end;
}
.filled {
  fill: color-mix(in srgb, var(--red) 16%, transparent);
}
.curve {
  fill: none;
  stroke: var(--red);
  stroke-width: 2;
}
.axis {
  stroke: var(--steel);
  stroke-width: 1;
}
.faint {
  stroke: var(--rule);
  stroke-dasharray: 2 4;
}
.cursor {
  stroke: var(--brass);
  stroke-width: 2;
}
.here {
  fill: var(--brass);
}
.reading {
  font-size: 17px;
  font-weight: 600;
  fill: var(--ink);
}
.push {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 14px;
  align-items: center;
}
.push input {
  width: 100%;
}
.plain {
  font-weight: 600;
  color: var(--green);
  min-height: var(--target);
}
table {
  border-collapse: collapse;
  width: 100%;
  min-width: 520px;
}
thead th {
  text-align: left;
  color: var(--soft);
  font-size: 0.82rem;
  font-weight: 550;
  padding: 4px 10px 4px 0;
}
tbody tr {
  border-top: 1px solid var(--rule);
}
tbody th {
  text-align: left;
  font-weight: 600;
  padding: 9px 14px 9px 0;
}
tbody th .quiet {
  font-weight: 400;
}
.enough {
  margin: 4px 0 8px;
  font-weight: 600;
}
tbody td {
  padding: 9px 0 9px 14px;
}
.as-is {
  background: var(--sunk);
}
.as-is th {
  padding-left: 8px;
}
.number {
  text-align: right !important;
  white-space: nowrap;
}
thead .number {
  padding-right: 0;
  padding-left: 14px;
}
</style>
