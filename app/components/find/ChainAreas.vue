<script setup lang="ts">
import type { SearchReport } from '~~/core/diagnosis/report/search-report'
import type { Area } from '~~/core/knowledge/knowledge-schema'
import { suspicionGrade } from '~/drawing/suspicion-grade'

/** In which part of the chain something is wrong, from the rails to the wheels: the one question before which fault it is. */
const props = defineProps<{ areas: SearchReport['byArea'] }>()
const words: Readonly<Record<Area, string>> = {
  outside: 'Track',
  pickup: 'Pickup',
  wiring: 'Wiring',
  switch: 'Sequence switch',
  board: 'Board, decoder',
  motor: 'Motor',
  drive: 'Drive',
  'running-gear': 'Running gear',
  body: 'Body, lamps',
  assembly: 'Assembly',
}
const inOrder = Object.keys(words) as Area[]
const LEAST = 0.02
const shown = computed(() =>
  inOrder.flatMap((area) => props.areas.filter((entry) => entry.area === area && entry.chance >= LEAST)),
)
</script>

<template>
  <ol v-if="shown.length > 1" class="chain" aria-label="Where in the chain something is wrong">
    <li v-for="entry in shown" :key="entry.area" :class="suspicionGrade(entry.chance)">
      <span class="words">{{ words[entry.area] }}</span>
      <span class="figure">{{ Math.round(entry.chance * 100) }} %</span>
      <span class="bar" aria-hidden="true"><i :style="{ width: `${entry.chance * 100}%` }" /></span>
    </li>
  </ol>
</template>

<style scoped>
.chain {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(106px, 1fr));
  gap: 8px 2px;
}
.chain li {
  display: grid;
  grid-template-rows: 1fr auto auto;
  gap: 1px;
  min-width: 0;
}
.words {
  font-size: 0.92rem;
  color: var(--soft);
  align-self: end;
  padding-right: 8px;
}
.figure {
  font-size: 1.15rem;
  font-weight: 650;
}
.bar {
  height: 7px;
  background: var(--sunk);
}
.bar i {
  display: block;
  height: 100%;
  background: var(--steel);
}
.high .bar i {
  background: var(--red);
}
.middle .bar i {
  background: var(--amber);
}
.high .words,
.high .figure {
  color: var(--ink);
  font-weight: 650;
}
</style>
