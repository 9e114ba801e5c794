import type { SearchRow } from '../messages/book'
import { standingRows } from './standing-rows'

/** Suspects confirmed by the search that are neither repaired nor ruled out since, in that order. */
export function openSuspects(search: readonly SearchRow[]): ReadonlySet<string> {
  const open = new Set<string>()
  for (const { entry } of standingRows(search)) {
    if (entry.kind === 'confirmed') open.add(entry.suspect)
    if (entry.kind === 'repaired' || entry.kind === 'ruled-out') open.delete(entry.suspect)
  }
  return open
}
