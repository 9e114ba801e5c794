import type { SearchRow } from '../messages/book'
import { openSuspects } from './open-suspects'
import { standingRows } from './standing-rows'

/**
 * What the search calls a finding of the ledger, as long as it holds it for there: null where it was noted by hand, and
 * where the search was told already that it is mended or was none.
 */
export function suspectOfFinding(
  search: readonly SearchRow[],
  findingId: string,
): { readonly id: string; readonly words: string } | null {
  const open = openSuspects(search)
  const confirmed = standingRows(search).findLast(
    ({ entry }) => entry.kind === 'confirmed' && entry.findingId === findingId,
  )?.entry
  return confirmed?.kind === 'confirmed' && open.has(confirmed.suspect)
    ? { id: confirmed.suspect, words: confirmed.words }
    : null
}
