<script setup lang="ts">
import { atStart } from '~~/core/engine/name-in-sentence'
import type { SuspectReport } from '~~/core/diagnosis/report/search-report'

/** What is mended at one go, with what comes off for it and what to take care of. */
const props = defineProps<{
  repairs: readonly SuspectReport[]
  why: string
  partName: (id: string) => string
  mayWrite: boolean
}>()
defineEmits<{ mended: []; confirm: [suspect: SuspectReport]; another: [] }>()
const takesOff = computed(() => [...new Set(props.repairs.flatMap((suspect) => suspect.takesOff))])
const cautions = computed(() => [...new Set(props.repairs.map(({ remedy }) => remedy.caution).filter(Boolean))])
/** Nobody has seen it yet: it can be said to be so without mending it. */
const unseen = computed(() => {
  const [only, ...others] = props.repairs
  return only && others.length === 0 && !only.confirmed ? only : null
})
</script>

<template>
  <article class="card" aria-label="Mend now">
    <span class="label">Mend now</span>
    <h2>{{ repairs[0]?.remedy.words }}</h2>
    <p>{{ why }}</p>
    <ul class="mends">
      <li v-for="suspect in repairs" :key="suspect.id">
        <b>{{ atStart(suspect.words) }}</b><span>{{ suspect.remedy.words }}</span
        ><span class="figure quiet">{{ Math.round(suspect.totalMinutes) }} min</span>
      </li>
    </ul>
    <p v-if="takesOff.length > 0" class="quiet">Comes off for it: {{ takesOff.map(partName).join(', ') }}.</p>
    <p v-for="caution in cautions" :key="caution" class="sign sign--care">{{ caution }}</p>
    <div v-if="mayWrite" class="acts">
      <v-btn size="large" color="primary" @click="$emit('mended')">{{
        repairs.length > 1 ? 'All mended, now one run' : 'Mended, now one run'
      }}</v-btn><v-btn v-if="unseen" size="large" variant="outlined" @click="$emit('confirm', unseen)">It is so</v-btn
      ><v-btn size="large" variant="outlined" @click="$emit('another')">Look on instead <kbd>A</kbd></v-btn>
    </div>
  </article>
</template>

<style scoped>
.mends {
  list-style: none;
  margin: 0;
  padding: 0;
}
.mends li {
  display: grid;
  grid-template-columns: 1.4fr 1.2fr max-content;
  gap: 14px;
  padding: 5px 0;
  border-top: 1px solid var(--rule);
}
.acts {
  display: flex;
  gap: 12px;
  flex-wrap: wrap;
  margin-top: 6px;
}
</style>
