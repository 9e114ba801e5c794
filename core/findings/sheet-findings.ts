import { compareBeforeAfter } from '../measure/before-after'
import { plainNumber } from '../measure/significant-digits'
import { compareDirections, type SheetJudgement } from '../motor/sheet-judgement'
import { isMetered, type SheetReading } from '../motor/sheet-reading'
import type { GatheredOutcome } from './continuity-findings'

export interface SheetTrack {
  readonly nominalVolts: number
  readonly runTest: 'track-run' | 'dc-run' | 'dcc-run'
  /** A on the track at these volts, of a sound machine of the construction; null where that says nothing. */
  readonly usualAmps: (volts: number) => number | null
}

/** As many laps without a stop count as running. */
const LAPS_THAT_COUNT = 3
/** So many running readings, one of them at this share of the nominal voltage, count as running. */
const READINGS_THAT_COUNT = 3
const FULL_SHARE = 0.6
/** Types of one construction draw so differently that only this far off is said; judged. */
const USUAL_FROM_TIMES = 0.5
const USUAL_TIMES = 1.5
const HIGH_TIMES = 2.2

/**
 * What a test sheet taken on the track says to the diagnosis. Only what the readings settle: whether it ran, and
 * whether one way was worse beyond what the meter may be wrong by.
 *
 * @param readings the lines that count
 * @param judgement of the same lines
 * @param track how it was run: nominal volts, the test such a run is, and what a sound machine of the kind draws
 */
export function sheetFindings(
  readings: readonly SheetReading[],
  judgement: SheetJudgement,
  track: SheetTrack,
): GatheredOutcome[] {
  return [
    ...ranOrNot(readings, judgement, track.nominalVolts, track.runTest),
    ...bothWays(readings),
    ...currentDrawn(readings, track),
  ]
}

function ranOrNot(
  readings: readonly SheetReading[],
  judgement: SheetJudgement,
  nominalVolts: number,
  runTest: string,
): GatheredOutcome[] {
  const run = (outcome: string, words: string): GatheredOutcome[] => [
    { test: runTest, outcome, words: `Test sheet: ${words}` },
  ]
  const running = readings.filter((reading) => reading.kind === 'running')
  const stops = readings.filter((reading) => reading.kind === 'stops')
  const stopped = stops.reduce((sum, reading) => sum + reading.stops, 0)
  const laps = stops.reduce((sum, reading) => sum + reading.laps, 0)
  const timed = readings.some((reading) => reading.kind === 'timed' || reading.kind === 'creep')
  if (readings.some((reading) => reading.kind === 'dead') && running.length === 0 && !timed)
    return run('stands', 'dead on the track')
  if (stopped > 0)
    return run(
      'falters',
      `it stopped ${stopped} ${stopped === 1 ? 'time' : 'times'} in ${laps} ${laps === 1 ? 'lap' : 'laps'}`,
    )
  const hard = judgement.remarks.some((remark) => remark.code === 'hard-start')
  if (hard && running.length > 0) return run('falters', 'it starts hard')
  const full = running.some((reading) => reading.voltage.value >= FULL_SHARE * nominalVolts)
  if (laps >= LAPS_THAT_COUNT || (running.length >= READINGS_THAT_COUNT && full))
    return run('runs', laps >= LAPS_THAT_COUNT ? `${laps} laps without a stop` : `it ran at ${running.length} voltages`)
  return []
}

function bothWays(readings: readonly SheetReading[]): GatheredOutcome[] {
  const pair = compareDirections(readings.filter(isMetered))
  if (!pair) return []
  const change = compareBeforeAfter(pair.forward, pair.reverse)
  const words = `Test sheet: ${Math.round(pair.forward.value * 1000)} mA forward, ${Math.round(pair.reverse.value * 1000)} mA reverse at ${plainNumber(pair.voltage)} V`
  return [
    {
      test: 'both-ways',
      outcome: change.verdict === 'no-measurable-change' ? 'alike' : 'one-way-worse',
      words: `${words}${change.verdict === 'no-measurable-change' ? ', no measurable difference' : ''}`,
    },
  ]
}

function currentDrawn(readings: readonly SheetReading[], { nominalVolts, usualAmps }: SheetTrack): GatheredOutcome[] {
  const times = readings.flatMap((reading) => {
    if (reading.kind !== 'running' || reading.voltage.value < 0.4 * nominalVolts) return []
    const usual = usualAmps(reading.voltage.value)
    return usual === null || !(usual > 0) ? [] : [reading.current.value / usual]
  })
  if (times.length === 0) return []
  const mean = times.reduce((sum, value) => sum + value, 0) / times.length
  const outcome = mean >= HIGH_TIMES ? 'high' : mean <= USUAL_TIMES && mean >= USUAL_FROM_TIMES ? 'usual' : null
  return outcome === null
    ? []
    : [
        {
          test: 'track-current',
          outcome,
          words: `Test sheet: it draws ${mean.toFixed(1)} times what a sound machine made like this does`,
        },
      ]
}
