import type { IntervalFigure } from './measured-value'

/** Standard uncertainty of one thumb on a stopwatch, start and stop together, s. Common practice, no source. */
export const STOPWATCH_STANDARD_UNCERTAINTY_SECONDS = 0.15

/** A measured run is laid out to this step at worst, however round the number typed: "1 m" is not 1 m give or take half a metre. Common practice, no source. */
export const COARSEST_TAPE_STEP_METRES = 0.005

/**
 * Speed over a timed distance with its 95 % interval: stopwatch and tape combined (GUM 5.1.2).
 *
 * @param distanceMetres measured run, m, > 0
 * @param durationSeconds one or more timings of that run, s, each > 0
 * @param distanceResolutionMetres the tape's step, m
 * @throws RangeError when a distance or a time is not above zero
 * @example timedSpeed(1, [5.1, 5.3, 5.2]).value // 0.1923
 */
export function timedSpeed(
  distanceMetres: number,
  durationSeconds: readonly number[],
  distanceResolutionMetres = 0.001,
): IntervalFigure {
  if (!(distanceMetres > 0)) throw new RangeError('A timed run needs a distance above zero.')
  if (durationSeconds.length === 0 || durationSeconds.some((seconds) => !(seconds > 0))) {
    throw new RangeError('A timed run needs a time above zero.')
  }
  const count = durationSeconds.length
  const mean = durationSeconds.reduce((sum, seconds) => sum + seconds, 0) / count
  const spread =
    count < 3 ? 0 : Math.sqrt(durationSeconds.reduce((sum, seconds) => sum + (seconds - mean) ** 2, 0) / (count - 1))
  const timeUncertainty = Math.max(STOPWATCH_STANDARD_UNCERTAINTY_SECONDS, spread) / Math.sqrt(count)
  const distanceUncertainty = Math.min(distanceResolutionMetres, COARSEST_TAPE_STEP_METRES) / Math.sqrt(3)
  const value = distanceMetres / mean
  const relative = Math.hypot(timeUncertainty / mean, distanceUncertainty / distanceMetres)
  return { value, low: value / (1 + 2 * relative), high: value * (1 + 2 * relative), unit: 'm/s' }
}
