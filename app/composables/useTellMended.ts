import { v7 as newId } from 'uuid'
import { cutText } from '~~/messages/cut-text'
import type { FindingRow, JobBook } from '~~/messages/book'
import { suspectOfFinding } from '~~/work/suspect-of-finding'

/** A finding mended anywhere is mended for the search too: it asks for its proof, and no longer advises the repair. */
export function useTellMended(book: ComputedRef<JobBook>) {
  const outbox = useOutbox()
  const jobs = useJobStore()
  return async (finding: Pick<FindingRow, 'id' | 'state'>, remedy: string): Promise<void> => {
    if (finding.state === 'mended') return
    await jobs.need(['search'])
    // What was read just now is drawn first: the book is handed down with it.
    await nextTick()
    const { job, search } = book.value
    const suspect = suspectOfFinding(search, finding.id)
    if (!suspect) return
    await outbox.send('search.add', {
      id: newId(),
      jobId: job.id,
      entry: {
        kind: 'repaired',
        suspect: suspect.id,
        words: cutText([remedy, suspect.words].filter(Boolean).join(': '), 300),
        findingId: finding.id,
        believed: [],
      },
    })
  }
}
