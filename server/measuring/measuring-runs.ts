import { eq } from 'drizzle-orm'
import { v7 as newId } from 'uuid'
import { sweepMotor, usualPlan, type SweepEvent } from '../../bench/supply/motor-sweep'
import { SupplyProblem } from '../../bench/supply/supply-client'
import { speedOfReading } from '../../core/trace/speed-of-reading'
import type { InstrumentRow } from '../../shared/book'
import type { MeasuringState } from '../../shared/measuring'
import type { ReadingFields, RecordedQuantity } from '../../shared/messages/bench-entries'
import { writeReading } from '../commands/add-reading'
import { hashOf, runOnce } from '../commands/run-command'
import type { Actor } from '../commands/write'
import type { Database } from '../db/book'
import { instrument } from '../db/schema'
import { notInTheBook, Problem } from '../problems'
import { openInstrument, type OpenInstrument } from './open-instrument'
import { sheetMachine } from './sheet-machine'
import { supplyClaims, type SupplyClaims } from './supply-claims'
import { WATCHDOG_SECONDS } from './watchdog'

/** How long a hand may take before the run is given up. */
const HOLD_PATIENCE_MS = 10 * 60 * 1000

interface Run {
  state: MeasuringState
  readonly listeners: Set<(state: MeasuringState) => void>
  answerHold: (() => void) | null
  /** Turns the output off at once, whatever is being done. */
  off: (() => Promise<void>) | null
  stopped: boolean
}

/** Every measuring run of this server: at most one a supply, seen alike by every screen, finished whoever looks away. */
export class MeasuringRuns {
  private readonly runs = new Map<string, Run>()

  constructor(private readonly claims: SupplyClaims) {}

  state(sheetId: string): MeasuringState | null {
    return this.runs.get(sheetId)?.state ?? null
  }

  /** Calls back with every change until told to stop. */
  watch(sheetId: string, listener: (state: MeasuringState) => void): () => void {
    const run = this.runs.get(sheetId)
    if (!run) return () => {}
    run.listeners.add(listener)
    return () => run.listeners.delete(listener)
  }

  /**
   * Starts measuring a motor into a sheet.
   *
   * @throws Problem 404, or 409 when the supply or the sheet is taken
   */
  async start(database: Database, actor: Actor, sheetId: string, instrumentId: string): Promise<MeasuringState> {
    const machine = await sheetMachine(database, sheetId)
    const [row] = await database.select().from(instrument).where(eq(instrument.id, instrumentId))
    if (!row || row.retired) throw notInTheBook('instrument')
    const before = this.runs.get(sheetId)
    if (before && isGoing(before.state)) throw new Problem(409, 'sheet-taken', `${before.state.instrumentName} is measuring into this sheet already.`)
    if (!machine.withMeter) throw new Problem(422, 'no-meter', 'This sheet is one without a meter.')
    const motor = machine.description.motors.find((entry) => entry.field === null)
    if (!motor) throw new Problem(422, 'no-magnet', 'This machine has a wound field: the sweep of a motor with a magnet does not fit it.')
    const release = this.claims.claim(row.id, row.name, 'measuring for another sheet')
    const run: Run = {
      listeners: new Set(), answerHold: null, off: null, stopped: false,
      state: { sheetId, jobId: machine.jobId, instrumentName: row.name, status: 'running', says: 'Looking for the supply', done: 0, of: 1, hold: null, latest: null, readings: 0 },
    }
    this.runs.set(sheetId, run)
    const go = async (): Promise<void> => {
      const opened = await openInstrument(row, { engineId: machine.engineId, description: machine.description, place: 'motor' })
      try {
        await this.sweep(run, opened, row, { segments: motor.segments, usualBackEmf: motor.backEmf, nominalVolts: machine.nominalVolts }, (fields) => keepReading(database, actor, machine.jobId, sheetId, fields))
      } finally {
        await opened.close()
      }
    }
    void go().finally(release).catch((error: unknown) => {
      if (!(error instanceof SupplyProblem)) console.error('measuring', error)
      this.tell(run, { status: 'failed', hold: null, says: error instanceof SupplyProblem ? error.message : 'Measuring ended with an error. The readings so far are in the sheet; look at the supply.' })
    })
    return run.state
  }

  /** A hand says that the armature is held. */
  held(sheetId: string): void {
    this.runs.get(sheetId)?.answerHold?.()
  }

  /** Stops, output off; what was read stays. */
  stop(sheetId: string): void {
    const run = this.runs.get(sheetId)
    if (!run || !isGoing(run.state)) return
    run.stopped = true
    // Now, not after the reading in hand: that one is thrown away.
    void run.off?.().catch(() => {})
    run.answerHold?.()
  }

