import { v7 as newId } from 'uuid'
import type { JobBook } from '~~/messages/book'
import type { CareEntry } from '~~/messages/care-entries'

/** Writes the steps of cleaning and oiling into the book. */
export function useCareSteps(book: ComputedRef<JobBook>) {
  const outbox = useOutbox()
  const add = (entry: CareEntry): Promise<void> =>
    outbox.send('care.add', { id: newId(), jobId: book.value.job.id, entry })
  const strike = useStriking(add)
  return { add, strike }
}
