import { eq } from 'drizzle-orm'
import { jog } from '../../bench/supply/jog'
import { usualStepTest } from '../../bench/supply/step-test'
import { SupplyProblem } from '../../bench/supply/supply-client'
import { describeEngine } from '../../work/describe-engine'
import type { Database } from '../db/book'
import { instrument } from '../db/schema'
import { notInTheBook, Problem } from '../problems'
import { readEngine } from '../services/engines-and-owners'
import { firstMotorClamp } from './clamp-advice'
import { openInstrument, type OpenInstrument } from './open-instrument'
import { supplyClaims, type SupplyClaims } from './supply-claims'
import { WATCHDOG_SECONDS } from './watchdog'

/** A key is taken for let go when nothing was heard of it so long, ms: a line that broke must not keep an engine turning. */
const HEARD_MS = 900
/** So long a supply stays at hand after the last pulse, ms. */
const AT_HAND_MS = 6_000

interface Jogging {
  readonly opened: OpenInstrument
  readonly volts: number
  readonly reversed: boolean
  readonly release: () => void
  heldUntil: number
  /** The pulses under way; null between them. */
  pulsing: Promise<void> | null
  readonly says: string
  ends: NodeJS.Timeout | null
  ended: boolean
}

/** Supplies that move a mechanism on by pulses while somebody holds a key. */
export class Jogs {
  private readonly jogging = new Map<string, Promise<Jogging>>()
  /** Supplies that met a short, and what was said of it: until the key is let go they stay off. */
  private readonly shorted = new Map<string, string>()

  constructor(
    private readonly claims: SupplyClaims,
    private readonly heardMs = HEARD_MS,
    private readonly atHandMs = AT_HAND_MS,
  ) {}

  /**
   * The key is held, or still is: said again and again for as long as it is.
   *
   * @returns what the supply does, in a sentence
   * @throws Problem 404 without such a supply or engine, 409 when it is taken, 502 when it does not answer
   */
  async hold(database: Database, instrumentId: string, engineId: string, reversed: boolean): Promise<string> {
    const short = this.shorted.get(instrumentId)
    if (short !== undefined) return short
    const known = await this.jogging.get(instrumentId)?.catch(() => null)
    if (known && known.reversed !== reversed) {
      known.heldUntil = 0
      await known.pulsing
      await this.end(instrumentId, known)
    }
    if (!this.jogging.has(instrumentId))
      this.jogging.set(instrumentId, this.open(database, instrumentId, engineId, reversed))
    const pending = this.jogging.get(instrumentId) as Promise<Jogging>
    try {
      const now = await pending
      now.heldUntil = Date.now() + this.heardMs
      now.pulsing ??= this.pulse(instrumentId, now)
      return now.says
    } catch (error) {
      if (this.jogging.get(instrumentId) === pending) this.jogging.delete(instrumentId)
      if (error instanceof SupplyProblem) throw new Problem(502, 'supply', error.message)
      throw error
    }
  }

  /** The key is let go: the pulse under way is the last. */
  async letGo(instrumentId: string): Promise<void> {
    this.shorted.delete(instrumentId)
    const now = await this.jogging.get(instrumentId)?.catch(() => null)
    if (now) now.heldUntil = 0
  }

  private async open(database: Database, instrumentId: string, engineId: string, reversed: boolean): Promise<Jogging> {
    const [row] = await database.select().from(instrument).where(eq(instrument.id, instrumentId))
    if (!row || row.retired) throw notInTheBook('instrument')
    const { type, engine, components, template } = await readEngine(database, engineId)
    const { description } = describeEngine({ type, adaptations: engine.adaptations, components, template })
    const release = this.claims.claim(row.id, row.name, 'moving a mechanism on by pulses')
    try {
      const opened = await openInstrument(row, { engineId, description, clamp: firstMotorClamp(description) })
      await opened.client.watchdog(WATCHDOG_SECONDS * opened.secondsPerSecond)
      const { volts } = usualStepTest(type.nominalVolts)
      const says = `${row.name}: pulses of ${volts.toFixed(1)} V${reversed ? ', turned round' : ''}`
      return { opened, volts, reversed, release, heldUntil: 0, pulsing: null, says, ends: null, ended: false }
    } catch (error) {
      release()
      throw error
    }
  }

  private async pulse(instrumentId: string, now: Jogging): Promise<void> {
    if (now.ends) clearTimeout(now.ends)
    this.claims.inUse(instrumentId)
    try {
      const { why } = await jog(
        now.opened.client,
        { volts: now.volts, ampsLimit: usualStepTest(now.volts).ampsLimit, reversed: now.reversed },
        now.opened.surroundings,
        () => Date.now() < now.heldUntil,
      )
      if (why === 'short') {
        this.shorted.set(
          instrumentId,
          'A short: the supply is at its limit. The output is off: look at the step just done.',
        )
        return await this.end(instrumentId, now)
      }
    } catch (error) {
      if (!(error instanceof SupplyProblem)) console.error('jog', error)
      return await this.end(instrumentId, now)
    } finally {
      now.pulsing = null
    }
    // Between pulses the supply is at hand for the next, and for whoever else wants it.
    this.claims.atHand(instrumentId, () => this.end(instrumentId, now))
    now.ends = setTimeout(() => void this.end(instrumentId, now), this.atHandMs)
  }

  private async end(instrumentId: string, now: Jogging): Promise<void> {
    if (now.ends) clearTimeout(now.ends)
    now.heldUntil = 0
    if (now.ended) return
    now.ended = true
    this.jogging.delete(instrumentId)
    await now.opened.close()
    now.release()
  }
}

/** The jogs of this process. */
export const jogs = new Jogs(supplyClaims)
