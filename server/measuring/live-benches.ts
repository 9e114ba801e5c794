import { eq } from 'drizzle-orm'
import { SupplyProblem } from '../../bench/supply/supply-client'
import type { EngineDescription } from '../../core/engine/description-schema'
import { railClamp } from '../../core/engine/motor-clamp'
import { describeEngine } from '../../work/describe-engine'
import { engineName } from '../../work/engine-name'
import {
  SAFE_START,
  type BenchMessage,
  type BenchRow,
  type ClampPlace,
  type LiveBenchState,
  type LiveReading,
} from '../../messages/live-bench'
import type { ClampAdvice } from '../../messages/measuring'
import type { BenchChange } from '../../messages/commands'
import type { Database } from '../db/book'
import { instrument } from '../db/schema'
import { notInTheBook, Problem } from '../problems'
import { readEngine } from '../services/engines-and-owners'
import { clampAdvice, firstMotorClamp } from './clamp-advice'
import { LiveBench, type SpeedRule } from './live-bench'
import { openInstrument, type Clamped } from './open-instrument'
import { supplyClaims, type SupplyClaims } from './supply-claims'

/** With nobody looking so long the output goes off, ms. */
const UNWATCHED_MS = 15_000

/** All supplies that are watched live: at most one user each, seen alike by every screen. */
export class LiveBenches {
  private readonly benches = new Map<string, LiveBench>()
  /** How each ended, until it is opened again. */
  private readonly endings = new Map<string, LiveBenchState>()
  private readonly releases = new Map<string, () => void>()
  private readonly listeners = new Set<(message: BenchMessage) => void>()
  private unwatched: NodeJS.Timeout | null = null

  constructor(
    private readonly claims: SupplyClaims,
    private readonly unwatchedMs = UNWATCHED_MS,
  ) {}

  /** Every supply that is in use, and how. */
  async rows(database: Database): Promise<BenchRow[]> {
    const rows = await database.select().from(instrument).where(eq(instrument.retired, false))
    return rows.map((row) => {
      const live = this.benches.get(row.id)?.state ?? this.endings.get(row.id) ?? null
      return { instrumentId: row.id, live, takenBy: this.benches.has(row.id) ? null : this.claims.holder(row.id) }
    })
  }

  /** Calls back with everything as it stands and every change after, until told to stop. */
  listen(listener: (message: BenchMessage) => void): () => void {
    this.listeners.add(listener)
    if (this.unwatched) clearTimeout(this.unwatched)
    this.unwatched = null
    for (const [instrumentId, bench] of this.benches) {
      listener({ kind: 'state', state: bench.state })
      listener({ kind: 'readings', instrumentId, fresh: true, readings: bench.readings })
    }
    return () => {
      this.listeners.delete(listener)
      if (this.listeners.size === 0)
        this.unwatched = setTimeout(
          () => void this.closeAll('Nobody was looking any more, so its output went off.'),
          this.unwatchedMs,
        )
    }
  }

  /**
   * Opens a supply at a bench.
   *
   * @throws Problem 404 without such a supply or engine, 409 when it is taken, 502 when it does not answer
   */
  async open(
    database: Database,
    instrumentId: string,
    engineId: string | null,
    place: ClampPlace,
  ): Promise<LiveBenchState> {
    const [row] = await database.select().from(instrument).where(eq(instrument.id, instrumentId))
    if (!row || row.retired) throw notInTheBook('instrument')
    const clamped = engineId === null ? null : await this.clampedEngine(database, engineId, place)
    await this.claims.askFor(row.id)
    const release = this.claims.claim(row.id, row.name, 'watched live under Instruments')
    try {
      const opened = await openInstrument(row, clamped, true)
      const state: LiveBenchState = {
        instrumentId,
        status: 'opening',
        says: 'Looking for the supply',
        engine: clamped ? { id: clamped.engineId, name: clamped.name } : null,
        place,
        clamp: clamped?.advice ?? null,
        settings: SAFE_START,
        speedFrom: clamped?.speedRule?.words ?? null,
      }
      this.endings.delete(instrumentId)
      this.releases.set(instrumentId, release)
      const bench = await LiveBench.open(row, opened, clamped?.speedRule ?? null, state, (message) =>
        this.tell(message),
      ).catch(async (error: unknown) => {
        await opened.close()
        throw error
      })
      this.benches.set(instrumentId, bench)
      if (this.listeners.size === 0)
        this.unwatched ??= setTimeout(
          () => void this.closeAll('Nobody was looking any more, so its output went off.'),
          this.unwatchedMs,
        )
      return bench.state
    } catch (error) {
      this.releases.delete(instrumentId)
      release()
      if (error instanceof SupplyProblem) throw new Problem(502, 'supply', error.message)
      throw error
    }
  }

