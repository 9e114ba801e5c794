import type { SweepPoint } from './sweep-point'

/** Where the current stops climbing like a resistor's: the motor has started. */
export interface StartBreak {
  /** Readings at or below this voltage are standing still. */
  readonly lastStandingVoltage: number
  readonly firstTurningVoltage: number
}

/**
 * Finds the start of turning in a sweep without speeds: below it current rises along V = Vb + I·R, above it
 * the back-EMF holds the current nearly level. The best of all two-line splits is taken, and only believed
 * when the second line climbs at less than half the first one's slope.
 *
 * @param points running readings of one direction whose speed is unknown; at least two on each side are needed
 * @returns null where no such break shows
 * @example
 * findStartBreak(
 *   [
 *     [1, 0.05],
 *     [2, 0.1],
 *     [3, 0.15],
 *     [4, 0.08],
 *     [5, 0.085],
 *     [6, 0.09],
 *   ].map(([voltage, current]) => ({ voltage, current, speed: null, locked: false, direction: 'forward' })),
 * ) // { lastStandingVoltage: 3, firstTurningVoltage: 4 }
 */
export function findStartBreak(points: readonly SweepPoint[]): StartBreak | null {
  const sorted = [...points].sort((a, b) => a.voltage - b.voltage)
  let best: { error: number; split: number } | null = null
  for (let split = 2; split <= sorted.length - 2; split++) {
    const standing = lineThrough(sorted.slice(0, split))
    const turning = lineThrough(sorted.slice(split))
    if (!standing || !turning) continue
    const climbsLikeAResistor = standing.slope > 0 && turning.slope < 0.5 * standing.slope
    const noSteepJump = standing.intercept <= 0.25 * (sorted[split - 1] as SweepPoint).current
    if (!climbsLikeAResistor || !noSteepJump) continue
    const error = standing.error + turning.error
    if (!best || error < best.error) best = { error, split }
  }
  if (!best) return null
  return {
    lastStandingVoltage: (sorted[best.split - 1] as SweepPoint).voltage,
    firstTurningVoltage: (sorted[best.split] as SweepPoint).voltage,
  }
}

function lineThrough(points: readonly SweepPoint[]): { slope: number; intercept: number; error: number } | null {
  const count = points.length
  const meanVoltage = points.reduce((sum, point) => sum + point.voltage, 0) / count
  const meanCurrent = points.reduce((sum, point) => sum + point.current, 0) / count
  const spread = points.reduce((sum, point) => sum + (point.voltage - meanVoltage) ** 2, 0)
  if (spread === 0) return null
  const slope =
    points.reduce((sum, point) => sum + (point.voltage - meanVoltage) * (point.current - meanCurrent), 0) / spread
  const intercept = meanCurrent - slope * meanVoltage
  const error = points.reduce((sum, point) => sum + (point.current - intercept - slope * point.voltage) ** 2, 0)
  return { slope, intercept, error }
}
