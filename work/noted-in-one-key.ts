import type { SearchRow } from '../messages/book'

/**
 * What was noted in one key: an outcome and, where it shows the thing itself, what was found by it. They are taken back
 * together, from whichever of them it begins.
 *
 * @param standing rows of the search that count, in their order
 * @param id of one of them
 * @param finds the suspect an outcome shows itself, if it does
 * @returns the latest first; none where no such row stands
 */
export function notedInOneKey(
  standing: readonly SearchRow[],
  id: string,
  finds: (test: string, outcome: string) => string | undefined,
): readonly SearchRow[] {
  const at = standing.findIndex((row) => row.id === id)
  const row = standing[at]
  if (!row) return []
  /** Two keys struck at once may have written their rows in between each other. */
  const foundBy = (from: number): SearchRow | undefined => {
    const entry = standing[from]?.entry
    const suspect = entry?.kind === 'outcome' ? finds(entry.test, entry.outcome) : undefined
    return suspect === undefined ? undefined : standing.find((later, place) => place > from && shows(later, suspect))
  }
  if (row.entry.kind === 'outcome') {
    const found = foundBy(at)
    return found ? [found, row] : [row]
  }
  const noted = standing.slice(0, at).findLast((_, place) => foundBy(place) === row)
  return noted ? [row, noted] : [row]
}

const shows = ({ entry }: SearchRow, suspect: string): boolean =>
  entry.kind === 'confirmed' && entry.suspect === suspect
