import type { Belief } from '../belief/belief'
import { weightIn } from '../belief/leaves'

/** Below this chance, given everything else, a finding does not fit. */
const CONTRADICTION_CHANCE = 0.05
/** What the leaves alone say is looked at more closely below this, so many at most, and against so many others each. */
const DOUBT_CHANCE = 0.07
const MOST_DOUBTFUL = 3
const MOST_AGAINST = 1
/** Two findings of which one makes the other so many times less likely are at odds; less than that, and it is merely rare. */
const AT_ODDS = 5
/** A finding more likely misread than not is worth repeating too, if the other at least halves its chance. */
const MISREAD = 0.5
const HALVED = 2

export interface Contradiction {
  /** Place in the history of the finding worth repeating: the cheaper of the two. */
  readonly finding: number
  /** The one it fits least with. */
  readonly against: number
  /** Its chance, given all the others. */
  readonly chance: number
}

/**
 * Findings that do not fit the rest: leave one out, and ask how likely it was. What is rare but comes of faults that
 * are rare together fits; what another finding all but rules out does not.
 *
 * @param belief after all findings
 * @param minutes what repeating each finding costs
 */
export function contradictions(belief: Belief, minutes: readonly number[]): Contradiction[] {
  const { evidence, weighty: leaves } = belief
  const groups = evidence.findings
  if (belief.history.findings.length < 2) return []
  const without = evidenceWithout(belief, leaves)
  const alone = groups.map((_, group) => without(group))
  const pairs = new Map<string, Contradiction>()
  const exact = new Map<string, number>()
  const logWithout = (...findings: number[]): number => {
    const key = findings.sort((one, other) => one - other).join()
    const known = exact.get(key) ?? belief.logWithout(findings)
    exact.set(key, known)
    return known
  }
  const doubtful = [...groups.keys()]
    .filter((group) => 1 / (alone[group] as number) < DOUBT_CHANCE)
    .sort((one, other) => (alone[other] as number) - (alone[one] as number))
    .slice(0, MOST_DOUBTFUL)
  for (const group of doubtful) {
    const others = [...groups.keys()]
      .filter((other) => other !== group)
      .map((other) => ({ other, likelier: (alone[other] as number) / without(group, other) }))
      .sort((one, other) => other.likelier - one.likelier)
      .slice(0, MOST_AGAINST)
      .map(({ other }) => Math.max(...(groups[other] as readonly number[])))
    const members = groups[group] as readonly number[]
    for (const finding of members) {
      const fits = Math.exp(-logWithout(finding))
      if (fits >= CONTRADICTION_CHANCE) continue
      const { other, likelier } = [...members, ...others]
        .filter((entry) => entry !== finding)
        .map((entry) => ({ other: entry, likelier: Math.exp(logWithout(entry) - logWithout(finding, entry)) }))
        .reduce((best, entry) => (entry.likelier > best.likelier ? entry : best), { other: -1, likelier: 0 })
      if (other < 0) continue
      const misread = evidence.misreadOf(finding)
      if (!(likelier >= AT_ODDS * fits || (likelier >= HALVED * fits && misread >= MISREAD * fits))) continue
      const [first, second] = [Math.min(finding, other), Math.max(finding, other)]
      const cheaper = (minutes[first] ?? 0) <= (minutes[second] ?? 0) ? first : second
      const known = pairs.get(`${first}:${second}`)
      if (!known || fits < known.chance)
        pairs.set(`${first}:${second}`, { finding: cheaper, against: cheaper === first ? second : first, chance: fits })
    }
  }
  return [...pairs.values()].sort((first, second) => first.chance - second.chance)
}

/** Evidence of all the others but some groups of findings, in times the evidence of all: the mean of the inverse likelihood. */
function evidenceWithout(belief: Belief, leaves: Belief['leaves']): (...left: number[]) => number {
  const said = leaves.map((leaf) => ({ leaf, says: leaf.evaluation.says, open: openIn(belief, leaf) }))
  return (...left) => {
    let sum = 0
    for (const { leaf, says, open } of said) {
      let share = leaf.chance
      for (const group of left) share /= says[group]?.base ?? 1
      for (const ways of open) {
        let now = 1
        let then = 1
        for (const { option, weight } of ways) {
          let rest = weight
          for (const group of left) rest /= says[group]?.times[option] ?? 1
          now += weight
          then += rest
        }
        share *= then / now
      }
      sum += share
    }
    return sum
  }
}

/** By slot that is not decided: its open ways and what they weigh against the core's own. */
function openIn(
  { evidence }: Belief,
  leaf: Belief['leaves'][number],
): ReadonlyArray<ReadonlyArray<{ readonly option: number; readonly weight: number }>> {
  const { firstOf } = evidence
  return [...leaf.core.keys()].flatMap((slot) => {
    if (leaf.decided[slot] === 1) return []
    const ways = []
    for (let option = firstOf[slot] as number; option < (firstOf[slot + 1] as number); option++)
      if (leaf.open[option] === 1 && option !== leaf.core[slot])
        ways.push({ option, weight: weightIn(evidence, leaf, option) })
    return ways.length > 0 ? [ways] : []
  })
}
