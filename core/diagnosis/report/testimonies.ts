import type { Belief } from '../belief/belief'
import { slotFactor, weightIn } from '../belief/leaves'
import type { Option } from '../belief/slots'

/** How much one finding speaks for or against a suspect, all other findings taken into account. */
export interface Testimony {
  /** Place in the history. */
  readonly finding: number
  /** How many times as likely the finding was with the suspect present as with it absent. */
  readonly times: number
}

/** Nearer to one than this a finding says nothing. */
const SAYS_NOTHING = 1.25

/**
 * What speaks for and against a suspect: for every finding, its chance with and without the suspect, weighed by what
 * all the other findings make of the rest.
 *
 * @param belief after all findings
 * @param suspect its index
 * @returns strongest first
 */
export function testimonies(belief: Belief, suspect: number): Testimony[] {
  const { evidence, apart: leaves, state } = belief
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
  return groups
    .map((group, at): Testimony => {
      const [withIt = 0, without = 0] = before[at] as number[]
      const times = withIt > 0 && without > 0 && absent > 0 ? present / withIt / Math.max(1e-12, absent / without) : 1
      return { finding: Math.max(...group), times }
    })
    .filter(({ times }) => times > SAYS_NOTHING || times < 1 / SAYS_NOTHING)
    .sort((one, other) => Math.abs(Math.log(other.times)) - Math.abs(Math.log(one.times)))
}
