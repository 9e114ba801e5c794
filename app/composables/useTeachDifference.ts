import type { Difference } from '~~/core/engine/difference-schema'
import type { JobBook } from '~~/messages/book'

/** What this example, or every one of its type, has taught: a difference, with no file to write. */
export function useTeachDifference(book: Ref<JobBook>) {
  const outbox = useOutbox()
  return async (difference: Difference, scope: 'engine' | 'type'): Promise<void> => {
    const { engine, type } = book.value
    if (scope === 'engine') {
      const adaptations = [...engine.adaptations, difference]
      await outbox.send('engine.adapt', { id: engine.id, fields: { adaptations } }, engine)
      return
    }
    const { templateId } = type
    const adaptations = [...type.adaptations, difference]
    await outbox.send('engine-type.adapt', { id: type.id, fields: { templateId, adaptations } }, type)
  }
}
