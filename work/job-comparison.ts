import { compareSheets, type ComparisonLine } from '../core/motor/sheet-comparison'
import { judgeSheet, type SheetJudgement } from '../core/motor/sheet-judgement'
import type { SheetReading } from '../core/motor/sheet-reading'
import type { JobBook, SheetRow } from '../messages/book'
import { countingReadings, machineFacts, windingCelsius } from './sheet-readings'

export interface JudgedSheet {
  readonly sheet: SheetRow
  readonly readings: SheetReading[]
  readonly judgement: SheetJudgement
}

/** The job's latest sheets at First run and at Prove that hold anything, each judged, and the lines between them. */
export function compareJob(book: Pick<JobBook, 'sheets' | 'type'>): {
  before: JudgedSheet | null
  after: JudgedSheet | null
  lines: ComparisonLine[]
} {
  const machine = machineFacts(book.type)
  const latest = (station: 'first-run' | 'prove'): JudgedSheet | null => {
    for (const sheet of [...book.sheets].reverse()) {
      if (sheet.station !== station) continue
      const readings = countingReadings(sheet, machine)
      if (readings.length === 0) continue
      return { sheet, readings, judgement: judgeSheet(readings, machine, { windingCelsius: windingCelsius(sheet) }) }
    }
    return null
  }
  const before = latest('first-run')
  const after = latest('prove')
  const side = (judged: JudgedSheet) => ({
    readings: judged.readings,
    conditions: { windingCelsius: windingCelsius(judged.sheet) },
  })
  return { before, after, lines: before && after ? compareSheets(side(before), side(after), machine) : [] }
}
