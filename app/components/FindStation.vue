<script setup lang="ts">
import type { JobBook } from '~~/messages/book'

/** The station where the fault gets a name: the search itself, the meter wheel by wheel, and the pass over dead track. */
const props = defineProps<{ book: JobBook }>()
type FindView = 'search' | 'wheels' | 'stall'
const views: ReadonlyArray<readonly [FindView, string]> = [
  ['search', 'Search'],
  ['wheels', 'Wheel by wheel'],
  ['stall', 'Over dead track'],
]
const route = useRoute()
const router = useRouter()
const view = computed<FindView>(() => views.find(([id]) => id === route.query.view)?.[0] ?? 'search')
const show = (to: FindView): void => void router.replace({ query: to === 'search' ? {} : { view: to } })
useBenchKeys([
  { key: 's', label: 'The search', run: () => show('search') },
  { key: 'w', label: 'Continuity wheel by wheel', run: () => show('wheels') },
  { key: 'd', label: 'Over dead track', run: () => show('stall') },
])

const { ready, described } = useDescribedEngine(computed(() => props.book))
</script>

<template>
  <div class="station-find">
    <nav class="views" aria-label="Ways to find it">
      <button
        v-for="[id, name] in views"
        :key="id"
        type="button"
        :aria-current="view === id ? 'page' : undefined"
        :class="{ on: view === id }"
        @click="show(id)"
      >
        {{ name }} <kbd>{{ id === 'search' ? 'S' : id === 'wheels' ? 'W' : 'D' }}</kbd>
      </button>
    </nav>
    <template v-if="ready">
      <LazyContinuitySheet
        v-if="view === 'wheels'"
        :book="book"
        :description="described.description"
        @leave="show('search')"
      />
      <LazyStallRisk v-else-if="view === 'stall'" :book="book" :description="described.description" />
      <LazyFaultSearch
        v-else
        :book="book"
        :description="described.description"
        :generic="described.generic"
        @wheels="show('wheels')"
      />
    </template>
    <StationNotes :book="book" station="find" />
  </div>
</template>

<style scoped>
.station-find {
  display: grid;
  gap: 16px;
  min-width: 0;
  grid-template-columns: minmax(0, 1fr);
}
.views {
  display: flex;
  gap: 4px 26px;
  flex-wrap: wrap;
  border-bottom: 1px solid var(--rule);
}
.views button {
  min-height: var(--target);
  font-weight: 600;
  color: var(--soft);
}
@media (max-width: 600px) {
  .views {
    gap: 0 18px;
  }
  .views kbd {
    display: none;
  }
}
.views .on {
  color: var(--ink);
  box-shadow: inset 0 -3px 0 var(--brass);
}
</style>
