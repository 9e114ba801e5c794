import type { Circumstance } from '../knowledge/knowledge-schema'
import rows from '../knowledge/care-intervals.json'
import weights from '../knowledge/care/weights.json'

/** How long an engine has run or lain since it was last cared for; null where nobody knows. */
export interface RunningSince {
  /** Running hours. */
  readonly hoursSinceOil: number | null
  readonly hoursSinceWipe: number | null
  /** Shows since it was last looked over. */
  readonly shows: number | null
  readonly yearsIdle: number | null
}

export interface DueCare {
  readonly id: string
  readonly name: string
  readonly state: 'soon' | 'due' | 'overdue'
  /** How much of the interval is used up; 1 is just due. */
  readonly share: number
  /** Such as “31 h of 24 h”. */
  readonly words: string
}

export interface CareInterval {
  readonly id: string
  readonly name: string
  readonly counts: 'hours' | 'shows' | 'years'
  readonly every: number
  readonly since: keyof RunningSince
  readonly source: string
}

export const careIntervals = rows as readonly CareInterval[]
export const neverNoted: RunningSince = { hoursSinceOil: null, hoursSinceWipe: null, shows: null, yearsIdle: null }

/** From these shares of an interval on it is worth a word, and it is overdue. */
const { soonShare: SOON, overdueShare: OVERDUE } = weights
/** Gardens, carpets and dust shorten everything. */
const shortening: readonly Circumstance[] = ['garden', 'carpet']

/**
 * What is left of an interval that counts hours where an engine runs in such surroundings.
 *
 * @example surroundingsShare(['garden']) // 0.5
 */
export function surroundingsShare(circumstances: readonly Circumstance[]): number {
  return shortening.some((entry) => circumstances.includes(entry)) ? weights.shortenedShare : 1
}
const units = { hours: ['h', 'h'], shows: ['show', 'shows'], years: ['year', 'years'] } as const

/**
 * What care an engine is due for, most overdue first. Hours and shows by one usual schedule among several (common
 * practice); the treads count as wiped when it was last oiled, where nobody noted it apart.
 *
 * @param since how long since each was done
 * @param circumstances what is known of where it runs
 * @example
 * dueCare({ hoursSinceOil: 60, hoursSinceWipe: 1, shows: 0, yearsIdle: 0 }).map(({ id, state }) => [
 *   id,
 *   state,
 * ]) // [ [ 'oil', 'overdue' ] ]
 */
export function dueCare(since: RunningSince, circumstances: readonly Circumstance[] = []): DueCare[] {
  const known: RunningSince = { ...since, hoursSinceWipe: since.hoursSinceWipe ?? since.hoursSinceOil }
  const shortened = surroundingsShare(circumstances)
  return careIntervals
    .flatMap((interval): DueCare[] => {
      const spent = known[interval.since]
      if (spent === null) return []
      const every = interval.counts === 'hours' ? interval.every * shortened : interval.every
      const share = spent / every
      if (share < SOON) return []
      const [one, many] = units[interval.counts]
      const say = (count: number): string => `${Number(count.toPrecision(3))} ${count === 1 ? one : many}`
      return [
        {
          id: interval.id,
          name: interval.name,
          state: share < 1 ? 'soon' : share <= OVERDUE ? 'due' : 'overdue',
          share,
          words: interval.counts === 'shows' ? say(spent) : `${say(spent)} of ${say(every)}`,
        },
      ]
    })
    .sort((first, second) => second.share - first.share)
}
