<script setup lang="ts">
import type { EngineDescription } from '~~/core/engine/description-schema'
import { DRAWING, layOutParts, type PartShape } from '~/drawing/engine-parts-layout'
import { layOutFromBelow, seenFromBelow } from '~/drawing/parts-from-below'

/** This engine from the side or from below, drawn from its description: what is off is an outline, the thing in hand is marked with its way out. */
const props = defineProps<{
  description: EngineDescription
  off: ReadonlySet<string>
  inHand: string | null
  title: string
  /** On the way back the arrow points home. */
  back?: boolean
  /** Nothing is moved: no arrow, and no other side of it. */
  still?: boolean
  /** More that is marked with the thing in hand. */
  lit?: ReadonlySet<string>
  /** Numbers put on parts. */
  marks?: ReadonlyArray<{
    readonly part: string
    readonly text: string
    readonly kind: 'now' | 'open' | 'done' | 'none'
  }>
}>()
/** The unit the thing in hand belongs to; all of them while nothing is. */
const unit = computed(() => props.description.parts.find((part) => part.id === props.inHand)?.unit ?? null)
const unitName = computed(() =>
  props.description.units.length > 1
    ? (props.description.units.find((entry) => entry.id === unit.value)?.name ?? '')
    : '',
)
/** Said by hand; by itself it shows the side the thing in hand is worked at. */
const turned = ref<boolean | null>(null)
watch(
  () => props.inHand,
  () => {
    turned.value = null
  },
)
const fromBelow = computed(() => {
  if (props.still || props.marks !== undefined) return turned.value === true
  const kind = props.description.parts.find((part) => part.id === props.inHand)?.kind
  return turned.value ?? (kind !== undefined && seenFromBelow.has(kind))
})
const shapes = computed(() => (fromBelow.value ? layOutFromBelow : layOutParts)(props.description, unit.value))
const held = computed(
  () => shapes.value.find((shape) => props.inHand !== null && shape.parts.includes(props.inHand)) ?? null,
)
/** From below a thing lies in several places: an axle with its two wheels. */
const isHeld = (shape: PartShape): boolean =>
  shape === held.value || (fromBelow.value && props.inHand !== null && shape.parts.includes(props.inHand))
const isLit = (shape: PartShape): boolean => props.lit !== undefined && shape.parts.some((part) => props.lit?.has(part))
/** Marks stand on their shape; several on one stand side by side. */
const placed = computed(() => {
  const taken = new Map<string, number>()
  return (props.marks ?? []).flatMap((mark) => {
    const shape = shapes.value.find((entry) => entry.parts.includes(mark.part))
    if (!shape) return []
    const count = taken.get(shape.key) ?? 0
    taken.set(shape.key, count + 1)
    const { x, y, width, height } = shape.shape
    const row = Math.floor(count / MARKS_IN_ROW)
    const column = count % MARKS_IN_ROW
    return [{ ...mark, x: x + width / 2 + column * MARK_STEP, y: y + height / 2 + row * MARK_STEP }]
  })
})
const MARKS_IN_ROW = 3
const MARK_STEP = 56
const isOff = (shape: PartShape): boolean => shape.parts.every((part) => props.off.has(part))
const some = (shape: PartShape): boolean => !isOff(shape) && shape.parts.some((part) => props.off.has(part))
const lidOff = computed(() =>
  shapes.value.filter((shape) => shape.layer === 'lid' && shape.shape.height > 40).every(isOff),
)
const shown = (shape: PartShape): boolean =>
  fromBelow.value ||
  shape.layer !== 'inside' ||
  lidOff.value ||
  shape === held.value ||
  isLit(shape) ||
  props.marks !== undefined
const arrow = computed(() => {
  const found = held.value
  if (!found) return ''
  const { x, y, width, height } = found.shape
  const [cx, cy] = [x + width / 2, y + height / 2]
  const home = props.back === true
  if (found.out === 'up')
    return home ? `M${cx},${y - 36} v26 m-9,-11 l9,11 l9,-11` : `M${cx},${y - 6} v-28 m-9,11 l9,-11 l9,11`
  if (found.out === 'down')
    return home
      ? `M${cx},${y + height + 32} v-24 m-9,11 l9,-11 l9,11`
      : `M${cx},${y + height + 6} v24 m-9,-11 l9,11 l9,-11`
  return home ? `M${x + width + 34},${cy} h-26 m11,-9 l-11,9 l11,9` : `M${x + width + 6},${cy} h26 m-11,-9 l11,9 l-11,9`
})
</script>

