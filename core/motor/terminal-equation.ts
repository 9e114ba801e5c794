import { dropFromPairs } from './held-pairs'
import { solveWeightedLeastSquares } from './weighted-least-squares'
import { scatterOf, type SweepPoint } from './sweep-point'

/**
 * The terminal equation of a brushed DC motor, V = R·I + Ke·ω + Vb, fitted to locked points and to running
 * points of known speed by least squares with effective variance: the scatter of V, of R·I and of Ke·ω
 * together make the variance of a row.
 *
 * The brush drop Vb is the hard part: a sheet seldom separates it from R. Two models are fitted, one without
 * a drop (metal brushes) and one with a drop somewhere around 0 ± 0.3 V (carbon brushes; common practice, no
 * source), and weighed against each other by the Savage–Dickey density ratio (Dickey 1971). The result is
 * their mixture, so an undecided drop widens the interval of R instead of biasing it.
 */
export interface TerminalEquation {
  /** [R in Ω, Ke in V·s/rad or null column dropped, Vb in V] */
  readonly resistance: number
  readonly backEmf: number | null
  readonly brushDrop: number
  /** 3 × 3, order R, Ke, Vb; statistical part only. Ke's row is 0 when it was not fitted. */
  readonly covariance: number[][]
  /** Probability given to "no brush drop at all". */
  readonly noDropProbability: number
  readonly lockedCount: number
  readonly runningCount: number
}

/** Standard deviation of the brush drop before any reading, V. Common practice, no source. */
export const BRUSH_DROP_PRIOR_VOLTS = 0.3

/**
 * Relative spread of locked resistance with armature angle, used until three locked points show it:
 * a ring-wound three-pole armature lies evenly between ½ and ⅔ of a winding (derived: (1/6)/√12 ÷ 7/12).
 */
export const LOCKED_ANGLE_SPREAD = 0.082

/**
 * @param points locked points, and running points whose speed is known; others must be left out
 * @returns null when the points cannot give even a resistance
 */
export function fitTerminalEquation(points: readonly SweepPoint[]): TerminalEquation | null {
  const locked = points.filter((point) => point.locked)
  const running = points.filter((point) => !point.locked && point.speed !== null)
  const used = [...locked, ...running]
  if (used.length === 0) return null
  const withSpeed = running.length > 0
  if (locked.length === 0 && running.length < 2) return null

  const withDrop = fitModel(used, withSpeed, true)
  if (!withDrop) return null
  const withoutDrop = locked.length > 0 ? fitModel(used, withSpeed, false) : null
  if (!withoutDrop) return assemble(withDrop, 0, locked.length, running.length)

  const drop = withDrop.parameters[2] as number
  const dropVariance = (withDrop.covariance[2] as number[])[2] as number
  const densityAtZero = Math.exp((-drop * drop) / (2 * dropVariance)) / Math.sqrt(dropVariance)
  const oddsForNoDrop = densityAtZero * BRUSH_DROP_PRIOR_VOLTS
  const noDropProbability = oddsForNoDrop / (1 + oddsForNoDrop)
  return assemble(mix(withoutDrop, withDrop, noDropProbability), noDropProbability, locked.length, running.length)
}

interface ModelFit {
  /** R, Ke, Vb; Ke is 0 when not fitted, Vb is 0 in the model without a drop. */
  readonly parameters: number[]
  readonly covariance: number[][]
}

function fitModel(points: readonly SweepPoint[], withSpeed: boolean, withDrop: boolean): ModelFit | null {
  const columns = [0, ...(withSpeed ? [1] : []), ...(withDrop ? [2] : [])]
  const pairs = withDrop ? dropFromPairs(points) : null
  let resistance = estimateResistance(points)
  let backEmf = 0
  let scales = { locked: 1, running: 1 }
  let fit: ModelFit | null = null
  for (let round = 0; round < 12; round++) {
    const rows: number[][] = []
    const observed: number[] = []
    const weights: number[] = []
    for (const point of points) {
      const full = [point.current, point.speed ?? 0, 1]
      rows.push(columns.map((column) => full[column] as number))
      observed.push(point.voltage)
      weights.push(1 / variance(point, resistance, backEmf, scales))
    }
    if (withDrop) {
      rows.push(columns.map((column) => (column === 2 ? 1 : 0)))
      observed.push(0)
      weights.push(1 / BRUSH_DROP_PRIOR_VOLTS ** 2)
      if (pairs) {
        rows.push(columns.map((column) => (column === 2 ? 1 : 0)))
        observed.push(pairs.volts)
        weights.push(1 / pairs.deviation ** 2)
      }
    }
    const solution = solveWeightedLeastSquares(rows, observed, weights)
    if (!solution) return null
    fit = widen(solution.parameters, solution.covariance, columns)
    const [newResistance = 0, newBackEmf = 0] = fit.parameters
    const newScales = groupScales(points, fit.parameters, columns.length)
    const settled =
      Math.abs(newResistance - resistance) < 1e-9 * Math.abs(newResistance) &&
      Math.abs(newScales.locked - scales.locked) < 1e-6 * newScales.locked &&
      Math.abs(newScales.running - scales.running) < 1e-6 * newScales.running
    resistance = newResistance
    backEmf = newBackEmf
    scales = newScales
    if (settled && round > 1) break
  }
  return fit
}

