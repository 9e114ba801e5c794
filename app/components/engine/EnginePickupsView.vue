<script setup lang="ts">
import type { EngineDescription } from '~~/core/engine/description-schema'
import { pickupMap, type PickupPoint } from '~~/core/engine/pickup-map'

/** The engine turned over in its cradle: which wheels touch which rail, and which of them bring current. */
const props = defineProps<{ description: EngineDescription }>()

const points = computed(() => pickupMap(props.description))
const GAP = 18
const MARGIN = 16
const offsets = computed(() => {
  let at = 0
  return new Map(props.description.units.map((unit) => {
    const here = points.value.filter((point) => point.unit === unit.id).map((point) => point.xMm)
    const length = Math.max(30, ...here) + MARGIN
    const entry = [unit.id, { start: at, length, name: unit.name }] as const
    at += length + GAP
    return entry
  }))
})
const total = computed(() => [...offsets.value.values()].reduce((end, unit) => Math.max(end, unit.start + unit.length), 0))
const SCALE_WIDTH = 1100
const scale = computed(() => SCALE_WIDTH / (total.value + 20))
const x = (unit: string, mm: number): number => 10 + ((offsets.value.get(unit)?.start ?? 0) + mm) * scale.value
// Seen from below with the front at the left, the right rail lies at the bottom.
const LEFT_Y = 62
const RIGHT_Y = 218
const sideY = (side: PickupPoint['side']): number => (side === 'left' ? LEFT_Y : side === 'right' ? RIGHT_Y : (LEFT_Y + RIGHT_Y) / 2)
const wheelSets = computed(() => props.description.wheelSets.map((wheelSet) => ({
  ...wheelSet, cx: x(wheelSet.unit, wheelSet.xMm), length: Math.max(14, wheelSet.diameterMm * scale.value * 0.9),
  points: points.value.filter((point) => point.id === `${wheelSet.id}.left` || point.id === `${wheelSet.id}.right`),
})))
const wipered = computed(() => new Set(props.description.components.filter((component) => component.kind === 'contact' && props.description.parts.some((part) => part.id === component.part && part.kind === 'pickup')).flatMap((component) => [component.from, component.to])))
const rimOf = (point: PickupPoint): string => props.description.components.find((component) => component.id === point.component)?.to ?? ''
const centre = computed(() => points.value.filter((point) => point.side === 'centre'))
const railNames = computed(() => ({ plus: nodeName(props.description.rails.plus), minus: nodeName(props.description.rails.minus) }))
const nodeName = (id: string): string => props.description.nodes.find((node) => node.id === id)?.name ?? id
const perRail = computed(() => (['plus', 'minus'] as const).map((rail) => {
  const collecting = points.value.filter((point) => point.collects && point.rail === rail)
  const places = collecting.map((point) => (offsets.value.get(point.unit)?.start ?? 0) + point.xMm)
  return { rail, name: railNames.value[rail], count: collecting.length, spread: places.length > 0 ? Math.max(...places) - Math.min(...places) : 0 }
}))
const idle = computed(() => points.value.filter((point) => !point.collects && point.component !== null && !point.tyre).length)
const title = (point: PickupPoint): string => `${props.description.components.find((component) => component.id === point.component)?.name ?? 'Plastic wheel'}: ${point.collects ? 'collects' : point.tyre ? 'has a tyre' : 'does not collect'}`
</script>

