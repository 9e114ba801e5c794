import type { Belief } from './belief'

/** Below this chance, given everything else, a finding does not fit. */
export const CONTRADICTION_CHANCE = 0.05
/** A finding that is not so many times as likely without the others is merely rare, not out of place. */
const RARE_ALONE = 5

export interface Contradiction {
  /** Index of the finding worth repeating: the cheapest of those that do not fit. */
  readonly finding: number
  /** The one it fits least with. */
  readonly against: number
  /** Its chance, given all the others. */
  readonly chance: number
}

/**
 * Findings that do not fit the rest: leave one out, and ask how likely it was. The pair is named, and of the two the
 * cheaper to repeat.
 *
 * @param belief after all findings
 * @param minutes what repeating each finding costs
 */
export function contradictions(belief: Belief, minutes: readonly number[]): Contradiction[] {
  const { columns, space, chance, support } = belief
  if (columns.length < 2) return []
  const { odds } = space.sets
  /** Chance of a finding’s outcome before any other, over all sets that were looked at. */
  const alone = (column: Float64Array): number => {
    let [sum, before] = [0, 0]
    for (let set = 0; set < chance.length; set++) {
      if (Number.isNaN(column[set] as number)) continue
      sum += (odds[set] as number) * (column[set] as number)
      before += odds[set] as number
    }
    return sum / before
  }
  /** Evidence of all the others, in times the evidence of all: the mean of the inverse likelihood. */
  const without = (first: Float64Array, second?: Float64Array): number => {
    let sum = 0
    for (const set of support) sum += (chance[set] as number) / ((first[set] as number) * (second ? second[set] as number : 1))
    return sum
  }
  const found: Contradiction[] = []
  for (let index = 0; index < columns.length; index++) {
    const column = columns[index] as Float64Array
    const fits = 1 / without(column)
    if (fits >= CONTRADICTION_CHANCE || fits * RARE_ALONE >= alone(column)) continue
    // Which of the others, taken away as well, makes it likeliest?
    let [against, most] = [-1, 0]
    for (let other = 0; other < columns.length; other++) {
      if (other === index) continue
      const second = columns[other] as Float64Array
      const likelier = without(second) / without(column, second)
      if (likelier > most) [against, most] = [other, likelier]
    }
    if (against >= 0) found.push({ finding: index, against, chance: fits })
  }
  // Two that do not fit each other are one contradiction: the cheaper is to be repeated.
  const pairs = new Map<string, Contradiction>()
  for (const entry of found) {
    const [first, second] = [Math.min(entry.finding, entry.against), Math.max(entry.finding, entry.against)]
    const cheaper = (minutes[first] ?? 0) <= (minutes[second] ?? 0) ? first : second
    const known = pairs.get(`${first}:${second}`)
    if (!known || entry.chance < known.chance) pairs.set(`${first}:${second}`, { finding: cheaper, against: cheaper === first ? second : first, chance: entry.chance })
  }
  return [...pairs.values()].sort((first, second) => first.chance - second.chance)
}
