import { solveWeightedLeastSquares } from './weighted-least-squares'
import { scatterOf, type SweepPoint } from './sweep-point'

/**
 * The unloaded current against speed, I = a + c·ω: with torque constant Kt = Ke it is the friction
 * Kt·I = Tc + b·ω, so Tc = Ke·a and b = Ke·c.
 */
export interface FrictionLine {
  /** Current at standstill, A. */
  readonly currentAtRest: number
  /** A·s/rad; null when the speeds are too alike to tell. */
  readonly currentPerSpeed: number | null
  /** 2 × 2, order a, c. */
  readonly covariance: number[][]
  readonly count: number
}

/** The fastest point must turn this much faster than the slowest for the slope to be told. */
export const SPEED_SPREAD_NEEDED = 1.25

/**
 * @param running running points of known speed
 * @returns null without any such point
 */
export function fitFrictionLine(running: readonly SweepPoint[]): FrictionLine | null {
  const points = running.filter((point) => !point.locked && point.speed !== null && point.speed > 0)
  if (points.length === 0) return null
  const speeds = points.map((point) => point.speed as number)
  const spreadEnough = points.length >= 3 && Math.max(...speeds) / Math.min(...speeds) >= SPEED_SPREAD_NEEDED
  const weights = points.map((point) => 1 / Math.max(scatterOf(point).current ** 2, 1e-12))
  const currents = points.map((point) => point.current)
  const rows = points.map((point) => (spreadEnough ? [1, point.speed as number] : [1]))
  const solution = solveWeightedLeastSquares(rows, currents, weights)
  if (!solution) return null
  const [currentAtRest = 0, slope = 0] = solution.parameters
  const freedom = points.length - (spreadEnough ? 2 : 1)
  const chiSquared = points.reduce(
    (sum, point, i) =>
      sum + (weights[i] as number) * (point.current - currentAtRest - slope * (point.speed as number)) ** 2,
    0,
  )
  const scale = freedom >= 1 ? Math.max(chiSquared / freedom, 1e-6) : 1
  const at = (i: number, j: number): number => (solution.covariance[i]?.[j] ?? 0) * scale
  return {
    currentAtRest,
    currentPerSpeed: spreadEnough ? slope : null,
    covariance: [
      [at(0, 0), at(0, 1)],
      [at(1, 0), at(1, 1)],
    ],
    count: points.length,
  }
}
