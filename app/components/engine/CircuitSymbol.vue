<script setup lang="ts">
import type { ComponentKind, ComponentState } from '~~/core/engine/description-schema'

/** How far each sign reaches from its middle: from there its wire goes on to the edge of the cleared ground. */
const reach: Partial<Record<ComponentKind, number>> = {
  brush: 7,
  lamp: 9,
  resistor: 12,
  choke: 12,
  relay: 10,
  decoder: 10,
}

/** A component’s sign in the style of IEC 60617, and over it what is wrong with it: a sign as well as a colour. */
defineProps<{ kind: ComponentKind; state: ComponentState; closed: boolean }>()
</script>

<template>
  <g class="symbol" :class="`state-${state}`">
    <rect
      v-if="
        ['brush', 'resistor', 'choke', 'decoder', 'relay', 'lamp', 'winding', 'field', 'capacitor', 'switch'].includes(
          kind,
        )
      "
      class="ground"
      x="-15"
      y="-9"
      width="30"
      height="18"
    />
    <path v-if="reach[kind]" :d="`M-15,0 H${-(reach[kind] ?? 15)} M${reach[kind]},0 H15`" />
    <template v-if="kind === 'contact'"><path d="M-5,-6 L-1,0 L-5,6 M5,-6 L1,0 L5,6" /></template>
    <template v-else-if="kind === 'brush'"><rect x="-7" y="-6" width="14" height="12" class="solid" /></template>
    <template v-else-if="kind === 'winding' || kind === 'field'"
      ><path d="M-15,0 h2 a4,4 0 0 1 8,0 a4,4 0 0 1 8,0 a4,4 0 0 1 8,0 h3"
    /></template>
    <template v-else-if="kind === 'lamp'"
      ><circle r="9" class="sheet" /><path d="M-6.4,-6.4 L6.4,6.4 M-6.4,6.4 L6.4,-6.4"
    /></template>
    <template v-else-if="kind === 'capacitor'"><path d="M-15,0 H-3 M-3,-8 V8 M3,-8 V8 M3,0 H15" /></template>
    <template v-else-if="kind === 'resistor'"><rect x="-12" y="-5" width="24" height="10" class="sheet" /></template>
    <template v-else-if="kind === 'choke'"><rect x="-12" y="-5" width="24" height="10" class="solid" /></template>
    <template v-else-if="kind === 'relay'"
      ><rect x="-10" y="-8" width="20" height="16" class="sheet" /><path d="M-5,8 L5,-8"
    /></template>
    <template v-else-if="kind === 'decoder'"
      ><rect x="-10" y="-8" width="20" height="16" class="sheet" /><path d="M-5,-3 h10 M-5,1 h10 M-5,5 h6"
    /></template>
    <template v-else-if="kind === 'switch'"
      ><path :d="closed ? 'M-15,0 H15' : 'M-15,0 H-7 L6,-8 M8,0 H15'" /><circle cx="-7" r="2" class="solid" /><circle
        cx="8"
        r="2"
        class="solid"
    /></template>
    <template v-else><circle r="2.5" class="solid" /></template>
    <g v-if="state !== 'good'" class="fault" transform="translate(0,-13)">
      <circle r="8.5" />
      <path v-if="state === 'open'" d="M-3.5,-3.5 L3.5,3.5 M-3.5,3.5 L3.5,-3.5" />
      <path v-else-if="state === 'high-resistance'" d="M0,-4.5 V1 M0,3.2 V4.2" />
      <path v-else-if="state === 'shorted'" d="M-4,0 H4 M1.2,-2.8 L4,0 L1.2,2.8" />
      <path v-else d="M-4.5,0 q2.2,-5 4.5,0 t4.5,0" />
    </g>
  </g>
</template>

<style scoped>
.symbol {
  stroke: var(--ink);
  stroke-width: 1.8;
  fill: none;
  stroke-linecap: round;
}
.ground {
  fill: var(--paper);
  stroke: none;
}
.sheet {
  fill: var(--sheet);
}
.solid {
  fill: var(--ink);
}
.fault circle {
  fill: var(--red);
  stroke: var(--paper);
  stroke-width: 2;
}
.fault path {
  stroke: var(--paper);
  stroke-width: 2;
}
.state-high-resistance .fault circle,
.state-intermittent .fault circle {
  fill: var(--amber);
}
</style>
