import type { Casualty, Feed } from '../casualty/casualty'
import { matchesHeader, parseBoolean, parseMessage, parseNumber, ScpiError, type ScpiUnit } from './scpi-parser'

export interface SimulatedSupplyOptions {
  readonly serialNumber?: string
  /** Ω of both test leads together. */
  readonly leadOhms?: number
  /** Its own time, s: may run faster than the wall’s. */
  readonly clock: () => number
  /** Seeded noise of its meter, standard normal; none when not given. */
  readonly noise?: () => number
}

/** What is clamped to the terminals: an engine and the two points. */
export interface Clamped {
  readonly casualty: Casualty
  readonly plus: string
  readonly minus: string
}

export const MOST_VOLTS = 24
export const MOST_AMPS = 3
const MOST_ERRORS = 20
const OUTPUT_OHMS = 0.02
/** ±(% of reading + digits) of its own meter. */
export const SUPPLY_ACCURACY = {
  voltage: { percentOfReading: 0.05, resolution: 0.001, digits: 2 },
  current: { percentOfReading: 0.1, resolution: 0.0001, digits: 3 },
} as const
/** Power line cycles a reading is taken over, s. */
const APERTURE_SECONDS = 0.02
const STEP_SECONDS = 1e-4
/** Longest stretch caught up with at once; a supply left alone has reached its steady state long before. */
const LONGEST_CATCH_UP_SECONDS = 2
const MOST_RECORDED = 40_000

/**
 * A bench supply with meter that speaks SCPI-1999 over IEEE 488.2 common commands, with a casualty clamped to it. It
 * turns its output off by itself when nobody has spoken to it for the time its watchdog is set to.
 */
export class SimulatedSupply {
  private volts = 0
  private ampsLimit = 1
  private output = false
  private hertz = 0
  private watchdogSeconds = 0
  private heardAt: number
  private simulatedTo: number
  private readonly errors: ScpiError[] = []
  private clamped: Clamped | null = null
  private held: number | null = null
  private joined = false
  private recorded: Array<readonly [volts: number, amps: number]> = []

  constructor(private readonly options: SimulatedSupplyOptions) {
    this.heardAt = options.clock()
    this.simulatedTo = this.heardAt
  }

  /** Clamps an engine to the terminals, or takes the clamps off. */
  clamp(clamped: Clamped | null): void {
    this.catchUp()
    this.clamped?.casualty.apply(null)
    this.clamped = clamped
    this.feed()
  }

  /** Puts the two clips of the leads together with nothing between, or takes them apart again. */
  joinClips(together: boolean): void {
    this.catchUp()
    this.joined = together
  }

  /** A hand that holds the armature at an angle, or lets go. */
  hold(angle: number | null): void {
    this.catchUp()
    this.held = angle
    this.clamped?.casualty.hold(angle)
  }

  get isOn(): boolean {
    this.catchUp()
    return this.output
  }

  /**
   * Carries out one line.
   *
   * @returns the answers of its queries joined with `;`, or null when it asked nothing
   */
  execute(line: string): string | null {
    this.catchUp()
    this.heardAt = this.options.clock()
    const answers: string[] = []
    try {
      for (const unit of parseMessage(line)) {
        const answer = this.carryOut(unit)
        if (answer !== null) answers.push(answer)
      }
    } catch (error) {
      if (!(error instanceof ScpiError)) throw error
      this.note(error)
    }
    return answers.length > 0 ? answers.join(';') : null
  }

  /** Turns the output off at once: what a front panel, a lost connection or a watchdog does. */
  off(): void {
    this.output = false
    this.feed()
  }

  private note(error: ScpiError): void {
    // A full queue keeps its oldest and says that something was lost (−350).
    if (this.errors.length < MOST_ERRORS) this.errors.push(error)
    else this.errors[MOST_ERRORS - 1] = new ScpiError(-350, 'Queue overflow')
  }

