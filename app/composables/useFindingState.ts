import { v7 as newId } from 'uuid'
import type { FindingFields } from '~~/messages/bench-entries'
import type { FindingRow, JobBook } from '~~/messages/book'
import type { SearchEntry } from '~~/messages/search-entries'
import type { FindingState } from '~~/messages/vocabulary'
import { mendedInSearch } from '~~/work/mended-in-search'

type Believed = Extract<SearchEntry, { kind: 'repaired' }>['believed']

/** Changes a finding that is there. Mended anywhere, it is mended for the search too, in the same write. */
export function useFindingState(book: ComputedRef<JobBook>) {
  const outbox = useOutbox()
  const jobs = useJobStore()

  async function change(finding: FindingRow, fields: FindingFields, believed: Believed = []): Promise<void> {
    await jobs.need(['search'])
    // What was read just now is drawn first: the book is handed down with it.
    await nextTick()
    const { job, search } = book.value
    const entry = mendedInSearch(search, finding, fields, believed)
    const told = entry ? { search: { id: newId(), entry } } : {}
    await outbox.send('finding.save', { id: finding.id, jobId: job.id, fields, ...told }, finding)
  }

  /** One tap moves it along its life; the rest of it stays as written. */
  function setState(finding: FindingRow, state: FindingState, remedy = finding.remedy, believed: Believed = []) {
    const { what, place, origin } = finding
    return change(finding, { what, place, origin, state, remedy }, believed)
  }
  return { change, setState }
}
