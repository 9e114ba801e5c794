<script setup lang="ts">
import { TRAIT, type TraitDrawing } from '~/drawing/trait-drawings'

/** A small drawing of one answer: brass is what it is about. */
defineProps<{ drawing: TraitDrawing }>()
</script>

<template>
  <svg :viewBox="`0 0 ${TRAIT.width} ${TRAIT.height}`" aria-hidden="true">
    <line v-if="drawing.view === 'side'" x1="0" :x2="TRAIT.width" :y1="TRAIT.railY" :y2="TRAIT.railY" class="rail" />
    <template v-else>
      <line x1="0" :x2="TRAIT.width" y1="14" y2="14" class="rail" />
      <line x1="0" :x2="TRAIT.width" y1="52" y2="52" class="rail" />
    </template>
    <rect
      v-for="(entry, index) in drawing.boxes"
      :key="`b${index}`"
      v-bind="shape(entry)"
      rx="2"
      :class="{ marked: entry.marked }"
    />
    <path
      v-for="(entry, index) in drawing.lines"
      :key="`l${index}`"
      :d="entry.path"
      :class="{ marked: entry.marked }"
    />
    <circle
      v-for="(entry, index) in drawing.wheels"
      :key="`w${index}`"
      :cx="entry.x"
      :cy="entry.y"
      :r="entry.r"
      :class="{ marked: entry.marked }"
    />
  </svg>
</template>

<script lang="ts">
const shape = ({ x, y, width, height }: TraitDrawing['boxes'][number]) => ({ x, y, width, height })
</script>

<style scoped>
svg {
  display: block;
  width: 100%;
  height: auto;
}
.rail {
  stroke: var(--steel);
  stroke-width: 1.5;
}
rect,
circle {
  fill: var(--sheet);
  stroke: var(--steel);
  stroke-width: 1.2;
}
path {
  fill: none;
  stroke: var(--steel);
  stroke-width: 1.2;
}
rect.marked,
circle.marked {
  fill: var(--brass);
  stroke: var(--brass-ink);
  stroke-width: 1.6;
}
path.marked {
  stroke: var(--brass-ink);
  stroke-width: 2.4;
  stroke-linecap: round;
}
</style>
