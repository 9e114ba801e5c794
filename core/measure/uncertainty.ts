/**
 * Standard uncertainties after JCGM 100:2008 (GUM): what the meter may be off by, what repeating shows,
 * and the two together.
 */

/** A meter's stated accuracy on the range in use: ±(percent of reading + digits of the last place). */
export interface MeterAccuracy {
  readonly percentOfReading: number
  readonly digits: number
  /** The step of the last place on that range, in SI. */
  readonly resolution: number
}

/** Taken where no meter is named: ±(1 % + 1 digit). Common practice for a hobby multimeter, no source. */
export const UNKNOWN_METER = { percentOfReading: 1, digits: 1 } as const

/**
 * Standard uncertainty of one reading from the meter's stated limits, taken as the half-width of a
 * rectangular distribution (GUM 4.3.7), with half a last digit for reading off.
 *
 * @param value the reading, SI
 * @example meterStandardUncertainty(12, { percentOfReading: 0.5, digits: 2, resolution: 0.01 }) // 0.04628
 */
export function meterStandardUncertainty(value: number, accuracy: MeterAccuracy): number {
  const limit = (accuracy.percentOfReading / 100) * Math.abs(value) + accuracy.digits * accuracy.resolution
  const quantisation = accuracy.resolution / 2
  return Math.hypot(limit, quantisation) / Math.sqrt(3)
}

/**
 * Combined standard uncertainty of independent parts (GUM 5.1.2).
 *
 * @example combineStandardUncertainties(3, 4) // 5
 */
export function combineStandardUncertainties(...parts: number[]): number {
  return Math.hypot(...parts)
}

/**
 * Two-sided 95 % Student factor. JCGM 100:2008 Table G.2 (published), interpolated in 1/ν between its rows.
 *
 * @param degreesOfFreedom ν ≥ 1; Infinity allowed
 * @throws RangeError below one degree of freedom
 * @example studentFactor95(4) // 2.78
 */
export function studentFactor95(degreesOfFreedom: number): number {
  if (!(degreesOfFreedom >= 1)) throw new RangeError('A Student factor needs at least one degree of freedom.')
  const exact = TABLE_G2.find(([nu]) => nu === degreesOfFreedom)
  if (exact) return exact[1]
  const upper = TABLE_G2.findIndex(([nu]) => nu > degreesOfFreedom)
  const [nuLow, factorLow] = TABLE_G2[upper - 1] as readonly [number, number]
  const [nuHigh, factorHigh] = TABLE_G2[upper] as readonly [number, number]
  const position = (1 / nuLow - 1 / degreesOfFreedom) / (1 / nuLow - 1 / nuHigh)
  return factorLow + position * (factorHigh - factorLow)
}

const TABLE_G2: ReadonlyArray<readonly [number, number]> = [
  [1, 12.71],
  [2, 4.3],
  [3, 3.18],
  [4, 2.78],
  [5, 2.57],
  [6, 2.45],
  [7, 2.36],
  [8, 2.31],
  [9, 2.26],
  [10, 2.23],
  [11, 2.2],
  [12, 2.18],
  [13, 2.16],
  [14, 2.14],
  [15, 2.13],
  [16, 2.12],
  [17, 2.11],
  [18, 2.1],
  [19, 2.09],
  [20, 2.09],
  [25, 2.06],
  [30, 2.04],
  [35, 2.03],
  [40, 2.02],
  [45, 2.01],
  [50, 2.01],
  [100, 1.984],
  [Number.POSITIVE_INFINITY, 1.96],
]
