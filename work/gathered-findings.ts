import { expectedContinuity } from '../core/continuity/expected-continuity'
import { judgeContinuity } from '../core/continuity/judge-continuity'
import { continuityFindings, type GatheredOutcome } from '../core/findings/continuity-findings'
import type { Knowledge } from '../core/knowledge/knowledge-schema'
import { motorAloneFindings } from '../core/findings/motor-alone-findings'
import { sheetFindings } from '../core/findings/sheet-findings'
import { Circuit, offTheTrack, ohmsBetween } from '../core/engine/circuit'
import type { EngineDescription } from '../core/engine/description-schema'
import { motorClamp, railClamp, type Clamp } from '../core/engine/motor-clamp'
import { operatingPoint } from '../core/engine/operating-point'
import { runningPositions } from '../core/engine/pickup-map'
import { judgeRelay, type RelayReadings } from '../core/motor/relay-account'
import { readSequence, type SeenPosition } from '../core/motor/sequence-steps'
import { judgeSheet, type SheetJudgement } from '../core/motor/sheet-judgement'
import type { SheetReading } from '../core/motor/sheet-reading'
import type { EngineTypeRow, JobBook, ReadingRow, SheetRow } from '../messages/book'
import { continuitySheet, continuityStates } from './continuity-sheet'
import { relayReadings } from './relay-lines'
import { sequenceStops } from './sequence-lines'
import { testsOfEngine } from './tests-of-engine'
import { countingReadings, machineFacts, standingReadings, windingCelsius } from './sheet-readings'

/** A finding nobody had to enter at a test: a sheet of the job says it, or it was told when the engine was taken in. */
export interface GatheredFinding {
  readonly id: string
  readonly from: 'continuity' | 'sheet' | 'told' | 'counter'
  readonly engineState: number
  readonly test: string
  readonly outcome: string
  readonly words: string
  readonly at: string
}

/**
 * What the job's own sheets say to the diagnosis: continuity wheel by wheel, test sheets taken on the track, sheets the
 * supply took at the motor, and tests of relay and sequence switch.
 *
 * @param book the job
 * @param description of its engine
 * @param knowledge checked
 */
export function gatheredFindings(
  book: Pick<JobBook, 'continuity' | 'sheets' | 'type'>,
  description: EngineDescription,
  knowledge: Knowledge,
): GatheredFinding[] {
  const plan = continuityStates(book.continuity).length > 0 ? expectedContinuity(description) : null
  const wheels =
    plan === null
      ? []
      : continuityStates(book.continuity).flatMap((engineState) => {
          const at = book.continuity.findLast((row) => row.engineState === engineState)?.capturedAt ?? ''
          return continuityFindings(
            description,
            knowledge,
            judgeContinuity(plan, continuitySheet(book.continuity, engineState)),
          ).map((found): GatheredFinding => ({
            ...found,
            id: `continuity:${engineState}:${found.test}`,
            from: 'continuity',
            engineState,
            at,
          }))
        })
  const sheets = book.sheets
    .filter((sheet) => sheet.station !== 'rebuild')
    .flatMap((sheet) =>
      sheetOutcomes(sheet, book.type, description).map((found): GatheredFinding => ({
        ...found,
        id: `sheet:${sheet.id}:${found.test}`,
        from: 'sheet',
        engineState: sheet.engineState,
        at: sheet.readings.at(-1)?.capturedAt ?? sheet.openedAt,
      })),
    )
  const known = new Set(testsOfEngine(description, knowledge).map((test) => test.id))
  return [...wheels, ...sheets]
    .filter((found) => known.has(found.test))
    .sort((first, second) => first.at.localeCompare(second.at))
}

