import rows from '../knowledge/care/suggestions.json'
import type { CleaningSubject } from '../knowledge/care/care-schema'
import type { CleaningGroup } from './cleaning-groups'

interface Suggestion {
  /** A fault confirmed, a circumstance of its life, or what the strip showed. */
  readonly sign: string
  readonly subjects: readonly CleaningSubject[]
  readonly soil: string
  readonly source: string
}
const suggestions = rows as readonly Suggestion[]

/**
 * What these groups are likely to be dirty with, by what is confirmed, where the engine ran and how it was stored.
 *
 * @param signs ids of faults, circumstances and deviations of the strip
 * @returns by group the soils, no soil twice
 * @example suggestedSoils(cleaningGroups(describeConstruction('tank-can')), ['garden']).get('wheel-backs@locomotive') // ['black-paste']
 */
export function suggestedSoils(
  groups: readonly CleaningGroup[],
  signs: readonly string[],
): ReadonlyMap<string, readonly string[]> {
  const seen = new Set(signs)
  const told = suggestions.filter((row) => seen.has(row.sign))
  return new Map(
    groups.flatMap((group): Array<[string, string[]]> => {
      const soils = [...new Set(told.filter((row) => row.subjects.includes(group.subject)).map((row) => row.soil))]
      return soils.length > 0 ? [[group.id, soils]] : []
    }),
  )
}
