import type { Direction, SweepPoint } from './sweep-point'

/** A motor with known constants, from which tests make readings by the stated law. */
export interface KnownMotor {
  readonly resistance: number
  readonly backEmf: number
  readonly brushDrop: number
  readonly coulombFriction: number
  readonly viscousFriction: number
}

export const SMALL_FIVE_POLE: KnownMotor = {
  resistance: 22,
  backEmf: 0.0072,
  brushDrop: 0,
  coulombFriction: 4e-4,
  viscousFriction: 2e-7,
}

export function runningPoint(motor: KnownMotor, voltage: number, direction: Direction = 'forward'): SweepPoint {
  const rest = motor.coulombFriction / motor.backEmf
  const rise = motor.viscousFriction / motor.backEmf
  const speed = (voltage - motor.brushDrop - motor.resistance * rest) / (motor.backEmf + motor.resistance * rise)
  return { voltage, current: rest + rise * speed, speed, locked: false, direction }
}

export function lockedPoint(motor: KnownMotor, voltage: number, direction: Direction = 'forward'): SweepPoint {
  return { voltage, current: (voltage - motor.brushDrop) / motor.resistance, speed: 0, locked: true, direction }
}

/** `count` voltages evenly from `low` to `high`. */
export function spread(low: number, high: number, count: number): number[] {
  return Array.from({ length: count }, (_, i) => low + ((high - low) * i) / (count - 1))
}

/** Multiplies every quantity by 1 + noise·N(0,1). */
export function withNoise(points: readonly SweepPoint[], relative: number, normal: () => number): SweepPoint[] {
  return points.map((point) => ({
    ...point,
    voltage: point.voltage * (1 + relative * normal()),
    current: point.current * (1 + relative * normal()),
    speed: point.speed === null ? null : point.speed * (1 + relative * normal()),
  }))
}
