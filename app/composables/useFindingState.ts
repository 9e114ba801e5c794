import type { FindingFields } from '~~/messages/bench-entries'
import type { FindingRow, JobBook } from '~~/messages/book'
import type { FindingState } from '~~/messages/vocabulary'
import { findingWrite } from '~~/work/search-writes'

/** Changes a finding that is there. Mended anywhere, it is mended for the search too, in the same write. */
export function useFindingState(book: ComputedRef<JobBook>) {
  const outbox = useOutbox()
  const jobs = useJobStore()

  async function change(finding: FindingRow, fields: FindingFields): Promise<void> {
    await jobs.need(['search'])
    // What was read just now is drawn first: the book is handed down with it.
    await nextTick()
    const { name, payload } = findingWrite(book.value, finding, fields)
    await outbox.send(name, payload, finding)
  }

  /** One tap moves it along its life; the rest of it stays as written. */
  function setState(finding: FindingRow, state: FindingState, remedy = finding.remedy) {
    const { what, place, origin } = finding
    return change(finding, { what, place, origin, state, remedy })
  }
  return { change, setState }
}
