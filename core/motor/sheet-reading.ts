import { meterStandardUncertainty, UNKNOWN_METER } from '../measure/uncertainty'
import { motorSpeedFromTrackSpeed } from '../measure/scales'
import { STOPWATCH_STANDARD_UNCERTAINTY_SECONDS, timedSpeed } from '../measure/timed-speed'
import type { Direction, SweepPoint } from './sweep-point'

/** One quantity of a reading: its SI value, the step of its last digit, and the meter it came from. */
export interface ReadQuantity {
  readonly value: number
  readonly resolution: number
  /** Null when the meter is not known. */
  readonly meter: { readonly percentOfReading: number; readonly digits: number } | null
}

/** What one line of a test sheet says. All quantities SI. */
export type SheetReading =
  | {
      readonly kind: 'running'
      readonly direction: Direction
      readonly voltage: ReadQuantity
      readonly current: ReadQuantity
      readonly speed: ReadQuantity | null
      readonly run: TimedRun | null
    }
  | {
      readonly kind: 'locked'
      readonly direction: Direction
      readonly voltage: ReadQuantity
      readonly current: ReadQuantity
      readonly angle: number | null
      readonly hold?: number
    }
  | { readonly kind: 'timed'; readonly direction: Direction; readonly run: TimedRun }
  | { readonly kind: 'creep'; readonly direction: Direction; readonly run: TimedRun }
  | { readonly kind: 'stops'; readonly stops: number; readonly laps: number }
  | { readonly kind: 'trial'; readonly failures: number; readonly attempts: number }
  | { readonly kind: 'dead'; readonly voltage: ReadQuantity | null }

export interface TimedRun {
  readonly distance: ReadQuantity
  readonly duration: ReadQuantity
}

/** What is known of the machine under test; null where it is not. */
export interface MachineFacts {
  readonly power: 'dc' | 'ac' | 'dcc'
  readonly nominalVoltage: number
  readonly scaleRatio: number | null
  readonly gearRatio: number | null
  readonly wheelDiameterMetres: number | null
}

export type MeteredReading = Extract<SheetReading, { kind: 'running' | 'locked' }>

export function isMetered(reading: SheetReading): reading is MeteredReading {
  return reading.kind === 'running' || reading.kind === 'locked'
}

/**
 * Turns a metered line into a point for the fit. The last digit scatters from reading to reading; the
 * percentage of the meter is common to all and is handed over apart, by `commonScale`.
 */
export function sweepPointOf(reading: MeteredReading, machine: MachineFacts): SweepPoint {
  const speed = reading.kind === 'locked' ? { value: 0, scatter: 0 } : motorSpeed(reading, machine)
  return {
    voltage: reading.voltage.value,
    current: reading.current.value,
    speed: speed?.value ?? null,
    locked: reading.kind === 'locked',
    ...(reading.kind === 'locked' && reading.hold !== undefined ? { hold: reading.hold } : {}),
    direction: reading.direction,
    scatter: {
      voltage: scatter(reading.voltage),
      current: scatter(reading.current),
      speed: speed?.scatter ?? 0,
    },
  }
}

/** Relative standard uncertainty the sheet's meters have in common: the worst percentage among its readings. */
export function commonScale(readings: readonly MeteredReading[]): { voltage: number; current: number; speed: number } {
  const worst = (pick: (reading: MeteredReading) => ReadQuantity | null): number =>
    readings.reduce((largest, reading) => {
      const quantity = pick(reading)
      return quantity ? Math.max(largest, (quantity.meter ?? UNKNOWN_METER).percentOfReading) : largest
    }, 0) /
    100 /
    Math.sqrt(3)
  return {
    voltage: worst((reading) => reading.voltage),
    current: worst((reading) => reading.current),
    speed: worst((reading) => (reading.kind === 'running' ? reading.speed : null)),
  }
}

/** Standard uncertainty of one quantity from its meter, percentage and digits together. */
export function quantityUncertainty(quantity: ReadQuantity): number {
  return meterStandardUncertainty(quantity.value, {
    ...(quantity.meter ?? UNKNOWN_METER),
    resolution: quantity.resolution,
  })
}

/** Last digits, and half a percent for the hand on the knob and the needle settling (common practice, no source). */
function scatter(quantity: ReadQuantity): number {
  const digits = (quantity.meter ?? UNKNOWN_METER).digits
  return Math.hypot((digits * quantity.resolution) / Math.sqrt(3), 0.005 * quantity.value)
}

function motorSpeed(
  reading: Extract<MeteredReading, { kind: 'running' }>,
  machine: MachineFacts,
): { value: number; scatter: number } | null {
  if (reading.speed) return { value: reading.speed.value, scatter: scatter(reading.speed) }
  const { gearRatio, wheelDiameterMetres } = machine
  if (!reading.run || gearRatio === null || wheelDiameterMetres === null) return null
  const track = timedSpeed(reading.run.distance.value, [reading.run.duration.value])
  const value = motorSpeedFromTrackSpeed(track.value, wheelDiameterMetres, gearRatio)
  return { value, scatter: (value * STOPWATCH_STANDARD_UNCERTAINTY_SECONDS) / reading.run.duration.value }
}
