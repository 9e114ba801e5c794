<script setup lang="ts">
import type { ComponentKind } from '~~/core/engine/description-schema'
import type { ClampDrawing, ClampPiece } from '~~/messages/measuring'

/** Where the clips go: the circuit between red and black in a row, and what leads on beside them, cut. */
const props = defineProps<{ drawing: ClampDrawing; red: string; black: string }>()
const STEP = 66
const EDGE = 58
const y = 40
const places = computed(() => props.drawing.through.map((piece, index) => ({ piece, x: EDGE + STEP * (index + 0.5) })))
const redX = EDGE - 8
const blackX = computed(() => EDGE + STEP * props.drawing.through.length + 8)
const width = computed(() => blackX.value + EDGE - 8)
const words: Readonly<Record<ComponentKind, string>> = {
  contact: 'contact',
  conductor: 'lead',
  insulation: 'insulation',
  brush: 'brush',
  commutator: 'gaps',
  winding: 'armature',
  field: 'field',
  lamp: 'lamp',
  capacitor: 'capacitor',
  resistor: 'resistor',
  choke: 'choke',
  switch: 'drum',
  relay: 'coil',
  decoder: 'decoder',
}
const named = (pieces: readonly ClampPiece[]): string => pieces.map((piece) => piece.name).join(', ')
const label = computed(
  () =>
    `Red to the ${props.red}, then ${props.drawing.through.map((piece) => words[piece.kind]).join(', ')}, black to the ${props.black}. Off: ${named([...props.drawing.cutAtRed, ...props.drawing.cutAtBlack]) || 'nothing'}.`,
)
</script>

<template>
  <svg :viewBox="`0 0 ${width} 84`" role="img" :aria-label="label" :style="{ maxWidth: `${width * 1.15}px` }">
    <template v-if="drawing.cutAtRed.length">
      <path class="off" :d="`M4,${y} H20 M32,${y} H${redX - 7}`" />
      <path class="cut" :d="`M21,${y - 7} L31,${y + 7} M31,${y - 7} L21,${y + 7}`" />
      <text class="word off-word" x="26" :y="y + 24" text-anchor="middle">off</text>
    </template>
    <template v-if="drawing.cutAtBlack.length">
      <path class="off" :d="`M${blackX + 7},${y} H${width - 32} M${width - 20},${y} H${width - 4}`" />
      <path class="cut" :d="`M${width - 31},${y - 7} l10,14 m0,-14 l-10,14`" />
      <text class="word off-word" :x="width - 26" :y="y + 24" text-anchor="middle">off</text>
    </template>
    <path class="wire" :d="`M${redX},${y} H${blackX}`" />
    <g v-for="{ piece, x } in places" :key="x" :transform="`translate(${x},${y})`">
      <title>{{ piece.name }}</title>
      <CircuitSymbol :kind="piece.kind" state="good" closed />
      <text class="word" y="28" text-anchor="middle">{{ words[piece.kind] }}</text>
    </g>
    <g class="clip clip--red">
      <circle :cx="redX" :cy="y" r="7" />
      <path :d="`M${redX},${y - 7} V14`" />
      <text :x="redX" y="10" text-anchor="middle">red</text>
    </g>
    <g class="clip clip--black">
      <circle :cx="blackX" :cy="y" r="7" />
      <path :d="`M${blackX},${y - 7} V14`" />
      <text :x="blackX" y="10" text-anchor="middle">black</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  height: auto;
}
.wire {
  stroke: var(--ink);
  stroke-width: 2.4;
}
.off {
  stroke: var(--steel);
  stroke-width: 2;
  stroke-dasharray: 4 3;
}
.cut {
  stroke: var(--amber);
  stroke-width: 2.4;
  stroke-linecap: round;
  fill: none;
}
.word {
  font-size: 12px;
  fill: var(--soft);
}
.off-word {
  fill: var(--amber-ink);
  font-weight: 650;
}
.clip {
  stroke-width: 3;
  fill: none;
}
.clip text {
  stroke: none;
  font-size: 12px;
  font-weight: 650;
}
.clip--red {
  stroke: var(--red);
}
.clip--red circle,
.clip--red text {
  fill: var(--red);
}
.clip--black {
  stroke: var(--ink);
}
.clip--black circle,
.clip--black text {
  fill: var(--ink);
}
</style>
