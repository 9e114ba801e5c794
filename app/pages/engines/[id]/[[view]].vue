<script setup lang="ts">
import { findScale } from '~~/core/measure/scales'
import type { EngineBook } from '~~/messages/book'
import { engineBookWith } from '~~/messages/changes'
import { describeEngine } from '~~/work/describe-engine'
import { engineName } from '~~/work/engine-name'

/** One engine: what it is, its current path, its drive, its pickups and its parts, all from one description. */
definePageMeta({ key: (route) => `engine-${String(route.params.id)}` })
const route = useRoute()
const router = useRouter()
const id = computed(() => String(route.params.id))
const { book, failure } = useShopBook<EngineBook>({
  address: () => `/api/engines/${id.value}`,
  put: engineBookWith,
  // A construction of the shop's own comes with the book of the engine.
  readsAnew: (before, after) => before !== null && after?.type.templateId !== before.type.templateId,
})

const views = [
  { id: '', name: 'Engine' },
  { id: 'path', name: 'Current path' },
  { id: 'drive', name: 'Drive' },
  { id: 'pickups', name: 'Pickups' },
  { id: 'parts', name: 'Parts and way in' },
  { id: 'motor', name: 'Motor over the years' },
  { id: 'known', name: 'What we know' },
] as const
const view = computed(() => views.find((entry) => entry.id === String(route.params.view ?? '')) ?? views[0])
const addressOf = (name: string): string => `/engines/${id.value}${name ? `/${name}` : ''}`
const described = computed(() =>
  book.value
    ? describeEngine({
        type: book.value.type,
        adaptations: book.value.engine.adaptations,
        components: book.value.components,
        template: book.value.template,
        units: book.value.engine.units,
      })
    : null,
)
const scaleRatio = computed(() =>
  book.value?.type.scaleId ? (findScale(book.value.type.scaleId)?.ratio ?? null) : null,
)

const openJob = computed(() => book.value?.jobs.find((job) => job.state === 'open' || job.state === 'waiting'))
const nextLabel = computed(() => (openJob.value ? `Go on with job ${openJob.value.number}` : 'Take it in'))
useNextAction({
  label: nextLabel,
  run: () =>
    void router.push(
      openJob.value ? `/jobs/${openJob.value.id}/${openJob.value.station}` : `/take-in?engine=${id.value}`,
    ),
  back: () => void router.push(view.value.id ? addressOf('') : '/engines'),
})
</script>

<template>
  <div class="page">
    <p v-if="failure" class="sign sign--care" role="alert">{{ failure }}</p>
    <template v-if="book && described">
      <div class="page-head">
        <div>
          <h1>{{ engineName(book.engine, book.type) }}</h1>
          <p class="quiet">
            {{ book.type.maker }} {{ book.type.name
            }}<template v-if="book.engine.runningNumber"> · no. {{ book.engine.runningNumber }}</template> ·
            <NuxtLink :to="`/owners/${book.owner.id}`">{{ book.owner.name }}</NuxtLink>
          </p>
        </div>
      </div>
      <nav class="views" aria-label="Views of this engine">
        <NuxtLink
          v-for="entry in views"
          :key="entry.id"
          :to="addressOf(entry.id)"
          :aria-current="entry.id === view.id ? 'page' : undefined"
          >{{ entry.name }}</NuxtLink
        >
      </nav>
      <p v-if="described.generic && view.id" class="sign sign--care generic">
        Nobody has said how this type is made: what follows is a generic machine’s.
      </p>
      <EngineFacts v-if="view.id === ''" :book="book" :described="described" />
      <EnginePathView
        v-else-if="view.id === 'path'"
        :description="described.description"
        :nominal-volts="book.type.nominalVolts"
        :scale-ratio="scaleRatio"
      />
      <EngineDriveView
        v-else-if="view.id === 'drive'"
        :description="described.description"
        :nominal-volts="book.type.nominalVolts"
        :scale-ratio="scaleRatio"
      />
      <EnginePickupsView v-else-if="view.id === 'pickups'" :description="described.description" />
      <EngineMotorView v-else-if="view.id === 'motor'" :engine-id="book.engine.id" />
      <LazyEngineKnowledgeView v-else-if="view.id === 'known'" :book="book" :description="described.description" />
      <EnginePartsView v-else :description="described.description" />
    </template>
    <NextBar />
  </div>
</template>

<style scoped>
.views {
  display: flex;
  gap: 6px;
  border-bottom: 1px solid var(--rule);
  margin-bottom: 18px;
  overflow-x: auto;
}
.views a {
  color: var(--soft);
  text-decoration: none;
  font-weight: 600;
  padding: 0 14px;
  min-height: var(--target);
  display: flex;
  align-items: center;
  white-space: nowrap;
  border-bottom: 3px solid transparent;
}
.views a[aria-current] {
  color: var(--ink);
  border-color: var(--brass);
}
.generic {
  margin-bottom: 12px;
}
@media (max-width: 900px) {
  .views {
    flex-wrap: wrap;
    gap: 0;
    margin-left: -6px;
  }
  .views a {
    padding: 0 6px;
  }
}
</style>
