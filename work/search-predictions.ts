import type { Prediction } from '../core/knowledge/reliability'
import type { SearchEntry } from '../messages/search-entries'

/**
 * What was believed at each step of a search that is over, against what was seen in the end: right is a suspect
 * confirmed at a later step. What was mended untested was never seen, and says nothing either way.
 *
 * @param entries the steps of one job, oldest first
 */
export function predictionsOf(
  entries: ReadonlyArray<{ readonly id: string; readonly entry: SearchEntry }>,
): Prediction[] {
  const struck = new Set(entries.flatMap(({ entry }) => (entry.kind === 'struck' ? [entry.entryId] : [])))
  const standing = entries.filter(({ id }) => !struck.has(id)).map(({ entry }) => entry)
  const firstOf = (kind: 'confirmed' | 'repaired'): Map<string, number> => {
    const places = new Map<string, number>()
    for (const [at, entry] of standing.entries())
      if (entry.kind === kind && !places.has(entry.suspect)) places.set(entry.suspect, at)
    return places
  }
  const [seen, mended] = [firstOf('confirmed'), firstOf('repaired')]
  return standing.flatMap((entry, at): Prediction[] => {
    if (entry.kind !== 'outcome') return []
    return entry.believed.flatMap(({ suspect, chance }): Prediction[] => {
      const confirmedAt = seen.get(suspect)
      if (confirmedAt === undefined && mended.has(suspect)) return []
      return confirmedAt !== undefined && confirmedAt < at ? [] : [{ chance, right: confirmedAt !== undefined }]
    })
  })
}
