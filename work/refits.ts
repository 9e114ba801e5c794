import type { SearchRow, StripRow } from '../messages/book'
import { standingRows } from './standing-rows'

/** Parts that went back one after the other, with nothing noted in between: from then on the machine is another. */
export interface RefitOfJob {
  /** When the last of them went back. */
  readonly at: string
  readonly touched: readonly string[]
}

/**
 * The times a job's engine was closed again, by the steps of its way back. What is noted after one may come of it.
 *
 * @param strip entries of Strip and Rebuild
 * @param search entries of the search: what is noted between two parts going back divides them
 */
export function refitsOf(strip: readonly StripRow[], search: readonly SearchRow[]): RefitOfJob[] {
  const back = standingRows(strip).flatMap(({ entry, capturedAt }) =>
    entry.kind === 'back' ? [{ part: entry.part, capturedAt }] : [],
  )
  const noted = search.filter(({ entry }) => entry.kind === 'outcome').map(({ capturedAt }) => capturedAt)
  const refits: Array<{ at: string; touched: string[] }> = []
  for (const { part, capturedAt } of back.sort((one, other) => one.capturedAt.localeCompare(other.capturedAt))) {
    const last = refits.at(-1)
    if (last && !noted.some((at) => at > last.at && at <= capturedAt)) {
      last.at = capturedAt
      last.touched.push(part)
    } else refits.push({ at: capturedAt, touched: [part] })
  }
  // Before anything was noted nothing can have been well before.
  return refits.filter(({ at }) => noted.some((moment) => moment < at))
}
