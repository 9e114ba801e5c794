import { connect, type Socket } from 'node:net'
import { usualCommands, type SupplyCommands } from './supply-commands'

export type SupplyTrouble = 'unreachable' | 'silent' | 'lost' | 'busy' | 'nonsense' | 'refused' | 'stranger'

/** Something went wrong with an instrument: which way, and in a sentence. */
export class SupplyProblem extends Error {
  constructor(
    readonly trouble: SupplyTrouble,
    sentence: string,
  ) {
    super(sentence)
  }
}

export interface SupplyAddress {
  readonly host: string
  readonly port: number
  readonly commands?: SupplyCommands
  /** How long an answer may take, ms. */
  readonly patienceMs?: number
  /** What the supply is called in sentences, where that is not its address. */
  readonly shownAs?: string
  /** Nothing but the question who it is goes out until an instrument has answered it. */
  readonly untilIntroduced?: boolean
}

const USUAL_PATIENCE_MS = 2000
const LARGEST_READING = 1000
/** More than the longest recording a supply gives in one line, in characters. */
const LONGEST_LINE = 16e6
const LONGEST_INTRODUCTION = 1000
const SHOWN_CHARACTERS = 60
const LONGEST_GOODBYE_MS = 200

const inSentenceStart = (name: string): string => `${name.charAt(0).toUpperCase()}${name.slice(1)}`

/** An answer as it may be shown: printable, and not longer than a line. */
export function plainAnswer(line: string): string {
  const printable = line.replace(/[^\x20-\x7e\u00a0-\uffff]/g, '·')
  return printable.length > SHOWN_CHARACTERS ? `${printable.slice(0, SHOWN_CHARACTERS)}…` : printable
}

/** Maker, model, serial number and version, as every instrument answers *IDN? (IEEE 488.2, 10.14); two commas at least. */
const INTRODUCTION = /^[\x20-\x2b\x2d-\x7e]{1,72}(,[\x20-\x2b\x2d-\x7e]{0,72}){2,5}$/

/**
 * A bench supply over TCP, one line a message. Whatever goes wrong turns its output off first, as far as it still
 * listens, and is said in a sentence.
 */
export class SupplyClient {
  private pending = ''
  private waiting: {
    resolve: (line: string) => void
    reject: (problem: SupplyProblem) => void
    timer: NodeJS.Timeout
  } | null = null
  private queue: Promise<unknown> = Promise.resolve()
  private gone: SupplyProblem | null = null

  private constructor(
    private readonly socket: Socket,
    private readonly commands: SupplyCommands,
    private readonly patienceMs: number,
    private readonly name: string,
    private introduced: boolean,
  ) {
    socket.setNoDelay(true)
    socket.setEncoding('utf8')
    socket.on('data', (chunk: string) => this.hear(chunk))
    socket.on('error', () => {})
    socket.on('close', () =>
      this.lose(
        new SupplyProblem(
          'lost',
          `The connection to ${this.name} was lost. Its output goes off by itself if it has a watchdog: look at it.`,
        ),
      ),
    )
  }

  /** @throws SupplyProblem when nothing answers there, or it is not free */
  static async open({
    host,
    port,
    commands = usualCommands,
    patienceMs = USUAL_PATIENCE_MS,
    shownAs,
    untilIntroduced = false,
  }: SupplyAddress): Promise<SupplyClient> {
    const place = shownAs ?? `${host}:${port}`
    const name = `the supply at ${place}`
    const socket = await new Promise<Socket>((resolve, reject) => {
      const opening = connect({ host, port })
      const timer = setTimeout(() => {
        opening.destroy()
        reject(
          new SupplyProblem('unreachable', `Nothing answers at ${place}: is the supply on, and the address right?`),
        )
      }, patienceMs)
      opening.once('connect', () => {
        clearTimeout(timer)
        resolve(opening)
      })
      opening.once('error', () => {
        clearTimeout(timer)
        reject(
          new SupplyProblem('unreachable', `Nothing answers at ${place}: is the supply on, and the address right?`),
        )
      })
    })
    const client = new SupplyClient(socket, commands, patienceMs, name, !untilIntroduced)
    if (untilIntroduced) await client.identify()
    return client
  }

  /** Who it says it is. */
  async identify(): Promise<string> {
    const line = await this.ask(this.commands.identify)
    if (/^ERR\b/.test(line))
      throw this.lose(new SupplyProblem('busy', `Somebody else is connected to ${this.name}: it takes one at a time.`))
    if (!this.introduced && !INTRODUCTION.test(line)) throw this.lose(this.stranger(line))
    this.introduced = true
    return plainAnswer(line)
  }

  async setVolts(volts: number): Promise<void> {
    await this.tell(this.commands.setVolts.replace('{}', volts.toFixed(3)))
  }

  async setAmpsLimit(amps: number): Promise<void> {
    await this.tell(this.commands.setAmpsLimit.replace('{}', amps.toFixed(4)))
  }

  async output(on: boolean): Promise<void> {
    // Off does not wait behind a question that may never be answered; its turn comes once more after what was before it.
    if (!on && this.waiting && this.socket.writable) this.socket.write(`${this.commands.outputOff}\n`)
    await this.tell(on ? this.commands.outputOn : this.commands.outputOff)
  }

  async reverse(reversed: boolean): Promise<void> {
    await this.tell(reversed ? this.commands.polarityReversed : this.commands.polarityNormal)
  }