  private carryOut(unit: ScpiUnit): string | null {
    const command = this.commands.find(
      (entry) => matchesHeader(entry.header, unit.path) && (unit.query ? entry.ask : entry.set),
    )
    if (!command) throw new ScpiError(-113, 'Undefined header')
    if (unit.query) return command.ask?.(unit.parameters) ?? null
    const most = command.parameters ?? 1
    if (unit.parameters.length > most) throw new ScpiError(-108, 'Parameter not allowed')
    if (unit.parameters.length < most) throw new ScpiError(-109, 'Missing parameter')
    command.set?.(unit.parameters)
    return null
  }

  private readonly commands: ReadonlyArray<{
    header: string
    parameters?: number
    set?: (parameters: readonly string[]) => void
    ask?: (parameters: readonly string[]) => string
  }> = [
    { header: '*IDN', ask: () => `Echoppe,Simulated bench supply,${this.options.serialNumber ?? '1'},1.0` },
    { header: '*RST', parameters: 0, set: () => this.reset() },
    {
      header: '*CLS',
      parameters: 0,
      set: () => {
        this.errors.length = 0
      },
    },
    { header: '*OPC', parameters: 0, set: () => {}, ask: () => '1' },
    {
      header: '[SOURce]:VOLTage[:LEVel][:IMMediate][:AMPLitude]',
      set: ([text]) => {
        this.volts = this.within(text, 'V', MOST_VOLTS)
        this.feed()
      },
      ask: () => this.volts.toFixed(3),
    },
    {
      header: '[SOURce]:CURRent[:LEVel][:IMMediate][:AMPLitude]',
      set: ([text]) => {
        this.ampsLimit = this.within(text, 'A', MOST_AMPS)
        this.feed()
      },
      ask: () => this.ampsLimit.toFixed(4),
    },
    {
      header: '[SOURce]:FREQuency',
      set: ([text]) => {
        this.hertz = this.within(text, '', 60)
        this.feed()
      },
      ask: () => this.hertz.toFixed(1),
    },
    {
      header: 'OUTPut[:STATe]',
      set: ([text]) => {
        this.output = parseBoolean(text ?? '')
        this.feed()
      },
      ask: () => (this.output ? '1' : '0'),
    },
    {
      header: 'OUTPut:POLarity',
      set: ([text]) => this.polarity(text ?? ''),
      ask: () => (this.reversed ? 'INV' : 'NORM'),
    },
    {
      header: 'OUTPut:WATChdog',
      set: ([text]) => {
        this.watchdogSeconds = this.within(text, 'S', 3600)
      },
      ask: () => this.watchdogSeconds.toFixed(1),
    },
    { header: 'MEASure[:SCALar]:VOLTage[:DC]', ask: () => this.measure().volts.toFixed(4) },
    { header: 'MEASure[:SCALar]:CURRent[:DC]', ask: () => this.measure().amps.toFixed(5) },
    { header: 'MEASure[:SCALar]:BOTH', ask: () => this.both() },
    { header: 'TRACe:RECord', set: ([text]) => this.record(this.within(text, 'S', 4)) },
    {
      header: 'TRACe:DATA',
      ask: () => this.recorded.map(([volts, amps]) => `${volts.toFixed(4)},${amps.toFixed(5)}`).join(','),
    },
    { header: 'TRACe:RATE', ask: () => (1 / STEP_SECONDS).toFixed(0) },
    {
      header: 'STATus:QUEStionable:CONDition',
      ask: () => (this.output && (this.clamped?.casualty.now.limited ?? false) ? '2' : '0'),
    },
    {
      header: 'SYSTem:ERRor[:NEXT]',
      ask: () => {
        const error = this.errors.shift()
        return error ? `${error.code},"${error.message}"` : '0,"No error"'
      },
    },
    { header: 'SYSTem:VERSion', ask: () => '1999.0' },
  ]

  private reversed = false
  private polarity(text: string): void {
    const word = text.trim().toUpperCase()
    if (!['NORM', 'NORMAL', 'INV', 'INVERTED'].includes(word)) throw new ScpiError(-224, 'Illegal parameter value')
    this.reversed = word.startsWith('INV')
    this.feed()
  }

