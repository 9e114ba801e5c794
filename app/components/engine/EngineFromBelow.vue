<script setup lang="ts">
import type { EngineDescription } from '~~/core/engine/description-schema'
import { pickupMap, type PickupPoint } from '~~/core/engine/pickup-map'
import { trainLayout } from '~~/core/engine/train-layout'
import type { WheelSign } from '~/drawing/verdict-signs'

/** The engine turned over in its cradle, front at the left: every wheel, roller and shoe, each with a sign of its own. */
const props = defineProps<{
  description: EngineDescription
  signs: Readonly<Record<string, WheelSign | undefined>>
  title: (point: PickupPoint) => string
  selected?: string | null
  selectable?: boolean
}>()
const emit = defineEmits<{ select: [point: string] }>()

const points = computed(() => pickupMap(props.description))
const units = computed(() => trainLayout(props.description))
const WIDTH = 1100
const scale = computed(
  () => WIDTH / (units.value.reduce((end, unit) => Math.max(end, unit.startMm + unit.lengthMm), 0) + 20),
)
const x = (unit: string, mm: number): number =>
  10 + ((units.value.find((entry) => entry.unit === unit)?.startMm ?? 0) + mm) * scale.value
// Seen from below with the front at the left, the right rail lies at the bottom.
const LEFT_Y = 62
const RIGHT_Y = 218
const MIDDLE_Y = (LEFT_Y + RIGHT_Y) / 2
const sideY = (side: PickupPoint['side']): number => (side === 'left' ? LEFT_Y : side === 'right' ? RIGHT_Y : MIDDLE_Y)
const axles = computed(() =>
  props.description.wheelSets.map((wheelSet) => ({ id: wheelSet.id, cx: x(wheelSet.unit, wheelSet.xMm) })),
)
const wheels = computed(() =>
  points.value.map((point) => {
    const wheelSet = props.description.wheelSets.find((entry) => point.id === `${entry.id}.${point.side}`)
    return {
      point,
      cx: x(point.unit, point.xMm),
      cy: sideY(point.side),
      length: wheelSet ? Math.max(22, wheelSet.diameterMm * scale.value * 0.9) : 28,
    }
  }),
)
const wipered = computed(
  () =>
    new Set(
      props.description.components
        .filter(
          (component) =>
            component.kind === 'contact' &&
            props.description.parts.some((part) => part.id === component.part && part.kind === 'pickup'),
        )
        .flatMap((component) => [component.from, component.to]),
    ),
)
const rimOf = (point: PickupPoint): string =>
  props.description.components.find((component) => component.id === point.component)?.to ?? ''
const rails = computed(() =>
  (
    [
      ['left', LEFT_Y],
      ['right', RIGHT_Y],
    ] as const
  ).map(([side, y]) => ({
    side,
    y,
    name: props.description.power === 'ac' ? 'Outer rail' : side === 'left' ? 'Left rail' : 'Right rail',
  })),
)
const pick = (point: string): void => {
  if (props.selectable) emit('select', point)
}
</script>

