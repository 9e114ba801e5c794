import { studentFactor95 } from '../measure/uncertainty'
import type { SweepPoint } from './sweep-point'

/** The drop at the brushes as pairs of readings show it, V. */
export interface DropFromPairs {
  readonly volts: number
  /** One standard deviation. */
  readonly deviation: number
}

/** Fewer pairs than this say little about their own scatter. */
const FEWEST_PAIRS = 3
/** Normal 95 % factor, to turn a Student half-width into a deviation. */
const NORMAL_95 = 1.96

/**
 * Two readings with the armature held at one and the same angle, at different volts, lie on V = Vb + I·R(angle)
 * (derived): whatever the angle, the line through them meets the axis at the drop of the brushes.
 *
 * @param points held readings; those of one hold share its number
 * @returns null with fewer than three such pairs
 */
export function dropFromPairs(points: readonly SweepPoint[]): DropFromPairs | null {
  const holds = new Map<number, SweepPoint[]>()
  for (const point of points) {
    if (!point.locked || point.hold === undefined) continue
    holds.set(point.hold, [...(holds.get(point.hold) ?? []), point])
  }
  const drops = [...holds.values()].flatMap((pair) => {
    const low = pair.reduce((least, point) => (point.current < least.current ? point : least))
    const high = pair.reduce((most, point) => (point.current > most.current ? point : most))
    const apart = high.current - low.current
    return apart < 0.2 * high.current ? [] : [low.voltage - (low.current * (high.voltage - low.voltage)) / apart]
  })
  if (drops.length < FEWEST_PAIRS) return null
  const mean = drops.reduce((sum, drop) => sum + drop, 0) / drops.length
  const spread = Math.sqrt(drops.reduce((sum, drop) => sum + (drop - mean) ** 2, 0) / (drops.length - 1))
  return {
    volts: mean,
    deviation: Math.max(1e-4, (spread / Math.sqrt(drops.length)) * (studentFactor95(drops.length - 1) / NORMAL_95)),
  }
}
