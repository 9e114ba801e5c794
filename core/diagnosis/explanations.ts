import type { Belief } from './belief'
import { SET_SIZE } from './hypothesis-sets'

/** How much one finding speaks for or against a suspect, all other findings taken into account. */
export interface Testimony {
  readonly finding: number
  /** How many times as likely the finding was with the suspect present as with it absent. */
  readonly times: number
}

/** Nearer to one than this a finding says nothing. */
const SAYS_NOTHING = 1.25

/**
 * What speaks for and against each of these suspects: for every finding, its chance with and without the suspect,
 * weighed by what all the other findings make of the rest.
 *
 * @param belief after all findings
 * @param suspects indices
 * @returns by suspect, strongest first
 */
export function testimonies(belief: Belief, suspects: readonly number[]): ReadonlyMap<number, readonly Testimony[]> {
  const {
    chance,
    columns,
    support,
    here: { members },
    engine,
  } = belief
  const place = new Int16Array(engine.suspects.length).fill(-1)
  for (const [index, suspect] of suspects.entries()) place[suspect] = index
  const count = columns.length
  // By suspect and finding: how likely the suspect is without the finding, in times of its evidence.
  const beforeWith = new Float64Array(suspects.length * count)
  const afterWith = new Float64Array(suspects.length)
  const before = new Float64Array(count)
  const unseen = new Float64Array(count)
  let after = 0
  for (let at = 0; at < support.length; at++) {
    const set = support[at] as number
    const weight = chance[set] as number
    after += weight
    for (let finding = 0; finding < count; finding++) {
      const withoutIt = weight / ((columns[finding] as Float64Array)[set] as number)
      unseen[finding] = withoutIt
      before[finding] = (before[finding] as number) + withoutIt
    }
    for (let member = set * SET_SIZE; member < set * SET_SIZE + SET_SIZE; member++) {
      const index = (members[member] as number) < 0 ? -1 : (place[members[member] as number] as number)
      if (index < 0) continue
      afterWith[index] = (afterWith[index] as number) + weight
      for (let finding = 0; finding < count; finding++)
        beforeWith[index * count + finding] =
          (beforeWith[index * count + finding] as number) + (unseen[finding] as number)
    }
  }
  const found = suspects.map((_, index) =>
    Array.from({ length: count }, (_each, finding): Testimony => {
      const [withIt, without] = [
        beforeWith[index * count + finding] as number,
        (before[finding] as number) - (beforeWith[index * count + finding] as number),
      ]
      if (withIt <= 0 || without <= 0) return { finding, times: 1 }
      return {
        finding,
        times:
          (afterWith[index] as number) / withIt / Math.max(1e-12, (after - (afterWith[index] as number)) / without),
      }
    }).filter(({ times }) => times > SAYS_NOTHING || times < 1 / SAYS_NOTHING),
  )
  return new Map(
    suspects.map((suspect, index) => [
      suspect,
      (found[index] as Testimony[]).sort(
        (first, second) => Math.abs(Math.log(second.times)) - Math.abs(Math.log(first.times)),
      ),
    ]),
  )
}
