import type { Belief } from './belief'

/** How much one finding speaks for or against a suspect, all other findings taken into account. */
export interface Testimony {
  readonly finding: number
  /** How many times as likely the finding was with the suspect present as with it absent. */
  readonly times: number
}

/** Nearer to one than this a finding says nothing. */
const SAYS_NOTHING = 1.25
const SET = 3

/**
 * What speaks for and against each of these suspects: for every finding, its chance with and without the suspect,
 * weighed by what all the other findings make of the rest.
 *
 * @param belief after all findings
 * @param suspects indices
 * @returns by suspect, strongest first
 */
export function testimonies(belief: Belief, suspects: readonly number[]): ReadonlyMap<number, readonly Testimony[]> {
  const { chance, columns, support, here: { members }, engine } = belief
  const place = new Int16Array(engine.suspects.length).fill(-1)
  for (const [index, suspect] of suspects.entries()) place[suspect] = index
  const found = suspects.map(() => [] as Testimony[])
  for (const [finding, column] of columns.entries()) {
    const withIt = new Float64Array(suspects.length * 2)
    const total = new Float64Array(2)
    for (const set of support) {
      const after = chance[set] as number
      const before = after / (column[set] as number)
      total[0] = (total[0] as number) + before
      total[1] = (total[1] as number) + after
      for (let at = set * SET; at < set * SET + SET; at++) {
        const index = (members[at] as number) < 0 ? -1 : place[members[at] as number] as number
        if (index < 0) continue
        withIt[index * 2] = (withIt[index * 2] as number) + before
        withIt[index * 2 + 1] = (withIt[index * 2 + 1] as number) + after
      }
    }
    for (let index = 0; index < suspects.length; index++) {
      const [before, after] = [withIt[index * 2] as number, withIt[index * 2 + 1] as number]
      const [otherBefore, otherAfter] = [(total[0] as number) - before, (total[1] as number) - after]
      if (before <= 0 || otherBefore <= 0) continue
      const times = after / before / Math.max(1e-12, otherAfter / otherBefore)
      if (times > SAYS_NOTHING || times < 1 / SAYS_NOTHING) found[index]?.push({ finding, times })
    }
  }
  return new Map(suspects.map((suspect, index) => [suspect, (found[index] as Testimony[]).sort((first, second) => Math.abs(Math.log(second.times)) - Math.abs(Math.log(first.times)))]))
}
