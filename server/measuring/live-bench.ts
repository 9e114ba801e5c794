import { SupplyProblem } from '../../bench/supply/supply-client'
import type { InstrumentRow } from '../../messages/book'
import {
  READINGS_PER_SECOND,
  RING_SECONDS,
  SAFE_START,
  type BenchMessage,
  type LiveBenchState,
  type LiveReading,
} from '../../messages/live-bench'
import { MOST_BENCH_VOLTS, type BenchChange } from '../../messages/commands'
import type { OpenInstrument } from './open-instrument'
import { WATCHDOG_SECONDS } from './watchdog'

/** How the speed follows from volts and amps: `ω = (V − I·R)/Ke`. */
export interface SpeedRule {
  readonly ohms: number
  /** V·s/rad. */
  readonly backEmf: number
  readonly words: string
}

/** Slower than this it stands, as far as such an estimate can tell, rad/s. */
const STANDING = 20

/** Set to less it may well show nothing, V. */
const LEAST_TOLD_VOLTS = 0.5
/** So many looks in a row without volts and without current, half a second of them: its output is off, whoever did it. */
const LOOKS_WITHOUT_VOLTS = 10
const NO_CURRENT_AMPS = 0.002
const WENT_OFF =
  'It gives no volts though its output was put on: it has gone off by itself, or by a key of its own. Look at it, then open it again.'

/** One supply that is looked at all the time and set by hand, with the last minute kept. */
export class LiveBench {
  private readonly ring: LiveReading[] = []
  private ended = false
  private looksWithoutVolts = 0
  private readonly finished: Promise<void>
  /** One change after the other, in the order they were asked for. */
  private changes: Promise<unknown> = Promise.resolve()

  private constructor(
    private readonly instrument: InstrumentRow,
    private readonly opened: OpenInstrument,
    private readonly speedRule: SpeedRule | null,
    private current: LiveBenchState,
    private readonly tell: (message: BenchMessage) => void,
  ) {
    this.finished = this.watch()
  }

  /**
   * Connects, output off, and begins to look.
   *
   * @param tell hears every state and every reading
   * @throws SupplyProblem when nothing answers
   */
  static async open(
    instrument: InstrumentRow,
    opened: OpenInstrument,
    speedRule: SpeedRule | null,
    state: LiveBenchState,
    tell: (message: BenchMessage) => void,
  ): Promise<LiveBench> {
    const { client, secondsPerSecond } = opened
    const name = await client.identify()
    await client.output(false)
    await client.setVolts(SAFE_START.volts)
    await client.setAmpsLimit(SAFE_START.ampsLimit)
    await client.reverse(SAFE_START.reversed)
    await client.watchdog(WATCHDOG_SECONDS * secondsPerSecond)
    const bench = new LiveBench(
      instrument,
      opened,
      speedRule,
      { ...state, status: 'live', says: `Connected: ${name}` },
      tell,
    )
    tell({ kind: 'state', state: bench.state })
    return bench
  }

  get state(): LiveBenchState {
    return this.current
  }

  /** The last minute, oldest first. */
  get readings(): readonly LiveReading[] {
    return this.ring
  }

  /** Sets what is given and leaves the rest; going off comes before everything else, reversing goes through off. */
  set(change: BenchChange): Promise<void> {
    const done = this.changes.then(() => this.change(change))
    this.changes = done.catch(() => {})
    return done
  }

  private async change(change: BenchChange): Promise<void> {
    const { client } = this.opened
    const before = this.current.settings
    const { voltsBy, ...set } = change
    const wanted = {
      ...before,
      ...set,
      ...(voltsBy === undefined
        ? {}
        : { volts: Math.min(MOST_BENCH_VOLTS, Math.max(0, Number((before.volts + voltsBy).toFixed(3)))) }),
    }
    if (this.ended) return
    const turning = wanted.reversed !== before.reversed
    if ((before.on && !wanted.on) || turning) await client.output(false)
    if (wanted.volts !== before.volts) await client.setVolts(wanted.volts)
    if (wanted.ampsLimit !== before.ampsLimit) await client.setAmpsLimit(wanted.ampsLimit)
    if (turning) await client.reverse(wanted.reversed)
    if (wanted.on && (!before.on || turning)) await client.output(true)
    this.become({ settings: wanted })
  }

  /** Output off, connection closed, with a sentence why. */
  async close(says: string): Promise<void> {
    if (!this.ended) {
      this.ended = true
      await this.opened.close()
      this.become({ status: 'closed', says, settings: { ...this.current.settings, on: false } })
    }
    await this.finished
  }

  private become(change: Partial<LiveBenchState>): void {
    this.current = { ...this.current, ...change }
    this.tell({ kind: 'state', state: this.current })
  }

  /** Looks again and again at its own beat; a look that took too long skips the beats it missed. */
  private async watch(): Promise<void> {
    const beat = 1000 / READINGS_PER_SECOND
    let next = Date.now()
    try {
      while (!this.ended) {
        const [volts, amps] = [await this.opened.client.measureVolts(), await this.opened.client.measureAmps()]
        if (this.ended) return
        this.keep(volts, amps)
        if (this.hasGoneOff(volts, amps)) throw new SupplyProblem('lost', WENT_OFF)
        next = Math.max(next + beat, Date.now() - beat)
        await new Promise((resolve) => {
          setTimeout(resolve, Math.max(0, next - Date.now()))
        })
      }
    } catch (error) {
      // Closed while a look was under way: that look is lost, which is no trouble.
      if (this.ended) return
      if (!(error instanceof SupplyProblem)) console.error('live bench', error)
      const says =
        error instanceof SupplyProblem
          ? error.message
          : 'Watching ended with an error. Look at the supply: its output should be off.'
      this.ended = true
      await this.opened.close()
      this.become({ status: 'failed', says, settings: { ...this.current.settings, on: false } })
    }
  }

  /** A short draws its limit at no volts; a supply that is off gives neither. */
  private hasGoneOff(volts: number, amps: number): boolean {
    const { settings } = this.current
    const without =
      settings.on &&
      settings.volts >= LEAST_TOLD_VOLTS &&
      Math.abs(volts) < settings.volts / 20 &&
      Math.abs(amps) < NO_CURRENT_AMPS
    this.looksWithoutVolts = without ? this.looksWithoutVolts + 1 : 0
    return this.looksWithoutVolts >= LOOKS_WITHOUT_VOLTS
  }

  private keep(terminalVolts: number, amps: number): void {
    const { settings } = this.current
    // What the leads lose is not the engine's.
    const volts = terminalVolts - amps * this.instrument.leadOhms
    const limited =
      settings.on && Math.abs(amps) > 0.97 * settings.ampsLimit && Math.abs(terminalVolts) < 0.95 * settings.volts
    const reading: LiveReading = { at: Date.now(), volts, amps, radPerSecond: this.speed(volts, amps), limited }
    this.ring.push(reading)
    while (this.ring.length > RING_SECONDS * READINGS_PER_SECOND) this.ring.shift()
    this.tell({ kind: 'readings', instrumentId: this.instrument.id, fresh: false, readings: [reading] })
  }

  private speed(volts: number, amps: number): number | null {
    if (!this.speedRule) return null
    const { ohms, backEmf } = this.speedRule
    const speed = (volts - amps * ohms) / backEmf
    return Math.abs(speed) < STANDING || Math.sign(speed) !== Math.sign(volts) ? 0 : speed
  }
}
