<script setup lang="ts">
import { atStart } from '~~/core/engine/name-in-sentence'
import type { JobBook } from '~~/messages/book'
import { showDay, showMoment } from '~~/work/describe-due'
import type { GatheredFinding } from '~~/work/gathered-findings'
import type { JobSearch } from '~~/work/search-history'

/** What counts in a search though nobody entered it there: told at take-in, measured on sheets, left by earlier jobs. */
const props = defineProps<{ search: JobSearch; earlier: JobBook['earlier'] }>()
const from: Readonly<Record<GatheredFinding['from'], string>> = {
  sheet: 'Test sheet',
  continuity: 'Continuity sheet',
  told: 'Told at take-in',
  counter: 'Seen at take-in',
}
/** Of two bogies alike it was said once. */
const gathered = computed(() => [
  ...new Map(props.search.gathered.map((found) => [`${found.from} ${found.words}`, found])).values(),
])
</script>

<template>
  <section v-if="earlier.length > 0" aria-label="From earlier jobs">
    <h2>From earlier jobs</h2>
    <p class="quiet">
      Found then and not mended. What came out of a search is taken as still so until it is mended or ruled out here.
    </p>
    <ul class="ruled-list">
      <li v-for="row in earlier" :key="row.findingId">
        <span class="label"
          >{{ row.state === 'left' ? 'Left' : 'Declined' }}, job
          <NuxtLink :to="`/jobs/${row.jobId}`">{{ row.jobNumber }}</NuxtLink></span
        ><span
          >{{ [row.what, row.place].filter(Boolean).join(', ')
          }}<template v-if="search.earlier.includes(row)">
            <span class="quiet">(counts in the search)</span></template
          ></span
        ><span class="quiet">{{ showDay(row.handedBackAt) }}</span>
      </li>
    </ul>
  </section>
  <section v-if="gathered.length > 0" aria-label="Told and measured">
    <h2>Told and measured</h2>
    <ul class="ruled-list">
      <li v-for="found in gathered" :key="found.id">
        <span class="label">{{ from[found.from] }}</span><span>{{
          atStart(found.words.replace('Test sheet: ', ''))
        }}</span
        ><span class="quiet">{{ showMoment(found.at) }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 150px 1fr max-content;
  gap: 12px;
  align-items: baseline;
}
@media (max-width: 600px) {
  li {
    grid-template-columns: 1fr;
    gap: 0;
  }
}
</style>