  private async sweep(run: Run, opened: OpenInstrument, row: InstrumentRow, motor: { segments: number; usualBackEmf: number; nominalVolts: number }, keep: (fields: ReadingFields) => Promise<void>): Promise<void> {
    this.tell(run, { says: `Connected: ${await opened.client.identify()}` })
    await opened.client.watchdog(WATCHDOG_SECONDS * opened.secondsPerSecond)
    run.off = () => opened.client.output(false)
    const heldOhms: number[] = []
    const surroundings = {
      ...opened.surroundings,
      held: async (turn: number): Promise<void> => {
        await this.hand(run)
        opened.hold(turn)
      },
      free: (): Promise<void> => {
        opened.hold(null)
        return Promise.resolve()
      },
    }
    for await (const event of sweepMotor(opened.client, usualPlan(motor.nominalVolts), surroundings)) {
      if (run.stopped) break
      await this.take(run, event, row, { ...motor, heldOhms }, keep)
      if (event.kind === 'stopped') return
    }
    this.tell(run, run.stopped
      ? { status: 'stopped', hold: null, says: 'Stopped. The output is off; what was read is in the sheet.' }
      : { status: 'done', hold: null, done: run.state.of, says: `Done: ${run.state.readings} readings are in the sheet. The output is off.` })
  }

  private async take(run: Run, event: SweepEvent, row: InstrumentRow, motor: { segments: number; usualBackEmf: number; heldOhms: number[] }, keep: (fields: ReadingFields) => Promise<void>): Promise<void> {
    if (event.kind === 'doing') return this.tell(run, { status: 'running', says: event.what, done: event.done, of: event.of, hold: null })
    if (event.kind === 'hold') return this.tell(run, { status: 'hold', hold: { turn: event.turn, of: event.of }, says: event.turn === 1 ? 'Hold the armature still with a finger.' : 'Turn the armature a little further and hold it.' })
    if (event.kind === 'let-go') return this.tell(run, { says: 'Let go: it may turn now.', hold: null })
    if (event.kind === 'stopped') return this.tell(run, { status: 'failed', says: event.sentence, hold: null })
    const amps = Math.abs(event.amps)
    // What the leads lose is not the motor's.
    const volts = Math.abs(event.volts) - amps * row.leadOhms
    const quantities = { voltage: this.quantity(row, volts, row.voltage, 3), current: this.quantity(row, amps, row.current, 4) }
    if (event.kind === 'locked') {
      motor.heldOhms.push(volts / amps)
      await keep({ kind: 'locked', direction: 'forward', vouched: false, quantities: { ...quantities, hold: { typed: '', value: event.turn, resolution: 1, meter: null } } })
      return this.tell(run, { latest: { volts, amps, radPerSecond: 0 }, readings: run.state.readings + 1 })
    }
    const mean = motor.heldOhms.reduce((sum, ohms) => sum + ohms, 0) / motor.heldOhms.length
    const speed = event.record && event.record.amps.length > 0
      ? speedOfReading({ volts, amps, rate: event.record.rate, record: event.record.amps }, { heldOhms: mean, usualBackEmf: motor.usualBackEmf, segments: motor.segments })
      : null
    const rotation = speed && speed !== 'standing' ? { rotation: { typed: '', value: speed.radPerSecond, resolution: 2 * speed.deviation, meter: null } } : {}
    await keep({ kind: speed === 'standing' ? 'locked' : 'running', direction: event.direction, vouched: false, quantities: { ...quantities, ...rotation } })
    this.tell(run, { latest: { volts, amps, radPerSecond: speed === 'standing' ? 0 : speed?.radPerSecond ?? null }, readings: run.state.readings + 1 })
  }

  private quantity(row: InstrumentRow, value: number, accuracy: InstrumentRow['voltage'], digits: number): RecordedQuantity {
    const { percentOfReading, resolution } = accuracy
    return { typed: '', value: Number(value.toFixed(digits + 1)), resolution, meter: { id: row.id, name: row.name, percentOfReading, digits: accuracy.digits } }
  }

  private hand(run: Run): Promise<void> {
    return new Promise((resolve) => {
      const patience = setTimeout(() => {
        run.stopped = true
        run.answerHold?.()
      }, HOLD_PATIENCE_MS)
      run.answerHold = () => {
        clearTimeout(patience)
        run.answerHold = null
        resolve()
      }
    })
  }

  private tell(run: Run, change: Partial<MeasuringState>): void {
    run.state = { ...run.state, ...change }
    for (const listener of run.listeners) listener(run.state)
  }
}

const isGoing = (state: MeasuringState): boolean => state.status === 'running' || state.status === 'hold'

async function keepReading(database: Database, actor: Actor, jobId: string, sheetId: string, fields: ReadingFields): Promise<void> {
  const payload = { id: newId(), jobId, sheetId, supersedesId: null, fields }
  await runOnce(database, { commandId: newId(), name: 'reading.add', bodyHash: hashOf('reading.add', payload), actor, capturedAt: new Date() }, (write) => writeReading(write, payload, 'measured'))
}

/** The runs of this process. */
export const measuringRuns = new MeasuringRuns(supplyClaims)
