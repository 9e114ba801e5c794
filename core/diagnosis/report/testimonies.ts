import type { Belief } from '../belief/belief'
import { slotFactor, weightIn } from '../belief/leaves'
import type { Population } from '../belief/population'
import type { Option } from '../belief/slots'
import { SetWeigher } from '../belief/weighed-sets'

/** How much one finding speaks for or against a suspect, all other findings taken into account. */
export interface Testimony {
  /** Place in the history. */
  readonly finding: number
  /** How many times as likely the finding was with the suspect present as with it absent. */
  readonly times: number
}

/** Nearer to one than this a finding says nothing. */
const SAYS_NOTHING = 1.25
/** So many sets are asked what they would be without a suspect. */
const ASKED = 8

/**
 * What speaks for and against a suspect: for every finding, its chance with and without the suspect, weighed by what
 * all the other findings make of the rest.
 *
 * @param belief after all findings
 * @param suspect its index
 * @returns strongest first
 */
export function testimonies(belief: Belief, suspect: number): Testimony[] {
  if (belief.sampled) return strongest(belief, bySetsWithout(belief, belief.sampled, suspect))
  const { evidence, leaves, state } = belief
  const { options, firstOf } = evidence
  const slot = evidence.slots.slots.findIndex((entry) => entry.suspect === suspect)
  if (slot < 0) return []
  const there = (option: number): boolean => {
    const { bornAt, goneAt } = options[option] as Option
    return bornAt <= state && state < goneAt
  }
  const groups = evidence.findings
  const mass = [0, 0]
  const before = groups.map(() => [0, 0])
  for (const leaf of leaves) {
    const says = leaf.evaluation.says
    const base = leaf.core[slot] as number
    const whole = slotFactor(evidence, leaf, slot)
    const count = (share: number, present: boolean, option: number): void => {
      const side = present ? 0 : 1
      mass[side] = (mass[side] as number) + share
      for (const [group, { base: chance, times }] of says.entries()) {
        const entry = before[group] as number[]
        entry[side] = (entry[side] as number) + share / (chance * (option < 0 ? 1 : (times[option] as number)))
      }
    }
    count(leaf.chance / whole, base >= 0 && there(base), -1)
    if (leaf.decided[slot] === 1) continue
    for (let option = firstOf[slot] as number; option < (firstOf[slot + 1] as number); option++)
      if (leaf.open[option] === 1 && option !== base)
        count((leaf.chance * weightIn(evidence, leaf, option)) / whole, there(option), option)
  }
  const [present = 0, absent = 0] = mass
  return strongest(
    belief,
    before.map(([withIt = 0, without = 0]) =>
      withIt > 0 && without > 0 && absent > 0 ? present / withIt / Math.max(1e-12, absent / without) : 1,
    ),
  )
}

/** @param times by group of findings */
function strongest({ evidence }: Belief, times: readonly number[]): Testimony[] {
  return evidence.findings
    .map((group, at): Testimony => ({ finding: Math.max(...group), times: times[at] as number }))
    .filter((entry) => entry.times > SAYS_NOTHING || entry.times < 1 / SAYS_NOTHING)
    .sort((one, other) => Math.abs(Math.log(other.times)) - Math.abs(Math.log(one.times)))
}

/**
 * By group of findings: what it was with the suspect in times of what it would be without, all else as it is in the
 * sets that are believed (the mean of the logarithms).
 */
function bySetsWithout({ state }: Belief, { evidence, particles }: Population, suspect: number): number[] {
  const { options, firstOf } = evidence
  const slot = evidence.slots.slots.findIndex((entry) => entry.suspect === suspect)
  const logs = new Float64Array(evidence.findings.length)
  if (slot < 0) return Array.from(logs, () => 1)
  const there = (option: number): boolean => {
    const { bornAt, goneAt } = options[option] as Option
    return bornAt <= state && state < goneAt
  }
  const ways = Array.from(
    { length: (firstOf[slot + 1] as number) - (firstOf[slot] as number) },
    (_, way) => (firstOf[slot] as number) + way,
  ).filter(there)
  if (ways.length === 0) return Array.from(logs, () => 1)
  const commonest = ways.reduce((best, way) =>
    (options[way] as Option).weight > (options[best] as Option).weight ? way : best,
  )
  const weigher = new SetWeigher(evidence)
  const holding = particles.filter(({ core }) => ways.includes(core[slot] as number))
  const asked = (holding.length > 0 ? holding : particles).slice(0, ASKED)
  for (const { core } of asked) {
    const set = weigher.weigh(core)
    const change = weigher.changed(set, [[slot, holding.length > 0 ? -1 : commonest]], Number.NEGATIVE_INFINITY)
    const side = holding.length > 0 ? 1 : -1
    for (let group = 0; group < logs.length; group++)
      logs[group] =
        (logs[group] as number) +
        (side * ((set.logs[group] as number) - (change?.logs[group] as number))) / asked.length
  }
  return Array.from(logs, Math.exp)
}