  /**
   * AC of so many Hz, or DC with 0.
   *
   * @throws SupplyProblem when it gives DC only and is asked for AC
   */
  async setHertz(hertz: number): Promise<void> {
    if (this.commands.frequency) return this.tell(this.commands.frequency.replace('{}', hertz.toFixed(1)))
    if (hertz > 0)
      throw new SupplyProblem(
        'refused',
        `${inSentenceStart(this.name)} gives DC only, as far as it is described under Workshop: its command for the frequency is empty.`,
      )
  }

  /** Asks it to go off by itself when nobody speaks to it for so long; nothing where it cannot. */
  async watchdog(seconds: number): Promise<void> {
    if (this.commands.watchdog) await this.tell(this.commands.watchdog.replace('{}', seconds.toFixed(1)))
  }

  async measureVolts(): Promise<number> {
    return this.number(this.commands.measureVolts, 'volts')
  }

  async measureAmps(): Promise<number> {
    return this.number(this.commands.measureAmps, 'amps')
  }

  /** A stretch of current at the supply's own rate; an empty one where it cannot record. */
  async record(seconds: number): Promise<{ rate: number; amps: number[] }> {
    if (!this.commands.record) return { rate: 0, amps: [] }
    await this.tell(this.commands.record.replace('{}', seconds.toFixed(2)))
    const numbers = (await this.ask(this.commands.recorded)).split(',').map(Number)
    if (numbers.some((value) => !Number.isFinite(value)))
      throw this.lose(
        new SupplyProblem(
          'nonsense',
          `What ${this.name} recorded is no list of numbers. Check its command strings under Workshop.`,
        ),
      )
    return {
      rate: await this.number(this.commands.recordRate, 'its rate', 1e7),
      amps: numbers.filter((_, index) => index % 2 === 1),
    }
  }

  /** Resolves once everything it was told has been carried out (`*OPC?`, IEEE 488.2). */
  async carriedOut(): Promise<void> {
    await this.ask('*OPC?')
  }

  /** Everything in its error queue, oldest first. */
  async errors(): Promise<string[]> {
    const found: string[] = []
    for (let count = 0; count < 30; count++) {
      const line = await this.ask(this.commands.nextError)
      if (/^[+]?0\b/.test(line)) break
      found.push(plainAnswer(line))
    }
    return found
  }

  /** Output off, then the connection closed, whatever still waits for an answer; never throws. */
  async close(): Promise<void> {
    const closed = new Promise<void>((resolve) => {
      this.socket.once('close', () => resolve())
      setTimeout(resolve, LONGEST_GOODBYE_MS)
    })
    this.lose(new SupplyProblem('lost', `The connection to ${this.name} is closed.`))
    if (!this.socket.destroyed) await closed
    this.socket.destroy()
  }

  private async number(query: string, what: string, most = LARGEST_READING): Promise<number> {
    const line = await this.ask(query)
    const value = Number(line)
    if (line.trim() === '' || !Number.isFinite(value) || Math.abs(value) > most) {
      throw this.lose(
        new SupplyProblem(
          'nonsense',
          `Asked for ${what}, ${this.name} answers “${plainAnswer(line)}”: that is no reading. Check its command strings under Workshop.`,
        ),
      )
    }
    return value
  }

  /** One after the other: an answer belongs to the question before it. */
  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const done = this.queue.then(work)
    this.queue = done.catch(() => {})
    return done
  }

  private tell(command: string): Promise<void> {
    return this.inTurn(async () => {
      if (this.gone) throw this.gone
      this.socket.write(`${command}\n`)
    })
  }

  private ask(query: string): Promise<string> {
    return this.inTurn(
      () =>
        new Promise<string>((resolve, reject) => {
          if (this.gone) return reject(this.gone)
          const timer = setTimeout(
            () =>
              reject(
                this.lose(
                  new SupplyProblem(
                    'silent',
                    `${inSentenceStart(this.name)} does not answer “${query}” within ${this.patienceMs / 1000} s.`,
                  ),
                ),
              ),
            this.patienceMs,
          )
          this.waiting = { resolve, reject, timer }
          this.socket.write(`${query}\n`)
        }),
    )
  }

  private hear(chunk: string): void {
    this.pending += chunk
    // What speaks before it is asked, in other signs, or never ends its line, is no instrument.
    const strange =
      !this.introduced &&
      (!this.waiting || /[^\x20-\x7e\r\n]/.test(this.pending) || this.pending.length > LONGEST_INTRODUCTION)
    if (strange || this.pending.length > LONGEST_LINE) {
      this.lose(this.stranger(this.pending.slice(0, SHOWN_CHARACTERS)))
      return
    }
    const end = this.pending.indexOf('\n')
    if (end < 0 || !this.waiting) return
    const line = this.pending.slice(0, end).trim()
    this.pending = this.pending.slice(end + 1)
    const { resolve, timer } = this.waiting
    clearTimeout(timer)
    this.waiting = null
    resolve(line)
  }

  /** The end of this connection: output off as far as it still listens, and whoever waits is told. */
  private lose(problem: SupplyProblem): SupplyProblem {
    if (!this.gone) {
      this.gone = problem
      // To a stranger nothing is said, not even that.
      if (this.socket.writable && this.introduced) this.socket.write(`${this.commands.outputOff}\n`)
      this.socket.destroySoon()
      this.disappoint(problem)
    }
    return problem
  }

  private stranger(line: string): SupplyProblem {
    return new SupplyProblem(
      'stranger',
      `What answers at ${this.name.replace(/^the supply at /, '')} is no instrument: it says “${plainAnswer(line)}”. Nothing was sent to it but the question who it is.`,
    )
  }

  /** Whoever waits for an answer is told that none will come. */
  private disappoint(problem: SupplyProblem): void {
    if (!this.waiting) return
    clearTimeout(this.waiting.timer)
    this.waiting.reject(problem)
    this.waiting = null
  }
}
