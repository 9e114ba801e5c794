import { compareBeforeAfter, type Change } from '../measure/before-after'
import { isRefused, type IntervalFigure } from '../measure/measured-value'
import { stopRatesDiffer, stopsPerLap } from '../measure/stops-per-lap'
import { compareTrials } from '../measure/trial-outcome'
import { timedSpeed } from '../measure/timed-speed'
import { currentFigure, judgeSheet, sameVoltage, type SheetConditions } from './sheet-judgement'
import { isMetered, type MachineFacts, type MeteredReading, type SheetReading } from './sheet-reading'
import type { SweepFigureName } from './sweep-fit'

export type Verdict = 'better' | 'worse' | 'changed' | 'no-measurable-change' | 'cannot-compare'

/** One line of the before/after table. */
export interface ComparisonLine {
  readonly code: string
  readonly label: string
  readonly before: IntervalFigure | null
  readonly after: IntervalFigure | null
  readonly verdict: Verdict
  /** The verdict as a sentence, with the numbers' meaning. */
  readonly sentence: string
  /** True when fewer than three repeats forced the cautious default on one side. */
  readonly repeatabilityAssumed: boolean
}

export interface SheetToCompare {
  readonly readings: readonly SheetReading[]
  readonly conditions: SheetConditions
}

type WhatIsBetter = 'lower' | 'higher' | 'neither'

/**
 * Compares two sheets of one engine line by line; only what was measured on both sides is judged, and a
 * difference inside the combined expanded uncertainty is called none.
 */
export function compareSheets(before: SheetToCompare, after: SheetToCompare, machine: MachineFacts): ComparisonLine[] {
  return [
    ...lifeLine(before, after),
    ...trialLine(before, after),
    ...stopsLine(before, after),
    ...runLines(before, after),
    ...currentLines(before, after),
    ...fittedLines(before, after, machine),
  ]
}

function lifeLine(before: SheetToCompare, after: SheetToCompare): ComparisonLine[] {
  const dead = (sheet: SheetToCompare): boolean => sheet.readings.some((reading) => reading.kind === 'dead')
  const moves = (sheet: SheetToCompare): boolean =>
    sheet.readings.some((reading) => reading.kind !== 'dead' && reading.kind !== 'locked' && reading.kind !== 'trial')
  if (!dead(before)) return []
  if (dead(after)) return [plainLine('life', 'Runs at all', 'no-measurable-change', 'Dead before and dead after.')]
  return moves(after) ? [plainLine('life', 'Runs at all', 'better', 'Dead before, runs now.')] : []
}

function trialLine(before: SheetToCompare, after: SheetToCompare): ComparisonLine[] {
  const sum = (sheet: SheetToCompare): { failures: number; attempts: number } =>
    sheet.readings.reduce(
      (total, reading) =>
        reading.kind === 'trial'
          ? { failures: total.failures + reading.failures, attempts: total.attempts + reading.attempts }
          : total,
      { failures: 0, attempts: 0 },
    )
  const [first, second] = [sum(before), sum(after)]
  if (first.attempts === 0 || second.attempts === 0) return []
  const verdict = compareTrials(first, second)
  const counts = `failed ${first.failures} of ${first.attempts} before, ${second.failures} of ${second.attempts} after`
  const sentences = {
    cured: `The complaint is gone: ${counts}.`,
    better: `The complaint is rarer: ${counts}.`,
    worse: `The complaint is commoner: ${counts}.`,
    'no-measurable-change': `Too few attempts to tell: ${counts}.`,
  }
  return [plainLine('trial', 'The complaint’s trial', verdict === 'cured' ? 'better' : verdict, sentences[verdict])]
}

function stopsLine(before: SheetToCompare, after: SheetToCompare): ComparisonLine[] {
  const sum = (sheet: SheetToCompare): { stops: number; laps: number } =>
    sheet.readings.reduce(
      (total, reading) =>
        reading.kind === 'stops' ? { stops: total.stops + reading.stops, laps: total.laps + reading.laps } : total,
      { stops: 0, laps: 0 },
    )
  const [first, second] = [sum(before), sum(after)]
  if (first.laps === 0 || second.laps === 0) return []
  const [rateBefore, rateAfter] = [stopsPerLap(first.stops, first.laps), stopsPerLap(second.stops, second.laps)]
  const differs = stopRatesDiffer(first, second)
  const verdict: Verdict = !differs ? 'no-measurable-change' : rateAfter.value < rateBefore.value ? 'better' : 'worse'
  const counts = `${first.stops} in ${first.laps} before, ${second.stops} in ${second.laps} after`
  return [
    {
      code: 'stops',
      label: 'Stops per lap',
      before: rateBefore,
      after: rateAfter,
      verdict,
      repeatabilityAssumed: false,
      sentence: differs
        ? `${verdict === 'better' ? 'Fewer' : 'More'} stops: ${counts}.`
        : `No measurable change: ${counts}; count more laps to tell.`,
    },
  ]
}

