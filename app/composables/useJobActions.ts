import { v7 as newId } from 'uuid'
import type { JobBook } from '~~/messages/book'
import type { StationId } from '~~/messages/vocabulary'

/** What one does to the job as a whole, wherever one stands. */
export function useJobActions(book: ComputedRef<JobBook | null>) {
  const outbox = useOutbox()

  function need(): JobBook {
    if (!book.value) throw new Error('No job is open.')
    return book.value
  }

  /** Moves the job to a station, onto the bench. */
  function moveTo(station: StationId, state: 'open' | 'waiting' = 'open', waitingFor = ''): Promise<void> {
    const { job } = need()
    return outbox.send('job.move', { id: job.id, fields: { station, state, waitingFor } }, job)
  }

  function addNote(
    station: StationId,
    text: string,
    minutes: number,
    supersedesId: string | null = null,
  ): Promise<void> {
    const { job } = need()
    const id = newId()
    return outbox.send('note.add', { id, jobId: job.id, fields: { station, text, minutes, supersedesId } })
  }

  return { moveTo, addNote }
}
