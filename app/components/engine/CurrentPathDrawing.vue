<script setup lang="ts">
import type { ComponentState, EngineDescription } from '~~/core/engine/description-schema'
import type { OperatingPoint } from '~~/core/engine/operating-point'
import { layOutCurrentPath } from '~/drawing/current-path-layout'
import { stateWords } from '~/drawing/state-words'
import { suspicionGrade, type SuspicionGrade } from '~/drawing/suspicion-grade'

/** The engine’s current path from rail to rail; what carries current is drawn strong, what is wrong bears a sign. */
const props = defineProps<{
  description: EngineDescription
  states: Readonly<Record<string, ComponentState>>
  switches: Readonly<Record<string, string>>
  point: OperatingPoint | null
  selected: string | null
  probes: readonly string[]
  /** Chance that a component is at fault, where a search is on; the drawing is shaded by it. */
  suspicion?: Readonly<Record<string, number>>
  /** Points a probe reaches as the engine stands; all where not given. */
  reachable?: ReadonlySet<string>
}>()
const emit = defineEmits<{ select: [component: string]; probe: [node: string] }>()

const layout = computed(() =>
  layOutCurrentPath(props.description, new Set(Object.keys(props.states).filter((id) => props.states[id] !== 'good'))),
)
const suspicionOf = (id: string): number => props.suspicion?.[id] ?? 0
const grade = (id: string): SuspicionGrade | null => suspicionGrade(suspicionOf(id))
const carries = (id: string): boolean => Math.abs(props.point?.componentAmps[id] ?? 0) > 0.002
const widthOf = (id: string): number =>
  1.6 + Math.min(3.2, Math.sqrt(Math.abs(props.point?.componentAmps[id] ?? 0)) * 5)
const voltsAt = (id: string): string => {
  const volts = props.point?.nodeVolts[id]
  return volts === undefined || volts === null ? '' : volts.toFixed(1)
}
const closed = (closedIn: EngineDescription['components'][number]['closedIn']): boolean =>
  closedIn === null || closedIn.positions.includes(props.switches[closedIn.switch] ?? '')
const title = (name: string, id: string): string => {
  const amps = props.point?.componentAmps[id]
  const state = props.states[id]
  if (props.suspicion) return `${name}, suspected with ${Math.round(suspicionOf(id) * 100)} %`
  return `${name}${state && state !== 'good' ? `, ${stateWords[state]}` : ''}${amps === undefined ? '' : `, ${Math.abs(amps * 1000).toFixed(0)} mA`}`
}
</script>

<template>
  <div class="scroll" tabindex="0" role="group" aria-label="Current path from rail to rail">
    <svg
      :viewBox="`0 0 ${layout.width} ${layout.height}`"
      :style="{ minWidth: `${Math.min(layout.width, suspicion ? 760 : 940)}px`, maxWidth: `${layout.width * 1.1}px` }"
    >
      <text v-for="column in layout.columns" :key="column.x" :x="column.x" y="16" class="heading">
        {{ column.name }}
      </text>
      <g v-for="node in layout.nodes.filter((entry) => entry.rail)" :key="node.id" class="rail">
        <line :x1="node.x" y1="34" :x2="node.x" :y2="layout.height - 8" />
        <line
          :x1="node.x + (node.x < layout.width / 2 ? -7 : 7)"
          y1="34"
          :x2="node.x + (node.x < layout.width / 2 ? -7 : 7)"
          :y2="layout.height - 8"
          class="thin"
        />
        <text
          :x="node.x < layout.width / 2 ? 4 : layout.width - 4"
          y="30"
          class="railname"
          :text-anchor="node.x < layout.width / 2 ? 'start' : 'end'"
        >
          {{ node.name }}
        </text>
      </g>
      <path
        v-for="drawn in layout.components"
        :key="drawn.component.id"
        :d="drawn.path"
        class="wire"
        :class="[
          { live: !suspicion && carries(drawn.component.id) },
          suspicion && grade(drawn.component.id) ? `suspect-${grade(drawn.component.id)}` : '',
        ]"
        :style="{ strokeWidth: widthOf(drawn.component.id) }"
      />
      <g
        v-for="node in layout.nodes.filter((entry) => !entry.rail)"
        :key="node.id"
        class="node"
        :class="{ probed: probes.includes(node.id), beyond: reachable && !reachable.has(node.id) }"
        role="button"
        tabindex="0"
        :aria-label="`Probe at ${node.name}${voltsAt(node.id) ? `, ${voltsAt(node.id)} V` : ''}`"
        @click="emit('probe', node.id)"
        @keydown.enter="emit('probe', node.id)"
      >
        <title>{{ node.name }}</title>
        <circle :cx="node.x" :cy="node.y" r="16" class="hit" />
        <circle :cx="node.x" :cy="node.y" :r="node.axle === null ? 5 : 11" />
        <text v-if="node.axle !== null" :x="node.x" :y="node.y + 4" class="axle">{{ node.axle }}</text>
        <text
          :x="node.x + (node.axle === null ? 5 : 0)"
          :y="node.y + (node.axle === null ? 17 : 23)"
          class="volts"
          :class="{ beside: node.axle === null }"
        >
          {{ voltsAt(node.id) }}
        </text>
        <text
          v-for="(line, index) in node.label"
          :key="index"
          :x="node.x"
          :y="node.y - 12 - (node.label.length - 1 - index) * 11"
          class="label-line"
        >
          {{ line }}
        </text>
        <text v-if="probes.includes(node.id)" :x="node.x" :y="node.y + (node.axle === null ? 31 : 35)" class="probe">
          {{ probes.indexOf(node.id) === 0 ? 'red' : 'black' }}
        </text>
      </g>
      <g
        v-for="drawn in layout.components"
        :key="drawn.component.id"
        class="component"
        :class="{ selected: selected === drawn.component.id }"
        :transform="`translate(${drawn.x},${drawn.y})`"
        role="button"
        tabindex="0"
        :aria-label="title(drawn.component.name, drawn.component.id)"
        @click="emit('select', drawn.component.id)"
        @keydown.enter="emit('select', drawn.component.id)"
      >
        <title>{{ title(drawn.component.name, drawn.component.id) }}</title>
        <rect x="-20" y="-17" width="40" height="34" class="hit" rx="3" />
        <circle
          v-if="suspicion && grade(drawn.component.id)"
          r="19"
          class="shade"
          :class="`shade-${grade(drawn.component.id)}`"
        />
        <CircuitSymbol
          :kind="drawn.component.kind"
          :state="states[drawn.component.id] ?? 'good'"
          :closed="closed(drawn.component.closedIn)"
        />
        <g
          v-if="suspicion && grade(drawn.component.id)"
          class="suspect"
          :class="`suspect-${grade(drawn.component.id)}`"
          transform="translate(0,-15)"
        >
          <path v-if="grade(drawn.component.id) === 'high'" d="M0,-9 L9,0 L0,9 L-9,0 Z" />
          <circle v-else-if="grade(drawn.component.id) === 'middle'" r="7.5" />
          <circle v-else r="4.5" class="hollow" />
          <text v-if="grade(drawn.component.id) !== 'low'" y="3.6">
            {{ Math.round(suspicionOf(drawn.component.id) * 100) }}
          </text>
        </g>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