<template>
  <div class="scroll" tabindex="0" role="group" aria-label="Pickups from below">
    <svg :viewBox="`0 0 ${WIDTH} 280`">
      <text x="10" y="22" class="note">seen from below, front at the left</text>
      <template v-for="rail in rails" :key="rail.side">
        <line x1="0" :x2="WIDTH" :y1="rail.y" :y2="rail.y" class="rail" />
        <text :x="WIDTH - 6" :y="rail.side === 'left' ? rail.y - 26 : rail.y + 36" class="railname">
          {{ rail.name }}
        </text>
      </template>
      <line
        v-if="wheels.some((wheel) => wheel.point.side === 'centre')"
        x1="0"
        :x2="WIDTH"
        :y1="MIDDLE_Y"
        :y2="MIDDLE_Y"
        class="rail thin"
      />
      <g v-for="unit in units" :key="unit.unit">
        <rect :x="10 + unit.startMm * scale" y="36" :width="unit.lengthMm * scale" height="208" rx="6" class="unit" />
        <text :x="18 + unit.startMm * scale" y="264" class="unitname">{{ unit.name }}</text>
      </g>
      <line v-for="axle in axles" :key="axle.id" :x1="axle.cx" :x2="axle.cx" :y1="LEFT_Y" :y2="RIGHT_Y" class="axle" />
      <g
        v-for="{ point, cx, cy, length } in wheels"
        :key="point.id"
        :transform="`translate(${cx},${cy})`"
        :class="[
          { plastic: point.component === null, picked: selected === point.id, selectable },
          signs[point.id] ? `tone-${signs[point.id]?.tone}` : '',
        ]"
        :role="selectable ? 'button' : undefined"
        :tabindex="selectable ? 0 : undefined"
        :aria-label="selectable ? title(point) : undefined"
        @click="pick(point.id)"
        @keydown.enter="pick(point.id)"
      >
        <title>{{ title(point) }}</title>
        <rect
          v-if="selectable"
          :x="-Math.max(22, length / 2 + 4)"
          y="-24"
          :width="2 * Math.max(22, length / 2 + 4)"
          height="48"
          class="hit"
        />
        <line
          v-if="point.insulated"
          x1="-6"
          x2="6"
          :y1="point.side === 'left' ? 17 : -17"
          :y2="point.side === 'left' ? 17 : -17"
          class="gap"
        />
        <rect :x="-length / 2" y="-9" :width="length" height="18" :rx="point.side === 'centre' ? 8 : 4" class="wheel" />
        <rect v-if="point.tyre" :x="-length / 2" y="-3.5" :width="length" height="7" class="tyre" />
        <path v-if="signs[point.id]" :d="signs[point.id]?.path" class="sign-path" />
        <path
          v-if="wipered.has(rimOf(point))"
          :d="point.side === 'left' ? 'M-14,11 q14,9 28,0' : 'M-14,-11 q14,-9 28,0'"
          class="wiper"
        />
        <rect
          v-if="selected === point.id"
          :x="-length / 2 - 6"
          y="-15"
          :width="length + 12"
          height="30"
          rx="6"
          class="ring"
        />
      </g>
    </svg>
  </div>
</template>

<style scoped>
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
  stroke-width: 3.5;
}
.rail.thin {
  stroke-dasharray: 2 5;
}
.railname,
.unitname,
.note {
  font-size: 15px;
  fill: var(--soft);
}
.railname {
  text-anchor: end;
  font-weight: 600;
}
.unit {
  fill: none;
  stroke: var(--rule);
  stroke-width: 1.5;
}
.axle {
  stroke: var(--steel);
  stroke-width: 3;
}
.gap {
  stroke: var(--paper);
  stroke-width: 7;
}
.wheel {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.8;
}
.plastic .wheel {
  stroke-dasharray: 3 3;
  stroke: var(--steel);
}
.tone-sound .wheel {
  fill: var(--green);
  stroke: var(--green);
}
.tone-care .wheel {
  fill: var(--amber);
  stroke: var(--amber);
}
.tone-fault .wheel {
  fill: var(--red);
  stroke: var(--red);
}
.tyre {
  fill: var(--ink);
}
.sign-path {
  stroke: var(--on-green);
  stroke-width: 2.4;
  fill: none;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.tone-ask .sign-path {
  stroke: var(--ink);
}
.tone-care .sign-path,
.tone-fault .sign-path {
  stroke: var(--paper);
}
.wiper {
  stroke: var(--brass);
  stroke-width: 3;
  fill: none;
  stroke-linecap: round;
}
.selectable {
  cursor: pointer;
}
.hit {
  fill: transparent;
  stroke: none;
}
.ring {
  fill: none;
  stroke: var(--brass);
  stroke-width: 3;
}
</style>
