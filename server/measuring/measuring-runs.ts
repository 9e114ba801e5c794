import { eq } from 'drizzle-orm'
import { v7 as newId } from 'uuid'
import { SupplyProblem } from '../../bench/supply/supply-client'
import type { Clamp } from '../../core/engine/motor-clamp'
import type { InstrumentRow } from '../../messages/book'
import type { MeasuringAnswer, MeasuringProcedure, MeasuringState } from '../../messages/measuring'
import type { ReadingFields } from '../../messages/readings/reading-kinds'
import { writeReading } from '../commands/add-reading'
import { hashOf, runOnce } from '../commands/run-command'
import type { Actor } from '../commands/write'
import type { Database } from '../db/book'
import { instrument } from '../db/schema'
import { notInTheBook, Problem } from '../problems'
import { openInstrument, type OpenInstrument } from './open-instrument'
import { procedures } from './procedures/procedures'
import { sheetMachine, type SheetMachine } from './sheet-machine'
import { supplyClaims, type SupplyClaims } from './supply-claims'
import { WATCHDOG_SECONDS } from './watchdog'

/** How long a hand may take before the run is given up. */
const HOLD_PATIENCE_MS = 10 * 60 * 1000
/** How long an answer may take: the output is on meanwhile. */
const ANSWER_PATIENCE_MS = 2 * 60 * 1000

/** What is measured, how, and under which name. */
export interface RunRequest {
  readonly instrumentId: string
  readonly procedure: MeasuringProcedure
  /** The step of the rebuild it follows; empty elsewhere. */
  readonly step: string
}

/** What a procedure works with. */
export interface RunContext {
  readonly opened: OpenInstrument
  readonly row: InstrumentRow
  readonly machine: SheetMachine
  readonly step: string
  readonly state: () => MeasuringState
  readonly tell: (change: Partial<MeasuringState>) => void
  /** Writes a reading into the sheet as measured and counts it. */
  readonly keep: (fields: ReadingFields) => Promise<void>
  /** Resolves once a hand says that it is ready, or the run was stopped. */
  readonly hand: () => Promise<void>
  readonly stopped: () => boolean
  /** What somebody said since it was last asked; null while nobody did. */
  readonly answered: () => MeasuringAnswer | null
  /** Forgets an answer: the next one belongs to the next question. */
  readonly askAnew: () => void
}

/** One way of measuring. Tells its own end; what it throws is told as a failure. */
export interface Procedure {
  /** @throws Problem when this sheet or machine is not for it */
  readonly check: (machine: SheetMachine, request: RunRequest) => void
  readonly clamp: (machine: SheetMachine, request: RunRequest) => Clamp
  readonly run: (context: RunContext) => Promise<void>
}

/** What a run goes by, and how it keeps what it reads. */
interface Measured extends Pick<RunContext, 'row' | 'machine' | 'keep'> {
  readonly request: RunRequest
}

interface Run {
  state: MeasuringState
  readonly listeners: Set<(state: MeasuringState) => void>
  answerHold: (() => void) | null
  /** Turns the output off at once, whatever is being done. */
  off: (() => Promise<void>) | null
  stopped: boolean
  answer: MeasuringAnswer | null
  patience: NodeJS.Timeout | null
}

/** Every measuring run of this server: at most one a supply, seen alike by every screen, finished whoever looks away. */
export class MeasuringRuns {
  private readonly runs = new Map<string, Run>()

