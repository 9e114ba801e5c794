import type { FindingRow, JobBook } from '~~/messages/book'
import type { FindingState } from '~~/messages/vocabulary'

/** One tap moves a finding along its life; the rest of it stays as written. */
export function useFindingState(book: ComputedRef<JobBook>) {
  const outbox = useOutbox()
  const tellMended = useTellMended(book)
  async function setState(finding: FindingRow, state: FindingState, remedy = finding.remedy): Promise<void> {
    const jobId = book.value.job.id
    const base = {
      what: finding.what,
      place: finding.place,
      state: finding.state,
      origin: finding.origin,
      remedy: finding.remedy,
    }
    await outbox.send('finding.save', { id: finding.id, jobId, fields: { ...base, state, remedy } }, finding)
    if (state === 'mended') await tellMended(finding, remedy)
  }
  return { setState }
}
