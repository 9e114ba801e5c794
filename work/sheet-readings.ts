import type { MachineFacts, SheetReading } from '../core/motor/sheet-reading'
import { doubtVoltage } from '../core/motor/sheet-judgement'
import { findScale } from '../core/measure/scales'
import type { EngineTypeRow, SheetRow } from '../messages/book'
import { motorReading, type ReadingFields } from '../messages/readings/reading-kinds'
import type { Quantities } from '../messages/readings/recorded-quantity'

/** A reading that may have been struck out. */
export type KeptLine = ReadingFields & { readonly struck: boolean }

/** Lines that no later line supersedes: what stands on the sheet, struck-out ones included. */
export function standingReadings<R extends { id: string; supersedesId: string | null }>(readings: readonly R[]): R[] {
  const superseded = new Set(readings.map((reading) => reading.supersedesId))
  return readings.filter((reading) => !superseded.has(reading.id))
}

/** Lines that count towards the judgement: standing, not struck, not doubtful without a voucher. */
export function countingReadings(
  sheet: { readonly readings: ReadonlyArray<KeptLine & { readonly id: string; readonly supersedesId: string | null }> },
  machine: MachineFacts,
): SheetReading[] {
  return standingReadings(sheet.readings)
    .filter((reading) => !reading.struck && readingDoubt(reading, machine) === null)
    .flatMap((reading) => motorReading(reading) ?? [])
}

/** The question a line raises, or null when it is believable or vouched for. */
export function readingDoubt(
  { quantities, vouched }: { readonly quantities: Quantities; readonly vouched: boolean },
  machine: MachineFacts,
): string | null {
  const { voltage } = quantities
  return voltage && !vouched ? doubtVoltage(voltage.value, machine.nominalVoltage) : null
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

/** Temperature the winding had: the room's, but only where the machine had not been warmed up. */
export function windingCelsius(sheet: Pick<SheetRow, 'roomCelsius' | 'warmedUp'>): number | null {
  return sheet.warmedUp ? null : sheet.roomCelsius
}
