import { currentFigure } from '../core/motor/sheet-judgement'
import { judgeStep, type StepVerdict, type TestedStep } from '../core/motor/step-comparison'
import type { ReadingRow, SheetRow } from '../messages/book'
import { meteredAfterStep } from '../messages/readings/after-step'
import { standingReadings } from './sheet-readings'

/** A test on the way back together, with what it says against the one before. */
export interface JudgedStep extends TestedStep {
  readonly at: string
  readonly measured: boolean
  readonly verdict: StepVerdict
}

type StepLine = Extract<ReadingRow, { kind: 'step' }>

/** The tests of a rebuild in the order they were taken: readings under one name in a row are repeats of one test. */
export function testedSteps(sheets: readonly Pick<SheetRow, 'station' | 'readings'>[]): JudgedStep[] {
  const lines = sheets
    .filter((sheet) => sheet.station === 'rebuild')
    .flatMap((sheet) =>
      standingReadings(sheet.readings).filter((line): line is StepLine => line.kind === 'step' && !line.struck),
    )
  const groups: StepLine[][] = []
  for (const line of lines.sort(
    (first, second) => first.capturedAt.localeCompare(second.capturedAt) || first.id.localeCompare(second.id),
  )) {
    const group = groups.at(-1)
    if (
      group &&
      group[0]?.step === line.step &&
      Date.parse(line.capturedAt) - Date.parse(group.at(-1)?.capturedAt ?? '') < SAME_TEST_MS
    )
      group.push(line)
    else groups.push([line])
  }
  const steps = groups.flatMap((group): Array<Omit<JudgedStep, 'verdict'>> => {
    const readings = group.flatMap((line) => meteredAfterStep(line) ?? [])
    const [first] = readings
    if (!first) return []
    return [
      {
        name: group[0]?.step ?? '',
        at: group[0]?.capturedAt ?? '',
        measured: group.every((line) => line.source === 'measured'),
        current: currentFigure(readings),
        volts: readings.reduce((sum, reading) => sum + reading.voltage.value, 0) / readings.length,
        turns: first.kind === 'locked' ? 'stands' : first.direction,
      },
    ]
  })
  return steps.map((step, index) => ({ ...step, verdict: judgeStep(steps[index - 1] ?? null, step) }))
}

/** Readings of one test follow each other faster than this; the same name later is a test of its own. */
const SAME_TEST_MS = 60_000
