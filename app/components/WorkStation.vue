<script setup lang="ts">
import type { JobBook } from '~~/messages/book'
import { stations, type StationId } from '~~/messages/vocabulary'

/** A station of handwork: its cautions, what is still to be done there, notes and minutes. */
const props = defineProps<{ book: JobBook; station: StationId }>()
const entry = computed(() => stations.find((candidate) => candidate.id === props.station))
const confirmed = computed(() => props.book.findings.filter((finding) => finding.state === 'confirmed'))
</script>

<template>
  <div class="work">
    <h2>{{ entry?.does }}</h2>
    <Cautions :station="station" />
    <section v-if="confirmed.length > 0">
      <h3>In mind while it is open</h3>
      <ul class="ruled-list">
        <li v-for="finding in confirmed" :key="finding.id"><FindingLine :finding="finding" /></li>
      </ul>
    </section>
    <StationNotes :book="book" :station="station" />
  </div>
</template>

<style scoped>
.work {
  display: grid;
  gap: 14px;
}
</style>
