import { SeededRandom } from '../../bench/casualty/random'
import type { SearchFigures } from './search-casualty'

export interface Interval { readonly value: number; readonly low: number; readonly high: number }

/** A mean with its 95 % bootstrap interval; resampled by casualty. */
export function bootstrapped(count: number, statistic: (pick: readonly number[]) => number, seed = 1, rounds = 1000): Interval {
  const random = new SeededRandom(seed)
  const all = Array.from({ length: count }, (_, index) => index)
  const values = Array.from({ length: rounds }, () => statistic(all.map(() => Math.floor(random.next() * count)))).sort((first, second) => first - second)
  return { value: statistic(all), low: values[Math.floor(0.025 * rounds)] ?? 0, high: values[Math.floor(0.975 * rounds)] ?? 0 }
}

export const foundShare = (outcomes: readonly SearchFigures[]) => (pick: readonly number[]): number =>
  sum(pick, (index) => outcomes[index]?.found ?? 0) / Math.max(1, sum(pick, (index) => outcomes[index]?.truth.length ?? 0))

/** The same of those faults that come and go, or of those that are always there. */
export const foundShareOf = (outcomes: readonly SearchFigures[], intermittent: boolean) => (pick: readonly number[]): number => {
  const faults = (index: number) => (outcomes[index]?.truth ?? []).filter((fault) => fault.intermittent === intermittent)
  const missed = (index: number): number => faults(index).filter((fault) => outcomes[index]?.missed.includes(`${fault.name} @ ${fault.place.id}`)).length
  return 1 - sum(pick, missed) / Math.max(1, sum(pick, (index) => faults(index).length))
}

export const meanMinutes = (outcomes: readonly SearchFigures[]) => (pick: readonly number[]): number => sum(pick, (index) => outcomes[index]?.minutes ?? 0) / pick.length

export const minutesRatio = (outcomes: readonly SearchFigures[], against: readonly SearchFigures[]) => (pick: readonly number[]): number => meanMinutes(outcomes)(pick) / meanMinutes(against)(pick)

/** Of beliefs in each tenth, how many were so: believed mean, true share, how many. */
export function reliability(outcomes: readonly SearchFigures[]): Array<{ readonly believed: number; readonly so: number; readonly count: number }> {
  const beliefs = outcomes.flatMap((outcome) => outcome.beliefs)
  return Array.from({ length: 10 }, (_, tenth) => {
    const here = beliefs.filter(([chance]) => Math.min(9, Math.floor(chance * 10)) === tenth)
    return { believed: here.reduce((total, [chance]) => total + chance, 0) / Math.max(1, here.length), so: here.filter(([, so]) => so).length / Math.max(1, here.length), count: here.length }
  })
}

function sum(pick: readonly number[], of: (index: number) => number): number {
  return pick.reduce((total, index) => total + of(index), 0)
}
