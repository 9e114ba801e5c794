import { expectedContinuity } from '../core/continuity/expected-continuity'
import { judgeContinuity } from '../core/continuity/judge-continuity'
import { benchTestsOf } from '../core/diagnosis/bench-tests'
import { continuityFindings } from '../core/diagnosis/continuity-findings'
import type { Knowledge } from '../core/diagnosis/knowledge-schema'
import { placesOf } from '../core/diagnosis/places-of'
import { sheetFindings } from '../core/diagnosis/sheet-findings'
import { Circuit } from '../core/engine/circuit'
import type { EngineDescription } from '../core/engine/description-schema'
import { operatingPoint } from '../core/engine/operating-point'
import { runningPositions } from '../core/engine/pickup-map'
import { judgeSheet } from '../core/motor/sheet-judgement'
import type { JobBook } from './book'
import { continuitySheet, continuityStates } from './continuity-sheet'
import { countingReadings, machineFacts, windingCelsius } from './sheet-readings'

/** A finding nobody had to enter at a test: a sheet of the job says it. */
export interface GatheredFinding {
  readonly id: string
  readonly from: 'continuity' | 'sheet'
  readonly engineState: number
  readonly test: string
  readonly outcome: string
  readonly words: string
  readonly at: string
}

/**
 * What the job's own sheets say to the diagnosis: continuity wheel by wheel, and test sheets taken on the track.
 *
 * @param book the job
 * @param description of its engine
 * @param knowledge checked
 */
export function gatheredFindings(book: Pick<JobBook, 'continuity' | 'sheets' | 'type'>, description: EngineDescription, knowledge: Knowledge): GatheredFinding[] {
  const plan = continuityStates(book.continuity).length > 0 ? expectedContinuity(description) : null
  const wheels = plan === null ? [] : continuityStates(book.continuity).flatMap((engineState) => {
    const at = book.continuity.findLast((row) => row.engineState === engineState)?.capturedAt ?? ''
    return continuityFindings(description, knowledge, judgeContinuity(plan, continuitySheet(book.continuity, engineState)))
      .map((found): GatheredFinding => ({ ...found, id: `continuity:${engineState}:${found.test}`, from: 'continuity', engineState, at }))
  })
  const machine = machineFacts(book.type)
  // Behind a decoder or a wound field the track's current is not the motor's.
  const plain = description.power === 'dc' && description.motors.every((motor) => motor.field === null)
  const circuit = plain ? new Circuit(description) : null
  const usualAmps = (volts: number): number | null => (circuit ? Math.abs(operatingPoint(circuit, { switches: runningPositions(description) }, { plus: description.rails.plus, minus: description.rails.minus, volts }).supplyAmps) : null)
  // What was measured between the steps of a rebuild was not measured on the track.
  const sheets = book.sheets.filter((sheet) => sheet.station !== 'rebuild').flatMap((sheet) => {
    const readings = countingReadings(sheet, machine)
    const judgement = judgeSheet(readings, machine, { windingCelsius: windingCelsius(sheet), supply: sheet.supply === 'ac' ? 'ac' : 'dc' })
    const runTest = description.power !== 'dcc' ? 'track-run' : sheet.supply === 'dcc' ? 'dcc-run' : 'dc-run'
    return sheetFindings(readings, judgement, { nominalVolts: machine.nominalVoltage, runTest, usualAmps })
      .map((found): GatheredFinding => ({ ...found, id: `sheet:${sheet.id}:${found.test}`, from: 'sheet', engineState: sheet.engineState, at: sheet.readings.at(-1)?.capturedAt ?? sheet.openedAt }))
  })
  const known = new Set(benchTestsOf(description, placesOf(description), knowledge, new Set([`power-${description.power}` as const])).map((test) => test.id))
  return [...wheels, ...sheets].filter((found) => known.has(found.test)).sort((first, second) => first.at.localeCompare(second.at))
}