<template>
  <div class="both">
    <svg :viewBox="`0 0 ${DRAWING.width} ${DRAWING.height}`" role="img" :aria-label="title" class="engine">
      <text v-if="unitName" x="20" y="26" class="unit">{{ unitName }}</text>
      <line v-if="!fromBelow" x1="0" :x2="DRAWING.width" :y1="DRAWING.railY" :y2="DRAWING.railY" class="rail" />
      <g
        v-for="shape in shapes"
        :key="shape.key"
        :class="[
          shape.layer,
          { off: isOff(shape), some: some(shape), held: isHeld(shape) || isLit(shape), hidden: !shown(shape) },
        ]"
      >
        <title>{{ shape.label }}</title>
        <rect
          v-if="shape.shape.kind === 'box'"
          :x="shape.shape.x"
          :y="shape.shape.y"
          :width="shape.shape.width"
          :height="shape.shape.height"
          rx="4"
        />
        <template v-else>
          <circle
            :cx="shape.shape.x + shape.shape.width / 2"
            :cy="shape.shape.y + shape.shape.height / 2"
            :r="shape.shape.width / 2"
          />
          <circle
            :cx="shape.shape.x + shape.shape.width / 2"
            :cy="shape.shape.y + shape.shape.height / 2"
            r="3"
            class="hub"
          />
        </template>
      </g>
      <path v-if="held && !still" :d="arrow" class="out" />
      <g v-for="(mark, index) in placed" :key="index" class="mark" :class="mark.kind">
        <circle :cx="mark.x" :cy="mark.y" :r="mark.kind === 'none' ? 16 : 25" />
        <text :x="mark.x" :y="mark.y + (mark.kind === 'none' ? 7 : 10)" text-anchor="middle">{{ mark.text }}</text>
      </g>
    </svg>
    <button v-if="!still" type="button" class="plain turn" @click="turned = !fromBelow">
      {{ fromBelow ? 'From the side' : 'From below' }}
    </button>
  </div>
</template>

<style scoped>
.both {
  position: relative;
}
.turn {
  position: absolute;
  right: 0;
  top: -20px;
  font-size: 0.86rem;
}
.engine {
  display: block;
  width: 100%;
  height: auto;
}
.unit {
  font: 600 26px var(--text);
  fill: var(--soft);
}
.rail {
  stroke: var(--steel);
  stroke-width: 3;
}
g rect,
g circle {
  fill: var(--sheet);
  stroke: var(--steel);
  stroke-width: 1.6;
}
.lid rect {
  fill: none;
}
.inside rect {
  fill: var(--sunk);
}
.hub {
  fill: var(--steel);
}
.off rect,
.off circle {
  fill: none;
  stroke: var(--rule);
  stroke-dasharray: 5 5;
}
.some rect,
.some circle {
  stroke-dasharray: 12 3;
}
.hidden {
  display: none;
}
.held rect,
.held circle {
  stroke: var(--brass);
  stroke-width: 4;
  stroke-dasharray: none;
}
.held .hub {
  fill: var(--brass);
  stroke: none;
}
.mark circle {
  fill: var(--paper);
  stroke: var(--steel);
  stroke-width: 2;
}
.mark text {
  font: 700 28px var(--mono);
  fill: var(--ink);
}
.mark.now circle {
  fill: var(--brass);
  stroke: var(--brass);
}
.mark.now text {
  fill: #1d1405;
}
.mark.done circle {
  stroke: var(--sound);
  stroke-width: 3;
}
.mark.done text {
  fill: var(--sound-ink);
}
.mark.none circle {
  stroke: var(--red);
}
.mark.none text {
  font-size: 22px;
  fill: var(--red);
}
.out {
  fill: none;
  stroke: var(--brass);
  stroke-width: 4;
  stroke-linecap: round;
  stroke-linejoin: round;
}
</style>
