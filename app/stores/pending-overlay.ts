import type { LoadedJob } from '~~/messages/book'
import { jobBookWith, type Changes } from '~~/messages/changes'
import { effectOf, type Standing } from '~~/messages/effects'
import type { QueuedEntry } from './outbox-storage'

/** What an entry will do once it has reached the server, by what stands until then. Pure. */
export function changesOf(entry: QueuedEntry, standing: Standing): Changes {
  if (entry.kind === 'photograph') {
    const { photographId, lane, station, caption, about = null, bytes, capturedAt } = entry
    return {
      photographs: [
        {
          id: photographId,
          jobId: lane,
          station,
          caption,
          about,
          marks: [],
          width: 0,
          height: 0,
          size: bytes.size,
          takenAt: capturedAt,
          version: 0,
        },
      ],
    }
  }
  return effectOf(entry.name, standing, {
    payload: entry.payload as never,
    author: entry.authorName,
    capturedAt: entry.capturedAt,
  })
}

/** Lays what waits over a book, one entry on top of the other; what was refused is not part of it. */
export function withPending<B extends Standing>(
  book: B,
  pending: readonly QueuedEntry[],
  put: (book: B, changes: Changes) => B,
): B {
  return pending.reduce(
    (standing, entry) => (entry.state === 'refused' ? standing : put(standing, changesOf(entry, standing))),
    book,
  )
}

/**
 * The job as it will stand once what waits has reached the server, so that the screen shows a reading the moment it
 * is typed.
 */
export function jobWithPending(book: LoadedJob, pending: readonly QueuedEntry[]): LoadedJob {
  return withPending(book, pending, jobBookWith)
}
