import { v7 as newId } from 'uuid'
import type { JobBook } from '~~/shared/book'
import { stations, type StationId } from '~~/shared/vocabulary'

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
    return outbox.send('job.move', { id: job.id, fields: { station, state, waitingFor } }, {
      lane: job.id, subject: `job:${job.id}`, label: 'station', expectedVersion: job.version,
      base: { station: job.station, state: job.state, waitingFor: job.waitingFor },
    })
  }

  function addNote(station: StationId, text: string, minutes: number, supersedesId: string | null = null): Promise<void> {
    const { job } = need()
    const id = newId()
    return outbox.send('note.add', { id, jobId: job.id, fields: { station, text, minutes, supersedesId } }, { lane: job.id, subject: `note:${id}`, label: 'note' })
  }

  return { moveTo, addNote }
}

/** The station after this one, or null at the end of the line. */
export function stationAfter(station: StationId): StationId | null {
  const index = stations.findIndex((entry) => entry.id === station)
  return stations[index + 1]?.id ?? null
}

export function stationBefore(station: StationId): StationId | null {
  const index = stations.findIndex((entry) => entry.id === station)
  return stations[index - 1]?.id ?? null
}

export function stationName(station: StationId): string {
  return stations.find((entry) => entry.id === station)?.name ?? station
}
