import { SeededRandom } from '../../bench/casualty/random'
import type { SearchFigures } from './search-record'

export interface Interval {
  readonly value: number
  readonly low: number
  readonly high: number
}

/** Some casualties, and how much each counts. */
export type Sample = ReadonlyArray<readonly [index: number, weight: number]>
type Statistic = (sample: Sample) => number

/** All of so many, each alike. */
export const evenly = (count: number): Sample => Array.from({ length: count }, (_, index) => [index, 1] as const)

/**
 * A mean over machines, each counting alike however many casualties of it there are, with its 95 % bootstrap interval;
 * resampled by casualty within each machine.
 *
 * @param machines of each casualty, its machine
 */
export function bootstrapped(machines: readonly string[], statistic: Statistic, seed = 1, rounds = 1000): Interval {
  const random = new SeededRandom(seed)
  const groups = [...new Set(machines)].map((machine) =>
    machines.flatMap((other, index) => (other === machine ? [index] : [])),
  )
  const sampled = (choose: (group: readonly number[], at: number) => number): Sample =>
    groups.flatMap((group) => group.map((_, at) => [choose(group, at), 1 / group.length] as const))
  const values = Array.from({ length: rounds }, () =>
    statistic(sampled((group) => group[Math.floor(random.next() * group.length)] as number)),
  ).sort((first, second) => first - second)
  return {
    value: statistic(sampled((group, at) => group[at] as number)),
    low: values[Math.floor(0.025 * rounds)] ?? 0,
    high: values[Math.floor(0.975 * rounds)] ?? 0,
  }
}

export const foundShare =
  (outcomes: ReadonlyArray<{ readonly found: number; readonly truth: readonly unknown[] }>): Statistic =>
  (sample) =>
    sum(sample, (index) => outcomes[index]?.found ?? 0) / sum(sample, (index) => outcomes[index]?.truth.length ?? 0)

/** The same of those faults that come and go, or of those that are always there. */
export const foundShareOf =
  (outcomes: readonly SearchFigures[], intermittent: boolean): Statistic =>
  (sample) => {
    const faults = (index: number) =>
      (outcomes[index]?.truth ?? []).filter((fault) => fault.intermittent === intermittent)
    const missed = (index: number): number =>
      faults(index).filter((fault) => outcomes[index]?.missed.includes(`${fault.name} @ ${fault.place}`)).length
    return 1 - sum(sample, missed) / sum(sample, (index) => faults(index).length)
  }

export const meanOf =
  <T>(outcomes: readonly T[], of: (outcome: T) => number): Statistic =>
  (sample) =>
    sum(sample, (index) => of(outcomes[index] as T)) / sum(sample, () => 1)

export const meanMinutes = (outcomes: ReadonlyArray<Pick<SearchFigures, 'minutes'>>): Statistic =>
  meanOf(outcomes, ({ minutes }) => minutes)

export const minutesRatio =
  (outcomes: readonly SearchFigures[], against: readonly SearchFigures[]): Statistic =>
  (sample) =>
    meanMinutes(outcomes)(sample) / meanMinutes(against)(sample)

/** Of beliefs in each tenth, how many were so: believed mean, true share, how many. */
export function reliability(
  outcomes: readonly SearchFigures[],
): Array<{ readonly believed: number; readonly so: number; readonly count: number }> {
  return Array.from({ length: 10 }, (_, tenth) => {
    const [believed, so, count] = outcomes.reduce<readonly [number, number, number]>(
      (sums, { tenths }) => {
        const here = tenths[tenth] ?? [0, 0, 0]
        return [sums[0] + here[0], sums[1] + here[1], sums[2] + here[2]]
      },
      [0, 0, 0],
    )
    return { believed: believed / Math.max(1, count), so: so / Math.max(1, count), count }
  })
}

function sum(sample: Sample, of: (index: number) => number): number {
  return sample.reduce((total, [index, weight]) => total + weight * of(index), 0)
}