<template>
  <div class="pickups">
    <div class="scroll" tabindex="0" role="group" aria-label="Pickups from below">
      <svg :viewBox="`0 0 ${SCALE_WIDTH} 280`">
        <text x="10" y="20" class="note">seen from below, front at the left</text>
        <template v-for="rail in ([['left', LEFT_Y], ['right', RIGHT_Y]] as const)" :key="rail[0]">
          <line x1="0" :x2="SCALE_WIDTH" :y1="rail[1]" :y2="rail[1]" class="rail" />
          <text :x="SCALE_WIDTH - 6" :y="rail[0] === 'left' ? rail[1] - 26 : rail[1] + 36" class="railname">{{ description.power === 'ac' ? 'Outer rail' : rail[0] === 'left' ? 'Left rail' : 'Right rail' }}</text>
        </template>
        <template v-if="centre.length"><line x1="0" :x2="SCALE_WIDTH" :y1="(LEFT_Y + RIGHT_Y) / 2" :y2="(LEFT_Y + RIGHT_Y) / 2" class="rail thin" /></template>
        <g v-for="[id, unit] in offsets" :key="id"><rect :x="10 + unit.start * scale" y="36" :width="unit.length * scale" height="208" rx="6" class="unit" /><text :x="18 + unit.start * scale" y="264" class="unitname">{{ unit.name }}</text></g>
        <g v-for="wheelSet in wheelSets" :key="wheelSet.id">
          <line :x1="wheelSet.cx" :x2="wheelSet.cx" :y1="LEFT_Y" :y2="RIGHT_Y" class="axle" />
          <g v-for="point in wheelSet.points" :key="point.id" :transform="`translate(${wheelSet.cx},${sideY(point.side)})`" :class="{ collects: point.collects, plastic: point.component === null }">
            <title>{{ title(point) }}</title>
            <line v-if="point.insulated" x1="-6" x2="6" :y1="point.side === 'left' ? 17 : -17" :y2="point.side === 'left' ? 17 : -17" class="gap" />
            <rect :x="-wheelSet.length / 2" y="-9" :width="wheelSet.length" height="18" rx="4" class="wheel" />
            <rect v-if="point.tyre" :x="-wheelSet.length / 2" y="-3.5" :width="wheelSet.length" height="7" class="tyre" />
            <path v-if="point.collects" d="M-5,0 L-1.5,4 L5.5,-4" class="tick" />
            <path v-if="wipered.has(rimOf(point))" :d="point.side === 'left' ? 'M-14,11 q14,9 28,0' : 'M-14,-11 q14,-9 28,0'" class="wiper" />
          </g>
        </g>
        <g v-for="point in centre" :key="point.id" :transform="`translate(${x(point.unit, point.xMm)},${sideY('centre')})`" :class="{ collects: point.collects }"><title>{{ title(point) }}</title><rect x="-13" y="-8" width="26" height="16" rx="8" class="wheel" /><path v-if="point.collects" d="M-5,0 L-1.5,4 L5.5,-4" class="tick" /></g>
      </svg>
    </div>
    <ul class="legend quiet">
      <li><svg viewBox="-16 -10 32 20"><g class="collects"><rect x="-13" y="-8" width="26" height="16" rx="4" class="wheel" /><path d="M-5,0 L-1.5,4 L5.5,-4" class="tick" /></g></svg>collects</li>
      <li><svg viewBox="-16 -10 32 20"><rect x="-13" y="-8" width="26" height="16" rx="4" class="wheel" /></svg>metal, leads nowhere</li>
      <li><svg viewBox="-16 -10 32 20"><rect x="-13" y="-8" width="26" height="16" rx="4" class="wheel" /><rect x="-13" y="-3.5" width="26" height="7" class="tyre" /></svg>tyre: grips, does not collect</li>
      <li><svg viewBox="-16 -10 32 20"><path d="M-14,-3 q14,9 28,0" class="wiper" /></svg>wiper or cup</li>
      <li><svg viewBox="-16 -10 32 20"><line y1="-10" y2="10" class="axle" /><line x1="-6" x2="6" class="gap" /></svg>insulated from its axle</li>
    </ul>
    <div class="rails">
      <section v-for="entry in perRail" :key="entry.rail">
        <h3>{{ entry.name }}</h3>
        <p><span class="numeral">{{ entry.count }}</span> {{ entry.count === 1 ? 'point collects' : 'points collect' }}<template v-if="entry.count > 1">, <span class="figure">{{ entry.spread.toFixed(0) }} mm</span> from first to last</template>.</p>
        <p class="quiet">{{ entry.count === 0 ? 'Nothing brings current from it.' : entry.count === 1 ? 'One speck of dirt, or any dead stretch, stops it.' : `While all of them touch it rides over a dead stretch of up to ${entry.spread.toFixed(0)} mm in this rail.` }}</p>
      </section>
      <section v-if="idle"><h3>Could collect</h3><p><span class="numeral">{{ idle }}</span> metal {{ idle === 1 ? 'wheel leads' : 'wheels lead' }} nowhere.</p><p class="quiet">A wiper on one of them adds a point: note it under what this engine differs in, and the drawing follows.</p></section>
    </div>
  </div>
</template>

<style scoped>
.scroll { overflow-x: auto; } .scroll > svg { width: 100%; min-width: 640px; height: auto; display: block; }
.rail { stroke: var(--steel); stroke-width: 3.5; } .rail.thin { stroke-dasharray: 2 5; }
.railname, .unitname, .note { font-size: 12px; fill: var(--soft); } .railname { text-anchor: end; font-weight: 600; }
.unit { fill: none; stroke: var(--rule); stroke-width: 1.5; }
.axle { stroke: var(--steel); stroke-width: 3; } .gap { stroke: var(--paper); stroke-width: 7; }
.wheel { fill: var(--paper); stroke: var(--ink); stroke-width: 1.8; } .collects .wheel { fill: var(--green); stroke: var(--green); } .plastic .wheel { stroke-dasharray: 3 3; stroke: var(--steel); }
.tyre { fill: var(--ink); } .tick { stroke: var(--on-green); stroke-width: 2.4; fill: none; stroke-linecap: round; stroke-linejoin: round; } .wiper { stroke: var(--brass); stroke-width: 3; fill: none; stroke-linecap: round; }
.legend { display: flex; flex-wrap: wrap; gap: 6px 22px; list-style: none; padding: 0; margin: 8px 0 18px; } .legend li { display: flex; align-items: center; gap: 8px; } .legend svg { width: 32px; height: 20px; }
.rails { display: grid; grid-template-columns: repeat(auto-fit, minmax(260px, 1fr)); gap: 24px; } .rails section { border-top: 3px solid var(--green); padding-top: 8px; display: grid; gap: 4px; }
</style>
