<script setup lang="ts">
import { describeDue } from '~~/work/describe-due'
import type { JobTag } from '~~/messages/book'
import { stations } from '~~/messages/vocabulary'

const props = defineProps<{ tag: JobTag; compact?: boolean }>()
const stationIndex = computed(() => stations.findIndex((station) => station.id === props.tag.station))
const stationName = computed(() => stations[stationIndex.value]?.name ?? '')
const due = computed(() => describeDue(props.tag.dueOn, props.tag.state))
</script>

<template>
  <NuxtLink :to="`/jobs/${tag.id}/${tag.station}`" class="tag" :class="{ compact, care: due?.late }">
    <svg class="string" viewBox="0 0 38 34" aria-hidden="true">
      <path d="M33 31C27 12 15 2 1 3" fill="none" stroke="currentColor" stroke-width="1.5" />
    </svg>
    <div class="face">
      <div class="head">
        <span class="number numeral">{{ tag.number }}</span><span
          v-if="due"
          class="due"
          :class="due.late ? 'sign sign--fault' : due.soon ? 'sign sign--care' : ''"
          >{{ due.text }}</span
        >
      </div>
      <div class="engine">{{ tag.engineName }}</div>
      <div class="quiet line">
        <b>{{ tag.ownerName }}</b> · {{ tag.typeName }}
      </div>
      <p v-if="!compact" class="complaint">{{ tag.complaint }}</p>
      <div class="stops" aria-hidden="true">
        <i
          v-for="(station, index) in stations"
          :key="station.id"
          :class="{ passed: index < stationIndex, here: index === stationIndex }"
        />
      </div>
      <div class="foot">
        <span class="station">{{
          tag.state === 'waiting' && tag.waitingFor
            ? `Waiting: ${tag.waitingFor}`
            : tag.state === 'handed-back'
              ? 'Handed back'
              : stationName
        }}</span>
        <span v-if="tag.minutesUsed" class="minutes figure quiet"
          >{{ tag.minutesUsed }}<template v-if="tag.estimateMinutes">/{{ tag.estimateMinutes }}</template> min</span
        >
      </div>
    </div>
  </NuxtLink>
</template>

<style scoped>
.tag {
  position: relative;
  display: block;
  text-decoration: none;
  color: var(--ink);
  padding-top: 8px;
}
.string {
  position: absolute;
  left: -8px;
  top: -6px;
  width: 38px;
  height: 34px;
  color: var(--brass);
  z-index: 1;
}
.face {
  height: 100%;
  display: flex;
  flex-direction: column;
  background: var(--sheet);
  padding: 12px 16px 12px 22px;
  position: relative;
  clip-path: polygon(26px 0, 100% 0, 100% 100%, 0 100%, 0 26px);
  box-shadow: inset 0 0 0 1px var(--rule);
}
/* The cut corner's own edge, and the punched hole. */
.face::before {
  content: '';
  position: absolute;
  left: -1px;
  top: -1px;
  width: 27px;
  height: 27px;
  background: linear-gradient(
    135deg,
    transparent calc(50% - 0.7px),
    var(--rule) calc(50% - 0.7px),
    var(--rule) calc(50% + 0.8px),
    transparent calc(50% + 0.8px)
  );
}
.face::after {
  content: '';
  position: absolute;
  left: 20px;
  top: 12px;
  width: 11px;
  height: 11px;
  border-radius: 50%;
  background: var(--paper);
  box-shadow: inset 0 0 0 1.5px var(--brass);
}
.tag:hover .face {
  box-shadow: inset 0 0 0 2px var(--brass);
}
.tag:focus-visible {
  outline-offset: 4px;
}
.head {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 10px;
  padding-left: 22px;
}
.number {
  font-weight: 600;
  letter-spacing: -0.02em;
}
.due {
  font-size: 0.86rem;
  font-weight: 600;
  color: var(--soft);
  white-space: nowrap;
}
.due.sign--fault {
  color: var(--red);
}
.due.sign--care {
  color: var(--amber-ink);
}
.engine {
  font-weight: 650;
  font-size: 1.08rem;
  line-height: 1.25;
  margin-top: 2px;
}
.line {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.complaint {
  margin: 8px 0 10px;
  font-size: 0.95rem;
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
.line b {
  font-weight: 550;
  color: var(--ink);
}
.foot {
  display: flex;
  align-items: baseline;
  gap: 10px;
  padding-top: 5px;
  font-size: 0.9rem;
}
.station {
  font-weight: 600;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.minutes {
  margin-left: auto;
  white-space: nowrap;
}
/* The line in small: rails between the stops, full where the job has been. */
.stops {
  display: flex;
  align-items: center;
  justify-content: space-between;
  margin-top: auto;
  height: 12px;
  background: linear-gradient(var(--rule), var(--rule)) center / 100% 1px no-repeat;
}
.stops i {
  width: 7px;
  height: 7px;
  border-radius: 50%;
  border: 1.5px solid var(--rule);
  background: var(--sheet);
}
.stops i.passed {
  background: var(--steel);
  border-color: var(--steel);
}
.stops i.here {
  background: var(--brass);
  border-color: var(--brass);
  width: 12px;
  height: 12px;
}
.compact .engine {
  font-size: 1rem;
}
.compact .number {
  font-size: 24px;
}
</style>
