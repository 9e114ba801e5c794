import type { Reading } from '../../knowledge/knowledge-schema'
import type { Mood } from './circuit-classes'
import type { Signature } from './electrical-signature'
import type { Moods } from './mixed-moods'
import { hangsOnArmature, inWordsOf, shared, signatureChances, turningAsItStands } from './signature-chances'

/** Who tries it on the rails watches wheels: a motor that runs free is called running or standing, as it is meant. From memory. */
const STANDS_IDLE = 0.5
const watchedOnWheels: ReadonlySet<string> = new Set(['track', 'track-rocked', 'dcc-track', 'wheels', 'pickups'])

/** A test whose outcome is read from circuit and drive. */
export interface FromSignature {
  readonly test: number
  readonly offset: number
  readonly count: number
  readonly reading: Reading
  /** Which motor, or which of the lamps, it is made at. */
  readonly at: number
  readonly unsteady: number
  readonly fallsTo: readonly number[]
  readonly moods: Readonly<Record<Mood, Moods>>
  readonly ofFriction: Readonly<Record<Mood, Moods>>
  readonly ids: readonly string[]
}

/** The tests read from circuit and drive, and numbers for what they can say: the same words have the same number. */
export class Words {
  private readonly known: ReadonlyArray<Map<string, number>>
  private readonly betweens = new Map<string, number>()

  /**
   * @param tests in the order of their places
   * @param width of all outcomes of all tests
   * @param sound what a sound engine of the kind gives
   */
  constructor(
    readonly tests: readonly FromSignature[],
    readonly width: number,
    readonly sound: Signature,
  ) {
    this.known = tests.map(() => new Map())
  }

  /** A number for chances that lie between two words, the same in every test. */
  numberOf(words: string): number {
    const number = this.betweens.get(words) ?? this.betweens.size
    this.betweens.set(words, number)
    return number
  }

  /** A number for what one test says. */
  numberAt(place: number, words: string): number {
    const numbers = this.known[place] as Map<string, number>
    const number = numbers.get(words) ?? numbers.size
    numbers.set(words, number)
    return number
  }
}

/** What one signature gives in every test read from it, each worked out when it is first asked for. */
export class Readout {
  /** Chances of all outcomes of all tests; those asked for are filled in. */
  readonly chances: Float32Array
  /** By test: signatures with the same number have the same chances; −1 where it was not asked for yet. */
  private readonly numbers: Int32Array
  /** By test: as `CircuitRow.betweenWords` has it; −2 where it hangs on where the armature stands. */
  private readonly betweens: Int32Array
  private turningOfMotors: readonly boolean[] | null = null

  /**
   * @param words of the engine
   * @param signature what the circuit gives
   * @param idle something slips so that no wheel is driven any more
   */
  constructor(
    private readonly words: Words,
    private readonly signature: Signature,
    private readonly idle: boolean,
  ) {
    this.chances = new Float32Array(words.width)
    this.numbers = new Int32Array(words.tests.length).fill(-1)
    this.betweens = new Int32Array(words.tests.length).fill(-1)
  }

  /** By motor: whether it turns. */
  get turning(): readonly boolean[] {
    this.turningOfMotors ??= turningAsItStands(this.signature)
    return this.turningOfMotors
  }

  get turns(): boolean {
    return this.turning.some(Boolean)
  }

  get wheelOhms(): Signature['wheelOhms'] {
    return this.signature.wheelOhms
  }

  /** Signatures with the same number have the same chances in this test. */
  alike(place: number): number {
    this.workOut(place)
    return this.numbers[place] as number
  }

  /** As `CircuitRow.betweenWords` has it. */
  between(place: number): number {
    this.workOut(place)
    return Math.max(-1, this.betweens[place] as number)
  }

  /** Whether it hangs on where the armature stands. */
  hangs(place: number): boolean {
    this.workOut(place)
    return this.betweens[place] === -2
  }

  /** Chances of all outcomes, those of this test filled in. */
  wordsAt(place: number): Float32Array {
    this.workOut(place)
    return this.chances
  }

  private workOut(place: number): void {
    if ((this.numbers[place] as number) >= 0) return
    const { words, signature, chances } = this
    const { offset, reading, at: made, ids } = words.tests[place] as FromSignature
    const read = signatureChances(reading, signature, words.sound, made)
    const found = inWordsOf(
      this.idle && reading.kind === 'motion' && watchedOnWheels.has(reading.feed)
        ? shared(read, STANDS_IDLE, 'stands')
        : read,
      ids,
    )
    for (const [at, id] of ids.entries()) chances[offset + at] = found[id] ?? 0
    const spoken = ids.map((id) => found[id] ?? 0).join()
    this.numbers[place] = words.numberAt(place, spoken)
    if (hangsOnArmature(reading, signature)) this.betweens[place] = -2
    else if (ids.some((id) => (found[id] ?? 0) > 0 && (found[id] ?? 0) < 1))
      this.betweens[place] = words.numberOf(spoken)
  }
}
