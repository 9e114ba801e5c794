import { cutText } from '../messages/cut-text'
import type { FindingRow, SearchRow } from '../messages/book'
import type { FindingFields } from '../messages/bench-entries'
import type { SearchEntry } from '../messages/search-entries'
import { suspectOfFinding } from './suspect-of-finding'

/**
 * What the search is told where a finding is mended: it asks for the proof, and no longer advises the repair.
 *
 * @param before the finding as it stands
 * @param after as it is to be
 * @returns null where it is not mended now, or is not one the search knows
 */
export function mendedInSearch(
  search: readonly SearchRow[],
  before: Pick<FindingRow, 'id' | 'state'>,
  after: Pick<FindingFields, 'state' | 'remedy'>,
  believed: Extract<SearchEntry, { kind: 'repaired' }>['believed'] = [],
): Extract<SearchEntry, { kind: 'repaired' }> | null {
  const suspect = after.state === 'mended' && before.state !== 'mended' ? suspectOfFinding(search, before.id) : null
  return (
    suspect && {
      kind: 'repaired',
      suspect: suspect.id,
      words: cutText([after.remedy, suspect.words].filter(Boolean).join(': '), 300),
      findingId: before.id,
      believed,
    }
  )
}
