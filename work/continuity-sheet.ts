import type { ContinuityReading, WheelReadings } from '../core/continuity/judge-continuity'
import type { ContinuityRow } from '../messages/book'

/** The readings that stand in one state of the engine: the latest of each place, without those struck out. */
export function continuitySheet(rows: readonly ContinuityRow[], engineState: number): Record<string, WheelReadings> {
  const latest = new Map(
    rows.filter((row) => row.engineState === engineState).map((row) => [`${row.point} ${row.column}`, row]),
  )
  const sheet: Record<string, Partial<Record<ContinuityRow['column'], ContinuityReading>>> = {}
  for (const { point, column, reading } of latest.values()) {
    if (reading.kind === 'struck') continue
    sheet[point] = {
      ...sheet[point],
      [column]: reading.kind === 'ohms' ? { kind: 'ohms', ohms: reading.quantity.value } : reading,
    }
  }
  return sheet
}

/** States of the engine in which something was measured wheel by wheel, oldest first. */
export function continuityStates(rows: readonly ContinuityRow[]): number[] {
  return [...new Set(rows.map((row) => row.engineState))].sort((first, second) => first - second)
}
