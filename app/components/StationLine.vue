<script setup lang="ts">
import { stations, type StationId } from '~~/messages/vocabulary'

/** The stations as stops on a line; one may get off anywhere and go back. */
const props = defineProps<{
  jobId: string
  reached: StationId
  shown: StationId
  open: Partial<Record<StationId, number>>
  closed?: boolean
  slim?: boolean
}>()
const reachedIndex = computed(() => stations.findIndex((station) => station.id === props.reached))
const line = ref<HTMLElement>()

onMounted(() => showCurrent())
watch(
  () => props.shown,
  () => nextTick(showCurrent),
)
function showCurrent(): void {
  const stop = line.value?.querySelector<HTMLElement>('.shown')
  if (stop && line.value) line.value.scrollLeft = stop.offsetLeft - line.value.clientWidth / 2 + stop.clientWidth / 2
}
</script>

<template>
  <nav ref="line" class="line" :class="{ slim }" aria-label="Stations of this job">
    <ol>
      <li
        v-for="(station, index) in stations"
        :key="station.id"
        :class="{
          passed: index < reachedIndex || closed,
          here: index === reachedIndex && !closed,
          shown: station.id === shown,
        }"
      >
        <NuxtLink :to="`/jobs/${jobId}/${station.id}`" :aria-current="station.id === shown ? 'step' : undefined">
          <span class="stop"
            ><span v-if="open[station.id]" class="open">{{ open[station.id] }}</span></span
          >
          <span class="name">{{ station.name }}</span>
        </NuxtLink>
      </li>
    </ol>
  </nav>
</template>

<style scoped>
.line {
  overflow-x: auto;
  scrollbar-width: none;
  padding: 2px 0;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(10, minmax(70px, 1fr));
  min-width: 700px;
}
li {
  position: relative;
}
/* Two thin rails between the stops, full where the job has been. */
li + li::before {
  content: '';
  position: absolute;
  left: calc(-50% + 15px);
  right: calc(50% + 15px);
  top: 19px;
  height: 5px;
  border-top: 1.5px solid var(--rule);
  border-bottom: 1.5px solid var(--rule);
}
li.passed + li::before {
  border-color: var(--steel);
}
a {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 4px;
  padding: 8px 2px 8px;
  text-decoration: none;
  color: var(--soft);
  min-height: 60px;
}
/* The line scrolls sideways and would cut a ring around it. */
a:focus-visible {
  outline-offset: -3px;
}
.slim a {
  min-height: var(--target);
  padding: 4px 2px;
  gap: 0;
}
.slim li + li::before {
  top: 11px;
}
.slim .stop {
  width: 19px;
  height: 19px;
}
.slim .open {
  width: 13px;
  height: 13px;
  font-size: 0.66rem;
}
.slim .name {
  font-size: 0.8rem;
}
.stop {
  width: 27px;
  height: 27px;
  border-radius: 50%;
  border: 2px solid var(--rule);
  background: var(--paper);
  display: grid;
  place-items: center;
}
.passed .stop {
  border-color: var(--steel);
  background: var(--steel);
  box-shadow: inset 0 0 0 4px var(--paper);
}
.here .stop {
  border-color: var(--brass);
  background: var(--brass);
  box-shadow: inset 0 0 0 3px var(--paper);
}
.open {
  font: 700 0.78rem var(--mono);
  color: var(--ink);
  background: var(--paper);
  border-radius: 50%;
  width: 19px;
  height: 19px;
  display: grid;
  place-items: center;
}
.name {
  font-size: 0.88rem;
  font-weight: 550;
  white-space: nowrap;
  padding-bottom: 1px;
  border-bottom: 3px solid transparent;
}
.shown .name {
  color: var(--ink);
  font-weight: 700;
  border-bottom-color: var(--brass);
}
a:hover .name {
  color: var(--ink);
}
</style>