svg {
  width: 100%;
  height: auto;
  display: block;
  margin: 0 auto;
}
.heading {
  font-size: 12px;
  fill: var(--soft);
  text-anchor: middle;
  font-weight: 550;
}
.rail line {
  stroke: var(--steel);
  stroke-width: 4;
}
.rail .thin {
  stroke-width: 1.5;
}
.railname {
  font-size: 12px;
  font-weight: 650;
  fill: var(--ink);
}
.wire {
  fill: none;
  stroke: var(--rule);
}
.wire.live {
  stroke: var(--green);
}
.node circle {
  fill: var(--sheet);
  stroke: var(--steel);
  stroke-width: 1.8;
}
.node,
.component {
  cursor: pointer;
  outline: none;
}
.hit {
  fill: transparent !important;
  stroke: transparent !important;
}
.node:hover circle:not(.hit),
.node:focus-visible circle:not(.hit) {
  stroke: var(--brass);
  stroke-width: 3;
}
.node.probed circle:not(.hit) {
  fill: var(--brass);
  stroke: var(--brass-ink);
}
.axle {
  font-size: 12px;
  font-family: var(--mono);
  text-anchor: middle;
  fill: var(--ink);
  font-weight: 600;
}
.label-line {
  font-size: 10.5px;
  text-anchor: middle;
  fill: var(--soft);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
/* Clear of a line that leaves the point downwards. */
.beside {
  text-anchor: start !important;
}
.volts {
  font-size: 11px;
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
  font-family: var(--mono);
  text-anchor: middle;
  fill: var(--soft);
}
.wire.suspect-high {
  stroke: var(--red);
  stroke-width: 4 !important;
}
.wire.suspect-middle {
  stroke: var(--amber);
  stroke-width: 3.2 !important;
}
.wire.suspect-low {
  stroke: var(--amber);
  stroke-dasharray: 5 4;
}
.shade {
  stroke: none;
}
.shade-high {
  fill: color-mix(in srgb, var(--red) 26%, transparent);
}
.shade-middle {
  fill: color-mix(in srgb, var(--amber) 24%, transparent);
}
.shade-low {
  fill: color-mix(in srgb, var(--amber) 10%, transparent);
}
.suspect path,
.suspect circle {
  fill: var(--red);
  stroke: var(--paper);
  stroke-width: 1.5;
}
.suspect-middle circle {
  fill: var(--amber-ink);
}
.suspect .hollow {
  fill: var(--paper);
  stroke: var(--amber-ink);
  stroke-width: 2;
}
.suspect text {
  font-size: 9.5px;
  font-family: var(--mono);
  font-weight: 700;
  fill: var(--paper);
  text-anchor: middle;
}
.node.beyond circle:not(.hit) {
  stroke-dasharray: 2.5 2.5;
}
.probe {
  font-size: 11px;
  font-weight: 650;
  text-anchor: middle;
  fill: var(--brass-ink);
}
.component:hover .hit,
.component:focus-visible .hit {
  stroke: var(--brass) !important;
  stroke-width: 1.5;
}
.component.selected .hit {
  stroke: var(--brass) !important;
  stroke-width: 2.5;
  fill: color-mix(in srgb, var(--brass) 18%, transparent) !important;
}
</style>