  /** @throws Problem 409 when it is not live, 502 when it does not answer */
  async set(instrumentId: string, change: BenchChange): Promise<LiveBenchState> {
    const bench = this.benches.get(instrumentId)
    if (!bench) throw notLive()
    try {
      await bench.set(change)
    } catch (error) {
      if (error instanceof SupplyProblem) throw new Problem(502, 'supply', error.message)
      throw error
    }
    return bench.state
  }

  /**
   * A supply as it is and reads now, with the last minute.
   *
   * @throws Problem 409 when it is not live
   */
  now(instrumentId: string): { readonly state: LiveBenchState; readonly readings: readonly LiveReading[] } {
    const bench = this.benches.get(instrumentId)
    if (!bench) throw notLive()
    return { state: bench.state, readings: bench.readings }
  }

  async close(instrumentId: string, says = 'Closed. The output is off.'): Promise<void> {
    await this.benches.get(instrumentId)?.close(says)
    this.release(instrumentId)
  }

  private async closeAll(says: string): Promise<void> {
    await Promise.all([...this.benches.keys()].map((id) => this.close(id, says)))
  }

  private tell(message: BenchMessage): void {
    if (message.kind === 'state' && (message.state.status === 'closed' || message.state.status === 'failed')) {
      const { instrumentId } = message.state
      this.endings.set(instrumentId, message.state)
      this.benches.delete(instrumentId)
      this.release(instrumentId)
    }
    for (const listener of this.listeners) listener(message)
  }

  private release(instrumentId: string): void {
    this.releases.get(instrumentId)?.()
    this.releases.delete(instrumentId)
  }

  private async clampedEngine(
    database: Database,
    engineId: string,
    place: ClampPlace,
  ): Promise<Clamped & { name: string; speedRule: SpeedRule | null; advice: ClampAdvice }> {
    const { type, engine, components, template } = await readEngine(database, engineId)
    const { description } = describeEngine({ type, adaptations: engine.adaptations, components, template })
    const clamp = place === 'motor' ? firstMotorClamp(description) : railClamp(description, false)
    return {
      engineId,
      description,
      clamp,
      name: engineName(engine, type),
      speedRule: speedRuleOf(description, place),
      advice: clampAdvice(description, clamp),
    }
  }
}

const notLive = (): Problem => new Problem(409, 'not-live', 'This supply is not watched live any more: open it again.')

/** By its rails a decoder, or lamps beside the motor, stand between what is read and what the motor sees. */
function speedRuleOf(description: EngineDescription, place: ClampPlace): SpeedRule | null {
  const motor = description.motors.length === 1 ? description.motors.find((entry) => entry.field === null) : undefined
  const ohms = description.components.find((component) => component.id === motor?.armature)?.ohms
  if (!motor || !ohms || place === 'rails') return null
  return {
    ohms,
    backEmf: motor.backEmf,
    words: `${ohms} Ω and ${(motor.backEmf * 1000).toPrecision(2)} mV·s, as usual for this construction`,
  }
}

/** The benches of this process. */
export const liveBenches = new LiveBenches(supplyClaims)
