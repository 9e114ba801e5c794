import type { MachineFacts, ReadQuantity, SheetReading, TimedRun } from '../core/motor/sheet-reading'
import { doubtVoltage } from '../core/motor/sheet-judgement'
import { findScale } from '../core/measure/scales'
import type { EngineTypeRow, ReadingRow, SheetRow } from '../messages/book'
import type { ReadingFields, RecordedQuantity } from '../messages/bench-entries'

/** Lines that no later line supersedes: what stands on the sheet, struck-out ones included. */
export function standingReadings<R extends { id: string; supersedesId: string | null }>(readings: readonly R[]): R[] {
  const superseded = new Set(readings.map((reading) => reading.supersedesId))
  return readings.filter((reading) => !superseded.has(reading.id))
}

/** Lines that count towards the judgement: standing, not struck, not doubtful without a voucher. */
export function countingReadings(sheet: Pick<SheetRow, 'readings'>, machine: MachineFacts): SheetReading[] {
  return (
    standingReadings(sheet.readings)
      // What a sequence switch did is no reading of the motor: its neutral is not a held armature.
      .filter(
        (reading) =>
          !reading.struck && (!reading.step || reading.kind === 'trial') && readingDoubt(reading, machine) === null,
      )
      .flatMap((reading) => toSheetReading(reading) ?? [])
  )
}

/** The question a line raises, or null when it is believable or vouched for. */
export function readingDoubt(
  reading: Pick<ReadingRow, 'quantities' | 'vouched'>,
  machine: MachineFacts,
): string | null {
  const { voltage } = reading.quantities
  return voltage && !reading.vouched ? doubtVoltage(voltage.value, machine.nominalVoltage) : null
}

export function machineFacts(type: EngineTypeRow): MachineFacts {
  return {
    power: type.motorKind === 'ac-series' ? 'ac' : type.power,
    nominalVoltage: type.nominalVolts,
    scaleRatio: type.scaleId ? (findScale(type.scaleId)?.ratio ?? null) : null,
    gearRatio: type.gearRatio,
    wheelDiameterMetres: type.wheelDiameterMm === null ? null : type.wheelDiameterMm / 1000,
  }
}

/** A written line in the core's own form; null when the line lacks what its kind needs. */
export function toSheetReading({
  kind,
  direction,
  quantities,
}: Pick<ReadingFields, 'kind' | 'direction' | 'quantities'>): SheetReading | null {
  const way = direction ?? 'forward'
  const voltage = quantity(quantities.voltage)
  const current = quantity(quantities.current)
  const run = timedRun(quantities)
  switch (kind) {
    case 'running':
      return voltage && current && current.value > 0
        ? { kind, direction: way, voltage, current, speed: quantity(quantities.rotation), run }
        : null
    case 'locked':
      return voltage && current && current.value > 0
        ? { kind, direction: way, voltage, current, angle: quantities.angle?.value ?? null, ...holdOf(quantities) }
        : null
    case 'timed':
    case 'creep':
      return run ? { kind, direction: way, run } : null
    case 'stops':
      return quantities.stops && quantities.laps && quantities.laps.value > 0
        ? { kind, stops: quantities.stops.value, laps: quantities.laps.value }
        : null
    case 'trial':
      return quantities.failures && quantities.attempts
        ? { kind, failures: quantities.failures.value, attempts: quantities.attempts.value }
        : null
    case 'dead':
      return { kind, voltage }
  }
}

/** Which hold a held reading belongs to: counted by an instrument, or by the angle somebody noted. */
function holdOf({ hold, angle }: ReadingFields['quantities']): { hold?: number } {
  if (hold) return { hold: hold.value }
  return angle ? { hold: HELD_BY_ANGLE + Math.round((angle.value * 180) / Math.PI) } : {}
}

/** Degrees noted by hand are kept apart from holds an instrument counted. */
const HELD_BY_ANGLE = 1000

function quantity(recorded: RecordedQuantity | undefined): ReadQuantity | null {
  return recorded ? { value: recorded.value, resolution: recorded.resolution, meter: recorded.meter } : null
}

function timedRun(quantities: ReadingFields['quantities']): TimedRun | null {
  const distance = quantity(quantities.distance)
  const duration = quantity(quantities.duration)
  return distance && duration && distance.value > 0 && duration.value > 0 ? { distance, duration } : null
}

/** Temperature the winding had: the room's, but only where the machine had not been warmed up. */
export function windingCelsius(sheet: Pick<SheetRow, 'roomCelsius' | 'warmedUp'>): number | null {
  return sheet.warmedUp ? null : sheet.roomCelsius
}
