<script setup lang="ts">
import type { EngineDescription } from '~~/core/engine/description-schema'
import { pickupMap, type PickupPoint } from '~~/core/engine/pickup-map'
import { trainLayout } from '~~/core/engine/train-layout'
import { TICK } from '~/drawing/verdict-signs'

/** The engine turned over in its cradle: which wheels touch which rail, and which of them bring current. */
const props = defineProps<{ description: EngineDescription }>()

const points = computed(() => pickupMap(props.description))
const starts = computed(() => new Map(trainLayout(props.description).map((unit) => [unit.unit, unit.startMm])))
const signs = computed(() =>
  Object.fromEntries(points.value.filter((point) => point.collects).map((point) => [point.id, TICK])),
)
const railNames = computed(() => ({
  plus: nodeName(props.description.rails.plus),
  minus: nodeName(props.description.rails.minus),
}))
const nodeName = (id: string): string => props.description.nodes.find((node) => node.id === id)?.name ?? id
const perRail = computed(() =>
  (['plus', 'minus'] as const).map((rail) => {
    const collecting = points.value.filter((point) => point.collects && point.rail === rail)
    const places = collecting.map((point) => (starts.value.get(point.unit) ?? 0) + point.xMm)
    return {
      rail,
      name: railNames.value[rail],
      count: collecting.length,
      spread: places.length > 0 ? Math.max(...places) - Math.min(...places) : 0,
    }
  }),
)
const idle = computed(
  () => points.value.filter((point) => !point.collects && point.component !== null && !point.tyre).length,
)
const title = (point: PickupPoint): string =>
  `${props.description.components.find((component) => component.id === point.component)?.name ?? 'Plastic wheel'}: ${point.collects ? 'collects' : point.tyre ? 'has a tyre' : 'does not collect'}`
</script>

<template>
  <div class="pickups">
    <EngineFromBelow :description="description" :signs="signs" :title="title" />
    <ul class="legend quiet">
      <li>
        <svg viewBox="-16 -10 32 20">
          <g class="collects">
            <rect x="-13" y="-8" width="26" height="16" rx="4" class="wheel" />
            <path d="M-5,0 L-1.5,4 L5.5,-4" class="tick" />
          </g></svg
        >collects
      </li>
      <li>
        <svg viewBox="-16 -10 32 20"><rect x="-13" y="-8" width="26" height="16" rx="4" class="wheel" /></svg>metal,
        leads nowhere
      </li>
      <li>
        <svg viewBox="-16 -10 32 20">
          <rect x="-13" y="-8" width="26" height="16" rx="4" class="wheel" />
          <rect x="-13" y="-3.5" width="26" height="7" class="tyre" /></svg
        >tyre: grips, does not collect
      </li>
      <li>
        <svg viewBox="-16 -10 32 20"><path d="M-14,-3 q14,9 28,0" class="wiper" /></svg>wiper or cup
      </li>
      <li>
        <svg viewBox="-16 -10 32 20">
          <line y1="-10" y2="10" class="axle" />
          <line x1="-6" x2="6" class="gap" /></svg
        >insulated from its axle
      </li>
    </ul>
    <div class="rails">
      <section v-for="entry in perRail" :key="entry.rail">
        <h3>{{ entry.name }}</h3>
        <p>
          <span class="numeral">{{ entry.count }}</span> {{ entry.count === 1 ? 'point collects' : 'points collect'
          }}<template v-if="entry.count > 1"
            >, <span class="figure">{{ entry.spread.toFixed(0) }} mm</span> from first to last</template
          >.
        </p>
        <p class="quiet">
          {{
            entry.count === 0
              ? 'Nothing brings current from it.'
              : entry.count === 1
                ? 'One speck of dirt, or any dead stretch, stops it.'
                : `While all of them touch it rides over a dead stretch of up to ${entry.spread.toFixed(0)} mm in this rail.`
          }}
        </p>
      </section>
      <section v-if="idle">
        <h3>Could collect</h3>
        <p>
          <span class="numeral">{{ idle }}</span> metal {{ idle === 1 ? 'wheel leads' : 'wheels lead' }} nowhere.
        </p>
        <p class="quiet">
          A wiper on one of them adds a point: note it under what this engine differs in, and the drawing follows.
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
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
.collects .wheel {
  fill: var(--green);
  stroke: var(--green);
}
.tyre {
  fill: var(--ink);
}
.tick {
  stroke: var(--on-green);
  stroke-width: 2.4;
  fill: none;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.wiper {
  stroke: var(--brass);
  stroke-width: 3;
  fill: none;
  stroke-linecap: round;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 22px;
  list-style: none;
  padding: 0;
  margin: 8px 0 18px;
}
.legend li {
  display: flex;
  align-items: center;
  gap: 8px;
}
.legend svg {
  width: 32px;
  height: 20px;
}
.rails {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: 24px;
}
.rails section {
  border-top: 3px solid var(--green);
  padding-top: 8px;
  display: grid;
  gap: 4px;
}
</style>
