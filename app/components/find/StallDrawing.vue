<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { area, line } from 'd3-shape'
import type { EngineDescription } from '~~/core/engine/description-schema'
import type { Pole } from '~~/core/engine/poles'
import { pickupMap } from '~~/core/engine/pickup-map'
import { trainLayout } from '~~/core/engine/train-layout'
import { contactGradeWords, UNMEASURED_GRADE, type ContactGrade } from '~~/core/mechanism/contact-grades'
import type { DeadStretch, StallRisk } from '~~/core/mechanism/stall-risk'

/** The engine from above, pushed over the dead piece: which contacts stand on live metal, and under it how likely none does. */
const props = defineProps<{
  description: EngineDescription
  risk: StallRisk
  stretches: readonly DeadStretch[]
  grades: Readonly<Record<string, ContactGrade>>
}>()
/** A contact was tapped to say how it is. */
const emit = defineEmits<{ tapped: [point: string] }>()

const WIDTH = 1100
const front = ref(0)
const first = computed(() => props.risk.positions[0]?.frontMm ?? 0)
const last = computed(() => props.risk.positions.at(-1)?.frontMm ?? 1)
const trainMm = computed(() =>
  trainLayout(props.description).reduce((end, unit) => Math.max(end, unit.startMm + unit.lengthMm), 0),
)
watch(
  [() => props.risk.worst.frontMm, () => props.stretches],
  () => {
    front.value = props.risk.worst.frontMm
  },
  { immediate: true },
)
const x = computed(() =>
  scaleLinear()
    .domain([first.value - trainMm.value, last.value + 14])
    .range([8, WIDTH - 8]),
)
const place = computed(() => props.risk.positions[Math.round(front.value - first.value)] ?? props.risk.worst)
const dead = (point: { readonly side: string; readonly rail: Pole | null }, atMm: number): boolean =>
  point.rail !== null &&
  props.stretches.some(
    (entry) => (entry.pole === 'both' || entry.pole === point.rail) && atMm >= entry.fromMm && atMm < entry.toMm,
  )
const starts = computed(() => new Map(trainLayout(props.description).map((unit) => [unit.unit, unit])))
// Front leading to the right, as it rolls; the left rail lies above.
const railY = (side: string): number => (side === 'left' ? 74 : side === 'right' ? 150 : 112)
const wheels = computed(() =>
  pickupMap(props.description).map((point) => {
    const atMm = front.value - ((starts.value.get(point.unit)?.startMm ?? 0) + point.xMm)
    const grade = props.grades[point.id] ?? UNMEASURED_GRADE
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
  props.stretches.flatMap((entry) =>
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
  props.risk.positions.map((entry) => [x.value(entry.frontMm), y(entry.noSupply)] as [number, number]),
)
const curve = computed(() => line()(chartPoints.value) ?? '')
const filled = computed(
  () =>
    area<[number, number]>()
      .x((entry) => entry[0])
      .y0(CHART_FOOT)
      .y1((entry) => entry[1])(chartPoints.value) ?? '',
)
</script>

<template>
  <div class="picture">
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
          <text :x="(entry.from + entry.to) / 2" :y="entry.y + (entry.y > 112 ? 27 : -18)" class="deadname">dead</text>
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
              ? `${wheel.point.id.replace('.', ' ').replaceAll('-', ' ')}: ${contactGradeWords[wheel.grade]}, ${wheel.state === 'on' ? 'on live metal' : 'no supply here'}`
              : undefined
          "
          @click="wheel.point.collects && emit('tapped', wheel.point.id)"
          @keydown.enter="wheel.point.collects && emit('tapped', wheel.point.id)"
        >
          <title>
            {{
              wheel.point.collects
                ? `${contactGradeWords[wheel.grade]}: tap to say otherwise`
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
  </div>
</template>

<style scoped>
.picture {
  display: grid;
  gap: 14px;
  min-width: 0;
}
input[type='range'] {
  accent-color: var(--green);
  min-height: var(--target);
}
.scroll {
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
</style>