function runLines(before: SheetToCompare, after: SheetToCompare): ComparisonLine[] {
  const lines: ComparisonLine[] = []
  for (const direction of ['forward', 'reverse'] as const) {
    const creep = [before, after].map((sheet) => speedOf(sheet, 'creep', direction))
    if (creep[0] && creep[1])
      lines.push(judged(`creep-${direction}`, `Slowest creep, ${direction}`, creep[0], creep[1], 'lower'))
    const timed = [before, after].map((sheet) => speedOf(sheet, 'timed', direction))
    if (timed[0] && timed[1])
      lines.push(judged(`timed-${direction}`, `Speed over the timed run, ${direction}`, timed[0], timed[1], 'neither'))
  }
  return lines
}

function speedOf(
  sheet: SheetToCompare,
  kind: 'creep' | 'timed',
  direction: 'forward' | 'reverse',
): (IntervalFigure & { assumed: boolean }) | null {
  const runs = sheet.readings.flatMap((reading) =>
    reading.kind === kind && reading.direction === direction ? [reading.run] : [],
  )
  const first = runs[0]
  if (!first) return null
  const same = runs.filter((run) => run.distance.value === first.distance.value)
  const speed = timedSpeed(
    first.distance.value,
    same.map((run) => run.duration.value),
    first.distance.resolution,
  )
  return { ...speed, assumed: same.length < 3 }
}

/** Currents at each voltage that was read on both sheets, each way. */
function currentLines(before: SheetToCompare, after: SheetToCompare): ComparisonLine[] {
  const lines: ComparisonLine[] = []
  for (const direction of ['forward', 'reverse'] as const) {
    const running = (sheet: SheetToCompare): MeteredReading[] =>
      sheet.readings.filter(
        (reading): reading is MeteredReading =>
          isMetered(reading) && reading.kind === 'running' && reading.direction === direction,
      )
    const [first, second] = [running(before), running(after)]
    const voltages: number[] = []
    for (const { voltage } of first) {
      const seen = voltages.some((known) => sameVoltage(known, voltage.value))
      if (!seen && second.some((reading) => sameVoltage(reading.voltage.value, voltage.value)))
        voltages.push(voltage.value)
    }
    for (const voltage of voltages.sort((a, b) => a - b)) {
      const at = (readings: readonly MeteredReading[]): IntervalFigure & { assumed: boolean } => {
        const matching = readings.filter((reading) => sameVoltage(reading.voltage.value, voltage))
        return { ...currentFigure(matching), assumed: matching.length < 3 }
      }
      lines.push(
        judged(
          `current-${direction}-${voltage}`,
          `Current at ${Number(voltage.toPrecision(3))} V, ${direction}`,
          at(first),
          at(second),
          'lower',
        ),
      )
    }
  }
  return lines
}

const FITTED: ReadonlyArray<{
  name: SweepFigureName
  label: string
  better: WhatIsBetter
  elseName?: SweepFigureName
}> = [
  { name: 'keepsTurningDownTo', label: 'Turns on down to', better: 'lower' },
  { name: 'coulombFriction', label: 'Drag at standstill', better: 'lower' },
  { name: 'resistanceAt20', label: 'Resistance with brushes, at 20 °C', better: 'lower', elseName: 'resistance' },
  { name: 'backEmfAt20', label: 'Magnet strength (back-EMF), at 20 °C', better: 'higher', elseName: 'backEmf' },
]

function fittedLines(before: SheetToCompare, after: SheetToCompare, machine: MachineFacts): ComparisonLine[] {
  const [first, second] = [before, after].map((sheet) => judgeSheet(sheet.readings, machine, sheet.conditions).fit)
  if (!first || !second) return []
  return FITTED.flatMap(({ name, elseName, label, better }) => {
    // Only both referred to 20 °C, or both as measured: never one of each.
    const referred = !isRefused(first.figures[name]) && !isRefused(second.figures[name])
    const used = referred || !elseName ? name : elseName
    const [left, right] = [first.figures[used], second.figures[used]]
    if (isRefused(left) || isRefused(right)) return []
    const shown = referred || !elseName ? label : label.replace(', at 20 °C', ', as measured')
    return [judged(name, shown, { ...left, assumed: false }, { ...right, assumed: false }, better)]
  })
}

function judged(
  code: string,
  label: string,
  before: IntervalFigure & { assumed: boolean },
  after: IntervalFigure & { assumed: boolean },
  better: WhatIsBetter,
): ComparisonLine {
  const change = compareBeforeAfter(before, after)
  const verdict = verdictOf(change, better)
  const percent = before.value === 0 ? null : Math.round((change.difference / before.value) * 100)
  const sentence =
    verdict === 'no-measurable-change'
      ? 'No measurable change.'
      : `${change.verdict === 'lower' ? 'Down' : 'Up'}${percent === null ? '' : ` ${Math.abs(percent)} %`}, beyond the uncertainty.`
  const { assumed: assumedBefore, ...figureBefore } = before
  const { assumed: assumedAfter, ...figureAfter } = after
  return {
    code,
    label,
    before: figureBefore,
    after: figureAfter,
    verdict,
    sentence,
    repeatabilityAssumed: assumedBefore || assumedAfter,
  }
}

function verdictOf(change: Change, better: WhatIsBetter): Verdict {
  if (change.verdict === 'no-measurable-change') return 'no-measurable-change'
  if (better === 'neither') return 'changed'
  return change.verdict === better ? 'better' : 'worse'
}

function plainLine(code: string, label: string, verdict: Verdict, sentence: string): ComparisonLine {
  return { code, label, before: null, after: null, verdict, sentence, repeatabilityAssumed: false }
}
