import type { EngineBook, JobBook } from '~~/messages/book'
import { describeEngine } from '~~/work/describe-engine'

/** The description of a job's engine; a construction of the shop's own is fetched, not being part of the job's book. */
export function useDescribedEngine(book: ComputedRef<JobBook>) {
  const template = shallowRef<EngineBook['template']>(null)
  watch(
    () => book.value.type.templateId,
    async (id) => {
      template.value = id === null ? null : (await $fetch<EngineBook>(`/api/engines/${book.value.engine.id}`)).template
    },
    { immediate: true },
  )
  const ready = computed(() => book.value.type.templateId === null || template.value !== null)
  // One by one: a key at another station leaves the description the very same, and what hangs on it undone.
  const type = computed(() => book.value.type)
  const adaptations = computed(() => book.value.engine.adaptations)
  const components = computed(() => book.value.components)
  const units = computed(() => book.value.engine.units)
  const described = computed(() =>
    describeEngine({
      type: type.value,
      adaptations: adaptations.value,
      components: components.value,
      template: template.value,
      units: units.value,
    }),
  )
  return { ready, described }
}
