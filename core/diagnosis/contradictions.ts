import type { Belief } from './belief'
import type { BenchTest } from './bench-tests'
import type { SearchHistory } from './history'

/** Below this chance, given everything else, a finding does not fit. */
export const CONTRADICTION_CHANCE = 0.05
/** Two findings of which one makes the other so many times less likely are at odds; less than that, and it is merely rare. */
const AT_ODDS = 5
/** A finding more likely misread than not is worth repeating too, if the other at least halves its chance. */
const MISREAD = 0.5
const HALVED = 2

export interface Contradiction {
  /** Index of the finding worth repeating: the cheapest of those that do not fit. */
  readonly finding: number
  /** The one it fits least with. */
  readonly against: number
  /** Its chance, given all the others. */
  readonly chance: number
}

/**
 * Findings that do not fit the rest: leave one out, and ask how likely it was. What is rare but comes of faults that
 * are rare together fits; what another finding all but rules out does not. The pair is named, and of the two the
 * cheaper to repeat.
 *
 * @param belief after all findings
 * @param minutes what repeating each finding costs
 */
export function contradictions(belief: Belief, minutes: readonly number[]): Contradiction[] {
  const { columns, chance, support, engine, history } = belief
  if (columns.length < 2) return []
  /** Chance that a finding comes of misreading alone, whatever is wrong. */
  const floor = (index: number): number => {
    const test = engine.indexOfTest((history.findings[index] as SearchHistory['findings'][number]).test)
    return engine.spreadOf(test, false) / (engine.tests[test] as BenchTest).test.outcomes.length
  }
  /** Evidence of all the others, in times the evidence of all: the mean of the inverse likelihood. */
  const without = (first: Float64Array, second?: Float64Array): number => {
    let sum = 0
    for (const set of support)
      sum += (chance[set] as number) / ((first[set] as number) * (second ? (second[set] as number) : 1))
    return sum
  }
  const alone = columns.map((column) => without(column))
  const found: Contradiction[] = []
  for (let index = 0; index < columns.length; index++) {
    const column = columns[index] as Float64Array
    const fits = 1 / (alone[index] as number)
    if (fits >= CONTRADICTION_CHANCE) continue
    // Which of the others, taken away as well, makes it likeliest?
    let [against, most] = [-1, 0]
    for (let other = 0; other < columns.length; other++) {
      if (other === index) continue
      const second = columns[other] as Float64Array
      const likelier = (alone[other] as number) / without(column, second)
      if (likelier > most) [against, most] = [other, likelier]
    }
    if (most >= AT_ODDS * fits || (most >= HALVED * fits && floor(index) >= MISREAD * fits))
      found.push({ finding: index, against, chance: fits })
  }
  // Two that do not fit each other are one contradiction: the cheaper is to be repeated.
  const pairs = new Map<string, Contradiction>()
  for (const entry of found) {
    const [first, second] = [Math.min(entry.finding, entry.against), Math.max(entry.finding, entry.against)]
    const cheaper = (minutes[first] ?? 0) <= (minutes[second] ?? 0) ? first : second
    const known = pairs.get(`${first}:${second}`)
    if (!known || entry.chance < known.chance)
      pairs.set(`${first}:${second}`, {
        finding: cheaper,
        against: cheaper === first ? second : first,
        chance: entry.chance,
      })
  }
  return [...pairs.values()].sort((first, second) => first.chance - second.chance)
}
