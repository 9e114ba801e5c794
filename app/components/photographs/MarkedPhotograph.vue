<script setup lang="ts">
import type { PhotographMark } from '~~/messages/photograph-entries'

/** A photograph with its rings and arrows; with a shape in hand, a drag over it puts one more. */
const props = defineProps<{
  id: string
  alt: string
  width: number
  height: number
  marks: readonly PhotographMark[]
  drawing: PhotographMark['shape'] | null
}>()
const emit = defineEmits<{ drawn: [mark: PhotographMark] }>()

const frame = ref<SVGSVGElement>()
const begun = ref<{ x: number; y: number } | null>(null)
const at = ref({ x: 0, y: 0 })
/** Lines as thick on a large picture as on a small one. */
const unit = computed(() => props.width / 100)
/** A tap without a drag makes a ring of this share of the width. */
const USUAL_RING = 0.08
const clamp = (value: number): number => Math.min(1, Math.max(0, value))

function place(event: PointerEvent): { x: number; y: number } {
  const box = frame.value?.getBoundingClientRect()
  if (!box) return { x: 0, y: 0 }
  return { x: clamp((event.clientX - box.left) / box.width), y: clamp((event.clientY - box.top) / box.height) }
}
function begin(event: PointerEvent): void {
  if (!props.drawing) return
  frame.value?.setPointerCapture(event.pointerId)
  begun.value = place(event)
  at.value = begun.value
}
function move(event: PointerEvent): void {
  if (begun.value) at.value = place(event)
}
const growing = computed<PhotographMark | null>(() => {
  const { drawing } = props
  if (!begun.value || !drawing) return null
  const from = begun.value
  const dragged = Math.hypot(at.value.x - from.x, at.value.y - from.y) > 0.015
  // A ring grows from its middle; an arrow is drawn towards the spot it points at.
  if (drawing === 'ring') {
    const to = dragged ? at.value : { x: clamp(from.x + USUAL_RING), y: from.y }
    return { shape: 'ring', ...from, toX: to.x, toY: to.y, words: '' }
  }
  return { shape: 'arrow', ...at.value, toX: from.x, toY: from.y, words: '' }
})
function end(): void {
  const mark = growing.value
  begun.value = null
  if (mark && !(mark.shape === 'arrow' && mark.x === mark.toX && mark.y === mark.toY)) emit('drawn', mark)
}
const shown = computed(() => [...props.marks, ...(growing.value ? [growing.value] : [])])
const px = (share: number): number => share * props.width
const py = (share: number): number => share * props.height
const radius = (mark: PhotographMark): number => Math.hypot(px(mark.toX - mark.x), py(mark.toY - mark.y))
/** The two barbs of an arrow's head. */
function head(mark: PhotographMark): string {
  const [x, y] = [px(mark.x), py(mark.y)]
  const away = Math.atan2(py(mark.toY) - y, px(mark.toX) - x)
  const barb = (turn: number): string =>
    `${x + Math.cos(away + turn) * 3.4 * unit.value} ${y + Math.sin(away + turn) * 3.4 * unit.value}`
  return `M${barb(0.5)}L${x} ${y}L${barb(-0.5)}`
}
const wordsAt = (mark: PhotographMark): { x: number; y: number } =>
  mark.shape === 'ring'
    ? { x: px(mark.x), y: Math.max(4 * unit.value, py(mark.y) - radius(mark) - 1.4 * unit.value) }
    : { x: px(mark.toX), y: py(mark.toY) + (mark.toY > mark.y ? 4 : -1.4) * unit.value }
</script>

<template>
  <figure class="picture">
    <img :src="`/api/photographs/${id}`" :alt="alt" :width="width" :height="height" />
    <svg
      ref="frame"
      :viewBox="`0 0 ${width} ${height}`"
      :class="{ drawing }"
      aria-hidden="true"
      @pointerdown="begin"
      @pointermove="move"
      @pointerup="end"
      @pointercancel="begun = null"
    >
      <g
        v-for="(mark, index) in shown"
        :key="index"
        fill="none"
        stroke-linecap="round"
        stroke-linejoin="round"
        :stroke-width="unit * 0.7"
      >
        <template v-for="layer in ['under', 'over']" :key="layer">
          <circle v-if="mark.shape === 'ring'" :class="layer" :cx="px(mark.x)" :cy="py(mark.y)" :r="radius(mark)" />
          <path
            v-else
            :class="layer"
            :d="`M${px(mark.toX)} ${py(mark.toY)}L${px(mark.x)} ${py(mark.y)}${head(mark)}`"
          />
        </template>
        <text v-if="mark.words" v-bind="wordsAt(mark)" text-anchor="middle" :font-size="unit * 3.2">
          {{ mark.words }}
        </text>
      </g>
    </svg>
  </figure>
</template>

<style scoped>
.picture {
  position: relative;
  margin: 0 auto;
  line-height: 0;
  width: fit-content;
}
img {
  max-width: 100%;
  max-height: 62vh;
  width: auto;
  height: auto;
  display: block;
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
svg.drawing {
  cursor: crosshair;
  touch-action: none;
}
.under {
  stroke: #14181b;
  stroke-width: calc(v-bind(unit) * 1.5px);
  opacity: 0.75;
}
.over {
  stroke: #ffd777;
}
text {
  fill: #fff8e6;
  stroke: #14181b;
  stroke-width: 0.9em;
  paint-order: stroke;
  stroke-width: calc(v-bind(unit) * 0.8px);
  font-weight: 700;
}
</style>
