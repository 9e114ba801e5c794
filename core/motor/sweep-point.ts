export type Direction = 'forward' | 'reverse'

/** One operating point of a brushed DC motor, SI units, sizes only: the direction carries the sign. */
export interface SweepPoint {
  readonly voltage: number
  readonly current: number
  /** rad/s; 0 when locked; null when it was not measured. */
  readonly speed: number | null
  readonly locked: boolean
  /** It stood still by itself, nobody holding it: at this voltage it does not start. */
  readonly stood?: boolean
  readonly direction: Direction
  /** Held readings at one and the same angle share a number; left out where nobody noted it. */
  readonly hold?: number
  /** Standard uncertainty of what scatters from reading to reading (last digit, stopwatch), SI. */
  readonly scatter?: { readonly voltage: number; readonly current: number; readonly speed: number }
}

/** Relative standard uncertainty of each meter's scale: the part that is the same for all readings of a sheet. */
export interface ScaleUncertainty {
  readonly voltage: number
  readonly current: number
  readonly speed: number
}

export const NO_SCALE_UNCERTAINTY: ScaleUncertainty = { voltage: 0, current: 0, speed: 0 }

/** Scatter taken for weights where none is given: 1 % of the reading. The fit then finds the true size from the residuals. */
export function scatterOf(point: SweepPoint): { voltage: number; current: number; speed: number } {
  return (
    point.scatter ?? {
      voltage: 0.01 * point.voltage,
      current: 0.01 * point.current,
      speed: 0.01 * (point.speed ?? 0),
    }
  )
}
