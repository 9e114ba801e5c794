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
  const described = computed(() =>
    describeEngine({
      type: book.value.type,
      adaptations: book.value.engine.adaptations,
      components: book.value.components,
      template: template.value,
      units: book.value.engine.units,
    }),
  )
  return { ready, described }
}