function estimateResistance(points: readonly SweepPoint[]): number {
  const locked = points.filter((point) => point.locked)
  const source = locked.length > 0 ? locked : points
  const ratios = source.map((point) => point.voltage / point.current).sort((a, b) => a - b)
  const middle = ratios[Math.floor(ratios.length / 2)] as number
  return locked.length > 0 ? middle : middle / 5
}

/** Effective variance of one row; the scale of its group multiplies all of it. */
function variance(
  point: SweepPoint,
  resistance: number,
  backEmf: number,
  scales: { locked: number; running: number },
): number {
  const scatter = scatterOf(point)
  const floor = 1e-6 * point.voltage
  const own = scatter.voltage ** 2 + (resistance * scatter.current) ** 2 + (backEmf * scatter.speed) ** 2 + floor ** 2
  return own * (point.locked ? scales.locked : scales.running)
}

/**
 * How much larger (or smaller) the residuals of locked and of running points are than their given scatter.
 * Locked points scatter with the armature angle, so the two groups are judged apart.
 */
function groupScales(
  points: readonly SweepPoint[],
  parameters: readonly number[],
  parameterCount: number,
): { locked: number; running: number } {
  const [resistance = 0, backEmf = 0, drop = 0] = parameters
  const unit = { locked: 1, running: 1 }
  const scaleOf = (group: readonly SweepPoint[], freedomTaken: number, assumed: () => number): number => {
    const freedom = group.length - freedomTaken
    if (freedom < 1 || group.length < 3) return assumed()
    const sum = group.reduce((total, point) => {
      const residual = point.voltage - resistance * point.current - backEmf * (point.speed ?? 0) - drop
      return total + residual ** 2 / variance(point, resistance, backEmf, unit)
    }, 0)
    return Math.max(sum / freedom, 1e-6)
  }
  const locked = points.filter((point) => point.locked)
  const running = points.filter((point) => !point.locked)
  return {
    locked: scaleOf(locked, running.length > 0 ? 1 : Math.min(parameterCount, 2), () =>
      assumedLockedScale(locked, resistance, unit),
    ),
    running: scaleOf(running, locked.length > 0 ? 1 : 2, () => 1),
  }
}

function assumedLockedScale(
  locked: readonly SweepPoint[],
  resistance: number,
  unit: { locked: number; running: number },
): number {
  const point = locked[0]
  if (!point) return 1
  const spread = LOCKED_ANGLE_SPREAD * resistance * point.current
  return 1 + spread ** 2 / variance(point, resistance, 0, unit)
}

/** Puts the fitted columns back into the full order R, Ke, Vb. */
function widen(
  parameters: readonly number[],
  covariance: readonly (readonly number[])[],
  columns: readonly number[],
): ModelFit {
  const full = [0, 0, 0]
  const wide = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ]
  columns.forEach((column, a) => {
    full[column] = parameters[a] as number
    columns.forEach((other, b) => {
      ;(wide[column] as number[])[other] = (covariance[a] as readonly number[])[b] as number
    })
  })
  return { parameters: full, covariance: wide }
}

function mix(first: ModelFit, second: ModelFit, weightOfFirst: number): ModelFit {
  const weights = [weightOfFirst, 1 - weightOfFirst]
  const fits = [first, second]
  const parameters = [0, 1, 2].map((i) =>
    fits.reduce((sum, fit, k) => sum + (weights[k] as number) * (fit.parameters[i] as number), 0),
  )
  const covariance = [0, 1, 2].map((i) =>
    [0, 1, 2].map((j) =>
      fits.reduce((sum, fit, k) => {
        const away =
          ((fit.parameters[i] as number) - (parameters[i] as number)) *
          ((fit.parameters[j] as number) - (parameters[j] as number))
        return sum + (weights[k] as number) * (((fit.covariance[i] as number[])[j] as number) + away)
      }, 0),
    ),
  )
  return { parameters, covariance }
}

function assemble(
  fit: ModelFit,
  noDropProbability: number,
  lockedCount: number,
  runningCount: number,
): TerminalEquation {
  const [resistance = 0, backEmf = 0, brushDrop = 0] = fit.parameters
  return {
    resistance,
    backEmf: runningCount > 0 ? backEmf : null,
    brushDrop,
    covariance: fit.covariance,
    noDropProbability,
    lockedCount,
    runningCount,
  }
}
