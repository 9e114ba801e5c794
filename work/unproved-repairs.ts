import type { JobBook } from '../messages/book'
import { standingRows } from './standing-rows'

/**
 * What was mended since anything was last tried: a repair is proved by one act, and not by itself.
 *
 * @returns what it says in the book, oldest first; none where something was tried since
 */
export function unprovedRepairs({ search }: Pick<JobBook, 'search'>): string[] {
  const standing = standingRows(search)
  const tried = standing.findLastIndex((row) => row.entry.kind === 'outcome')
  return standing.slice(tried + 1).flatMap(({ entry }) => (entry.kind === 'repaired' ? [entry.words] : []))
}