  constructor(
    private readonly claims: SupplyClaims,
    private readonly answerPatienceMs = ANSWER_PATIENCE_MS,
  ) {}

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
   * Starts measuring into a sheet.
   *
   * @throws Problem 404, 422 when it is not for this sheet, or 409 when the supply or the sheet is taken
   */
  async start(database: Database, actor: Actor, sheetId: string, request: RunRequest): Promise<MeasuringState> {
    const machine = await sheetMachine(database, sheetId)
    const [row] = await database.select().from(instrument).where(eq(instrument.id, request.instrumentId))
    if (!row || row.retired) throw notInTheBook('instrument')
    await this.claims.askFor(row.id)
    const before = this.runs.get(sheetId)
    if (before && isGoing(before.state))
      throw new Problem(409, 'sheet-taken', `${before.state.instrumentName} is measuring into this sheet already.`)
    if (!machine.withMeter) throw new Problem(422, 'no-meter', 'This sheet is one without a meter.')
    procedures[request.procedure].check(machine, request)
    const release = this.claims.claim(row.id, row.name, 'measuring for another sheet')
    const run = runOf({ sheetId, jobId: machine.jobId, procedure: request.procedure, instrumentName: row.name })
    this.runs.set(sheetId, run)
    const keep = async (fields: ReadingFields): Promise<void> => {
      await keepReading(database, actor, machine.jobId, sheetId, fields)
      this.tell(run, { readings: run.state.readings + 1 })
    }
    void this.measure(run, { row, machine, request, keep })
      .finally(release)
      .catch((error: unknown) => {
        if (!(error instanceof SupplyProblem)) console.error('measuring', error)
        this.tell(run, {
          status: 'failed',
          hold: null,
          says:
            error instanceof SupplyProblem
              ? error.message
              : 'Measuring ended with an error. The readings so far are in the sheet; look at the supply.',
        })
      })
    return run.state
  }

  /** The procedure from the first word with the supply to its output off. */
  private async measure(run: Run, { row, machine, request, keep }: Measured): Promise<void> {
    const procedure = procedures[request.procedure]
    const opened = await openInstrument(row, {
      engineId: machine.engineId,
      description: machine.description,
      clamp: procedure.clamp(machine, request),
    })
    try {
      this.tell(run, { says: `Connected: ${await opened.client.identify()}` })
      await opened.client.watchdog(WATCHDOG_SECONDS * opened.secondsPerSecond)
      run.off = () => opened.client.output(false)
      await procedure.run({
        opened,
        row,
        machine,
        step: request.step,
        state: () => run.state,
        tell: (change) => this.tell(run, change),
        hand: () => this.hand(run),
        stopped: () => run.stopped,
        answered: () => run.answer,
        askAnew: () => {
          run.answer = null
        },
        keep,
      })
      if (run.stopped)
        this.tell(run, {
          status: 'stopped',
          hold: null,
          says: 'Stopped. The output is off; what was read is in the sheet.',
        })
    } finally {
      await opened.close()
    }
  }

  /** A hand says that the armature is held. */
  held(sheetId: string): void {
    this.runs.get(sheetId)?.answerHold?.()
  }

  /** Somebody says what it does. */
  answer(sheetId: string, answer: MeasuringAnswer): void {
    const run = this.runs.get(sheetId)
    if (run && isGoing(run.state)) run.answer = answer
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

  /** Nobody answers: the output goes off, as if stopped. */
  private giveUp(run: Run): void {
    run.stopped = true
    run.patience = null
    void run.off?.().catch(() => {})
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
    if (run.state.status === 'asks') run.patience ??= setTimeout(() => this.giveUp(run), this.answerPatienceMs)
    else if (run.patience) {
      clearTimeout(run.patience)
      run.patience = null
    }
    for (const listener of run.listeners) listener(run.state)
  }
}

function runOf(names: Pick<MeasuringState, 'sheetId' | 'jobId' | 'procedure' | 'instrumentName'>): Run {
  return {
    listeners: new Set(),
    answerHold: null,
    off: null,
    stopped: false,
    answer: null,
    patience: null,
    state: {
      ...names,
      status: 'running',
      says: 'Looking for the supply',
      done: 0,
      of: 1,
      hold: null,
      latest: null,
      readings: 0,
    },
  }
}

const isGoing = (state: MeasuringState): boolean =>
  state.status === 'running' || state.status === 'hold' || state.status === 'asks'

async function keepReading(
  database: Database,
  actor: Actor,
  jobId: string,
  sheetId: string,
  fields: ReadingFields,
): Promise<void> {
  const payload = { id: newId(), jobId, sheetId, supersedesId: null, fields }
  await runOnce(
    database,
    {
      commandId: newId(),
      name: 'reading.add',
      bodyHash: hashOf('reading.add', payload),
      actor,
      capturedAt: new Date(),
    },
    (write) => writeReading(write, payload, 'measured'),
  )
}

/** The runs of this process. */
export const measuringRuns = new MeasuringRuns(supplyClaims)
