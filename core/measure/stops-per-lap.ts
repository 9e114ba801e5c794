import type { IntervalFigure } from './measured-value'

/**
 * Stops per lap with the exact 95 % Poisson interval (Garwood 1936), found by bisection on the Poisson sums.
 *
 * @param stops stops counted, whole and not negative
 * @param laps laps run, more than zero
 * @throws RangeError for a count that is not whole, negative, or no laps
 * @example stopsPerLap(4, 10) // { value: 0.4, low: 0.109, high: 1.024, unit: 'stops per lap' }
 */
export function stopsPerLap(stops: number, laps: number): IntervalFigure {
  if (!Number.isInteger(stops) || stops < 0) throw new RangeError('Stops are counted in whole numbers from 0.')
  if (!(laps > 0)) throw new RangeError('Stops per lap need at least part of a lap.')
  const low = stops === 0 ? 0 : bisect((mean) => 1 - poissonCumulative(stops - 1, mean), 0.025, 0, stops + 1)
  const high = bisect((mean) => -poissonCumulative(stops, mean), -0.025, 0, stops + 10 * Math.sqrt(stops + 1) + 10)
  return { value: stops / laps, low: low / laps, high: high / laps, unit: 'stops per lap' }
}

/**
 * Whether two counts over their laps differ at the 95 % level: the exact conditional (binomial) test of two
 * Poisson rates (Przyborowski & Wilenski 1940), two-sided by doubling the smaller tail.
 *
 * @example stopRatesDiffer({ stops: 12, laps: 10 }, { stops: 1, laps: 10 }) // true
 */
export function stopRatesDiffer(
  before: { stops: number; laps: number },
  after: { stops: number; laps: number },
): boolean {
  const total = before.stops + after.stops
  if (total === 0) return false
  const share = before.laps / (before.laps + after.laps)
  const lowerTail = binomialCumulative(before.stops, total, share)
  const upperTail = 1 - (before.stops === 0 ? 0 : binomialCumulative(before.stops - 1, total, share))
  return 2 * Math.min(lowerTail, upperTail) < 0.05
}

function poissonCumulative(count: number, mean: number): number {
  let term = Math.exp(-mean)
  let sum = term
  for (let k = 1; k <= count; k++) {
    term *= mean / k
    sum += term
  }
  return Math.min(1, sum)
}

function binomialCumulative(successes: number, trials: number, probability: number): number {
  let term = (1 - probability) ** trials
  let sum = term
  for (let k = 1; k <= successes; k++) {
    term *= ((trials - k + 1) / k) * (probability / (1 - probability))
    sum += term
  }
  return Math.min(1, sum)
}

/** Finds where a rising function reaches `target`. */
function bisect(rising: (x: number) => number, target: number, from: number, to: number): number {
  let low = from
  let high = to
  for (let step = 0; step < 80; step++) {
    const middle = (low + high) / 2
    if (rising(middle) < target) low = middle
    else high = middle
  }
  return (low + high) / 2
}