/** What was typed was read on the track; what the supply took was read at the motor's terminals, or told of a switch. */
function sheetOutcomes(sheet: SheetRow, type: EngineTypeRow, description: EngineDescription): GatheredOutcome[] {
  const machine = machineFacts(type)
  const conditions = {
    windingCelsius: windingCelsius(sheet),
    supply: sheet.supply === 'ac' ? ('ac' as const) : ('dc' as const),
  }
  const of = (source: ReadingRow['source']): SheetReading[] =>
    countingReadings({ readings: standingReadings(sheet.readings).filter((line) => line.source === source) }, machine)
  const [typed, taken] = [of('typed'), of('measured')]
  // Behind a decoder or a wound field the current is not the motor's alone.
  const plain = description.power === 'dc' && description.motors.every((motor) => motor.field === null)
  const runTest = description.power !== 'dcc' ? 'track-run' : sheet.supply === 'dcc' ? 'dcc-run' : 'dc-run'
  const lines = standingReadings(sheet.readings)
  return [
    ...sheetFindings(typed, judgeSheet(typed, machine, conditions), {
      nominalVolts: machine.nominalVoltage,
      runTest,
      usualAmps: plain ? drawsAt(description, railClamp(description, false)) : () => null,
    }),
    // The sweep counts its holds; a reading kept from the live view does not say where the clips were.
    ...(taken.some((reading) => reading.kind === 'locked' && reading.hold !== undefined)
      ? motorAlone(taken, judgeSheet(taken, machine, conditions), description, machine.nominalVoltage)
      : []),
    ...switchFindings(
      relayReadings(lines),
      sequenceStops(lines).map((stop) => stop.position),
    ),
  ]
}

function motorAlone(
  taken: readonly SheetReading[],
  judgement: SheetJudgement,
  description: EngineDescription,
  nominalVolts: number,
): GatheredOutcome[] {
  const [motor] = description.motors
  const magnet = motor !== undefined && motor.field === null
  if (!magnet) return motorAloneFindings(taken, judgement, { nominalVolts, usualAmps: () => null, usualOhms: null })
  const clamp = motorClamp(description, motor.id)
  const off = Object.fromEntries(clamp.open.map((component) => [component, 'open' as const]))
  return motorAloneFindings(taken, judgement, {
    nominalVolts,
    usualAmps: drawsAt(description, clamp),
    usualOhms: ohmsBetween(
      new Circuit(description),
      { states: { ...offTheTrack(description), ...off } },
      clamp.plus,
      clamp.minus,
    ),
  })
}

/** What a sound engine draws where the clips are. */
function drawsAt(description: EngineDescription, { plus, minus, open }: Clamp): (volts: number) => number {
  const circuit = new Circuit(description)
  const states = Object.fromEntries(open.map((component) => [component, 'open' as const]))
  return (volts) =>
    Math.abs(
      operatingPoint(circuit, { states, switches: runningPositions(description) }, { plus, minus, volts }).supplyAmps,
    )
}

/** What the tests of relay and sequence switch settled. */
function switchFindings(relay: RelayReadings | null, seen: readonly SeenPosition[]): GatheredOutcome[] {
  const found: GatheredOutcome[] = []
  if (relay && relay.heard !== 'always-on') {
    const { sound } = judgeRelay(relay)
    if (sound)
      found.push({
        test: 'horn-test',
        outcome: 'sounds',
        words: 'Test of the relay: it pulls in, and what it switches draws current',
      })
    else if (relay.heard)
      found.push({
        test: 'horn-test',
        outcome: 'silent',
        words: `Test of the relay: ${relay.heard === 'clicks' ? 'it only clicks' : 'silent'}`,
      })
  }
  if (seen.length > 3) {
    const { steps, missed, doubled } = readSequence(seen)
    const outcome = steps.every((step) => step === 0) ? 'never' : missed + doubled > 0 ? 'misses' : 'each'
    found.push({
      test: 'sequence-step',
      outcome,
      words: `Test of the sequence switch: ${outcome === 'each' ? `${steps.length} interruptions, each one step` : outcome === 'never' ? 'it never moved' : `${missed + doubled} of ${steps.length} interruptions missed or doubled`}`,
    })
  }
  return found
}
