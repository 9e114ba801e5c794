import { studentFactor95 } from '../measure/uncertainty'
import { solveWeightedLeastSquares } from './weighted-least-squares'
import { scatterOf, type SweepPoint } from './sweep-point'

/** Unloaded current against voltage, I = α + β·V: all a sheet without speeds can say while it runs. */
export interface SupplyLine {
  currentAt(voltage: number, relativeScaleUncertainty?: number): { value: number; low: number; high: number }
}

/** The highest voltage must exceed the lowest by this factor for a line to be drawn. */
const VOLTAGE_SPREAD_NEEDED = 1.2

/**
 * @param running readings that turned freely, one or both directions
 * @returns null with fewer than three readings or voltages too alike
 */
export function fitSupplyLine(running: readonly SweepPoint[]): SupplyLine | null {
  const voltages = running.map((point) => point.voltage)
  if (running.length < 3 || Math.max(...voltages) < Math.min(...voltages) * VOLTAGE_SPREAD_NEEDED) return null
  const weights = running.map((point) => 1 / Math.max(scatterOf(point).current ** 2, 1e-12))
  const solution = solveWeightedLeastSquares(
    voltages.map((voltage) => [1, voltage]),
    running.map((point) => point.current),
    weights,
  )
  if (!solution) return null
  const [offset = 0, slope = 0] = solution.parameters
  const freedom = running.length - 2
  const chiSquared = running.reduce(
    (sum, point, i) => sum + (weights[i] as number) * (point.current - offset - slope * point.voltage) ** 2,
    0,
  )
  const scale = Math.max(chiSquared / freedom, 1e-6)
  const [[c00 = 0, c01 = 0] = [], [, c11 = 0] = []] = solution.covariance
  return {
    currentAt(voltage, relativeScaleUncertainty = 0) {
      const value = offset + slope * voltage
      const variance = scale * (c00 + 2 * voltage * c01 + voltage ** 2 * c11) + (relativeScaleUncertainty * value) ** 2
      const half = studentFactor95(freedom) * Math.sqrt(variance)
      return { value, low: value - half, high: value + half }
    },
  }
}
