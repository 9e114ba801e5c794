import { combineStandardUncertainties, studentFactor95 } from './uncertainty'

/**
 * Spread taken when fewer than three repeats were made under the same conditions: 5 % of the value.
 * Cautious on purpose; common practice, no source. The sheet says when it is used.
 */
export const DEFAULT_REPEATABILITY_FRACTION = 0.05

/** Several readings of one thing under the same conditions (warm, same direction, same track), with both uncertainty parts. */
export interface RepeatedMeasurement {
  readonly mean: number
  readonly count: number
  /** Standard uncertainty of the mean from repeating. */
  readonly repeatability: number
  /** Standard uncertainty of the mean from the meter. */
  readonly meter: number
  readonly combined: number
  /** Expanded uncertainty U at 95 %. */
  readonly expanded: number
  /** Factor from combined to expanded, with the effective degrees of freedom of GUM G.4.1. */
  readonly coverageFactor: number
  readonly degreesOfFreedom: number
  /** True when fewer than three repeats forced the cautious default. */
  readonly repeatabilityAssumed: boolean
}

/**
 * Puts repeated readings together by the two-part rule.
 *
 * @param values the readings, SI, at least one
 * @param meterUncertainty standard uncertainty of the meter at this value, SI; it does not shrink with repeats
 * @throws RangeError when no reading is given
 * @example repeatedMeasurement([4.1, 4.3, 4.2], 0.05).expanded // 0.1861
 */
export function repeatedMeasurement(values: readonly number[], meterUncertainty: number): RepeatedMeasurement {
  const count = values.length
  if (count === 0) throw new RangeError('A repeated measurement needs at least one reading.')
  const mean = values.reduce((sum, value) => sum + value, 0) / count
  const assumed = count < 3
  const spread = assumed
    ? DEFAULT_REPEATABILITY_FRACTION * Math.abs(mean)
    : Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (count - 1))
  const repeatability = spread / Math.sqrt(count)
  const combined = combineStandardUncertainties(repeatability, meterUncertainty)
  const degreesOfFreedom =
    assumed || repeatability === 0 ? Number.POSITIVE_INFINITY : (count - 1) * (combined / repeatability) ** 4
  const coverageFactor = studentFactor95(Math.max(1, degreesOfFreedom))
  return {
    mean,
    count,
    repeatability,
    meter: meterUncertainty,
    combined,
    expanded: coverageFactor * combined,
    coverageFactor,
    degreesOfFreedom,
    repeatabilityAssumed: assumed,
  }
}