  private within(text: string | undefined, unit: 'V' | 'A' | 'S' | '', most: number): number {
    const value = parseNumber(text ?? '', unit)
    if (value < 0 || value > most) throw new ScpiError(-222, 'Data out of range')
    return value
  }

  private reset(): void {
    this.volts = 0
    this.ampsLimit = 1
    this.hertz = 0
    this.output = false
    this.reversed = false
    this.watchdogSeconds = 0
    this.feed()
  }

  private feed(): void {
    if (!this.clamped) return
    const { casualty, plus, minus } = this.clamped
    const feed: Feed = {
      plus,
      minus,
      volts: this.reversed ? -this.volts : this.volts,
      ohms: OUTPUT_OHMS + (this.options.leadOhms ?? 0),
      limitAmps: this.ampsLimit,
      hertz: this.hertz,
    }
    casualty.hold(this.held)
    casualty.apply(this.output ? feed : null)
  }

  /** Lets the engine do what it did since it was last looked at, the watchdog’s moment included. */
  private catchUp(): void {
    const now = this.options.clock()
    const due = this.watchdogSeconds > 0 && this.output ? this.heardAt + this.watchdogSeconds : Number.POSITIVE_INFINITY
    if (now >= due) {
      this.simulate(due)
      this.off()
    }
    this.simulate(now)
  }

  private simulate(until: number): void {
    const seconds = Math.min(until - this.simulatedTo, LONGEST_CATCH_UP_SECONDS)
    this.simulatedTo = Math.max(this.simulatedTo, until)
    if (seconds > STEP_SECONDS && this.clamped) this.clamped.casualty.run(seconds, STEP_SECONDS)
  }

  private measure(): { volts: number; amps: number } {
    if (this.joined) {
      const amps = this.output
        ? Math.min(this.ampsLimit, this.volts / (OUTPUT_OHMS + (this.options.leadOhms ?? 0))) * (this.reversed ? -1 : 1)
        : 0
      return this.seen(amps * (this.options.leadOhms ?? 0), amps)
    }
    if (!this.clamped) return this.seen(this.output ? (this.reversed ? -this.volts : this.volts) : 0, 0)
    const { casualty } = this.clamped
    let [volts, amps, count] = [0, 0, 0]
    casualty.run(APERTURE_SECONDS, STEP_SECONDS, () => {
      const { meter } = casualty
      volts += this.hertz > 0 ? meter.volts ** 2 : meter.volts + meter.amps * (this.options.leadOhms ?? 0)
      amps += this.hertz > 0 ? meter.amps ** 2 : meter.amps
      count += 1
    })
    this.simulatedTo += APERTURE_SECONDS
    return this.hertz > 0
      ? this.seen(Math.sqrt(volts / count), Math.sqrt(amps / count))
      : this.seen(volts / count, amps / count)
  }

  private both(): string {
    const { volts, amps } = this.measure()
    return `${volts.toFixed(4)},${amps.toFixed(5)}`
  }

  /** With the scatter of its own meter: a third of its accuracy is one standard deviation. */
  private seen(volts: number, amps: number): { volts: number; amps: number } {
    const noise = this.options.noise ?? ((): number => 0)
    const spread = (
      value: number,
      accuracy: { percentOfReading: number; resolution: number; digits: number },
    ): number => ((Math.abs(value) * accuracy.percentOfReading) / 100 + accuracy.digits * accuracy.resolution) / 3
    return {
      volts: volts + noise() * spread(volts, SUPPLY_ACCURACY.voltage),
      amps: amps + noise() * spread(amps, SUPPLY_ACCURACY.current),
    }
  }

  private record(seconds: number): void {
    this.recorded = []
    if (!this.clamped) return
    const { casualty } = this.clamped
    casualty.run(seconds, STEP_SECONDS, () => {
      if (this.recorded.length < MOST_RECORDED) this.recorded.push([casualty.meter.volts, casualty.meter.amps])
    })
    this.simulatedTo += seconds
  }
}
