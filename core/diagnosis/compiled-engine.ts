import type { EngineDescription } from '../engine/description-schema'
import { benchTestsOf, type BenchTest } from './places/bench-tests'
import { CircuitClasses, DRAG_MOODS, type Variant } from './circuit/circuit-classes'
import { CircuitOutcomes, type CircuitRow } from './circuit/circuit-outcomes'
import type { SignsOfTest } from './belief/lasting-signs'
import type { Circumstance, Fault, Knowledge, Remedy } from '../knowledge/knowledge-schema'
import { placesOf, type Place } from './places/places-of'
import { suspectsOf, type Suspect } from './places/suspects'

/** Of an unlisted fault: how far every outcome goes towards “anything may be seen”. What it shows it shows again. */
const UNLISTED_SPREAD = 0.6
/** From this chance on an outcome is explained without it: many small oddities together are no sign of something unheard of. */
const NAMED_CHANCE = 0.025

const unlistedPlace: Place = {
  id: 'unlisted',
  role: 'engine',
  name: 'engine',
  components: [],
  links: [],
  turnable: null,
  motor: null,
  truck: null,
  part: null,
  access: null,
}
const unlistedRemedy: Remedy = {
  id: 'search-on',
  name: 'Search on by hand',
  minutes: 45,
  reach: 'as-it-stands',
  parts: [],
  products: [],
  caution: '',
  success: 0.7,
  after: [],
  school: '',
  source: 'judged',
}
const unlistedFault = (prior: number): Fault => ({
  id: 'unlisted',
  name: 'something the book does not know',
  area: 'outside',
  role: 'engine',
  effect: { kind: 'none' },
  prior,
  raisedBy: [],
  signs: [],
  remedy: unlistedRemedy.id,
  bornAtRefit: false,
  source: 'judged',
})

/**
 * One engine, made ready for diagnosis: its suspects and tests, and the chance of every outcome for any set of
 * suspects. What the circuit shows is solved once for each set it can tell apart and looked up from then on.
 */
export class CompiledEngine {
  /** What is known of its past, and what its construction says by itself. */
  readonly circumstances: ReadonlySet<Circumstance>
  readonly places: readonly Place[]
  readonly suspects: readonly Suspect[]
  readonly tests: readonly BenchTest[]
  /** Index of the fault that no row names. */
  readonly unlisted: number
  readonly outcomes: CircuitOutcomes
  private readonly classes: CircuitClasses
  /** By variant: its suspect. */
  readonly suspectOf: Int16Array
  /** Classes of the set asked for last. */
  private present = new Int32Array(16)
  private readonly rows = new Map<number | string, CircuitRow>()
  /** So many were made; a number is never given twice. */
  private rowsNumbered = 0
  private readonly testIndex: ReadonlyMap<string, number>
  private readonly suspectIndex: ReadonlyMap<string, number>
  /** By test: 1 − chance of each sign, suspects × outcomes; null for a test the circuit answers. */
  private readonly silences: ReadonlyArray<Float64Array | null>
  private readonly leaks: ReadonlyArray<readonly number[]>

  constructor(
    readonly description: EngineDescription,
    readonly knowledge: Knowledge,
    known: Iterable<Circumstance> = [],
    learned: Readonly<Record<string, number>> = {},
  ) {
    const circumstances = new Set<Circumstance>([...known, ...builtIn(description)])
    this.circumstances = circumstances
    this.places = placesOf(description)
    const listed = suspectsOf(description, this.places, knowledge, circumstances, learned)
    this.suspects = [
      ...listed,
      {
        id: 'unlisted',
        fault: unlistedFault(knowledge.unlisted),
        place: unlistedPlace,
        name: 'something the book does not know',
        prior: knowledge.unlisted,
        remedy: unlistedRemedy,
        mendedBy: unlistedRemedy.id,
        goal: [],
      },
    ]
    this.unlisted = listed.length
    this.tests = benchTestsOf(description, this.places, knowledge, circumstances)
    this.outcomes = new CircuitOutcomes(description, this.tests)
    this.classes = new CircuitClasses(this.suspects, description)
    this.suspectOf = Int16Array.from(this.variants, (variant) => variant.suspect)
    this.testIndex = new Map(this.tests.map((test, index) => [test.id, index]))
    this.suspectIndex = new Map(this.suspects.map((suspect, index) => [suspect.id, index]))
    this.silences = this.tests.map((test) => this.silencesOf(test))
    this.leaks = this.tests.map(({ test }) => test.outcomes.map(({ leak }) => leak))
  }

  /** Suspects as they may be; hypotheses are made of these. */
  get variants(): readonly Variant[] {
    return this.classes.variants
  }

  /** Whether circuit or drive show anything of a variant. */
  showsInCircuit(variant: number): boolean {
    return this.classes.shows(variant)
  }

  /** Tells apart what circuit and drive tell apart. */
  patternOf(variant: number): string {
    return this.classes.patternOf(variant)
  }

  /** @throws RangeError naming the test this engine does not have */
  indexOfTest(id: string): number {
    const index = this.testIndex.get(id)
    if (index === undefined) throw new RangeError(`There is no test “${id}” for ${this.description.name}.`)
    return index
  }

  /** @throws RangeError naming the suspect this engine does not have */
  indexOfSuspect(id: string): number {
    const index = this.suspectIndex.get(id)
    if (index === undefined) throw new RangeError(`There is no suspect “${id}” in ${this.description.name}.`)
    return index
  }

  /** @throws RangeError naming the outcome the test does not have */
  indexOfOutcome(test: number, id: string): number {
    const index = (this.tests[test] as BenchTest).test.outcomes.findIndex((outcome) => outcome.id === id)
    if (index < 0) throw new RangeError(`The test “${this.tests[test]?.id ?? ''}” cannot come out as “${id}”.`)
    return index
  }

  /**
   * What the circuit shows with these variants present; the same row comes back for every set it cannot tell apart.
   *
   * @param variants those present, the first `count` of them
   */
  circuitRow(variants: ArrayLike<number>, count: number): CircuitRow {
    if (this.present.length < count + DRAG_MOODS) this.present = new Int32Array(2 * (count + DRAG_MOODS))
    const { present } = this
    const found = this.classes.write(variants, count, present)
    const base = this.classes.count + 1
    // Up to seven classes fit a number exactly; confirmed faults can make more.
    let key: number | string = 0
    if (found <= 7) for (let at = 0; at < found; at++) key = key * base + (present[at] as number) + 1
    else key = present.subarray(0, found).join()
    const known = this.rows.get(key)
    if (known) return known
    const row = this.outcomes.row(
      Array.from(present.subarray(0, found), (entry) => this.classes.get(entry)),
      this.rowsNumbered++,
    )
    this.rows.set(key, row)
    return row
  }

  /** How often its rows were let go of. */
  timesForgotten = 0

  get rowCount(): number {
    return this.rows.size
  }

  /** Lets go of all rows and of what the circuit was solved for; asked again they come out the same. */
  forgetRows(): void {
    this.rows.clear()
    this.outcomes.forget()
    this.timesForgotten++
  }

  /**
   * Chance of each outcome of a test, misreading counted in. They add up to one; where the test can only be judged
   * on a motor that turns and it does not, what is said anyway is as likely one as the other.
   *
   * @param test index of the test
   * @param suspects those present
   * @param row what the circuit makes of them
   * @param out filled from its start
   */
  chances(test: number, suspects: readonly number[], row: CircuitRow, out: Float64Array): void {
    const spread = this.trueChances(test, suspects, row, out)
    const count = (this.tests[test] as BenchTest).test.outcomes.length
    for (let outcome = 0; outcome < count; outcome++)
      out[outcome] = (1 - spread) * (out[outcome] as number) + spread / count
  }

  /**
   * Chance of what there is to be seen, before anybody misreads it.
   *
   * @returns how far what is noted goes towards “anything may be noted”: the chance of misreading, or more
   */
  trueChances(test: number, suspects: readonly number[], row: CircuitRow, out: Float64Array): number {
    const { test: known } = this.tests[test] as BenchTest
    const count = known.outcomes.length
    const silence = this.silences[test]
    if (silence) {
      let notLater = 1
      for (let outcome = count - 1; outcome > 0; outcome--) {
        let silent = 1 - (known.outcomes[outcome]?.leak ?? 0)
        for (const suspect of suspects) silent *= silence[suspect * count + outcome] as number
        out[outcome] = notLater * (1 - silent)
        notLater *= silent
      }
      out[0] = notLater
    } else {
      const offset = this.outcomes.offsets[test] as number
      const chances = row.chances(test)
      let sum = 0
      for (let outcome = 0; outcome < count; outcome++) sum += chances[offset + outcome] as number
      for (let outcome = 0; outcome < count; outcome++)
        out[outcome] = sum > 0 ? (chances[offset + outcome] as number) / sum : 1 / count
    }
    if (suspects.includes(this.unlisted)) spreadUnlisted(out, count)
    // That the motor runs and no wheel turns is itself said of a motor that runs.
    return known.needsRunning && !row.turns && known.reading.kind !== 'wheels-turn' ? 1 : known.misread
  }

  /** Whether a suspect changes what is seen at a test read by signs. */
  givesSign(test: number, suspect: number): boolean {
    const silence = this.silences[test]
    if (!silence || suspect === this.unlisted) return true
    const count = (this.tests[test] as BenchTest).test.outcomes.length
    for (let outcome = 0; outcome < count; outcome++)
      if ((silence[suspect * count + outcome] as number) !== 1) return true
    return false
  }

  /** What a look can show, and how often each suspect does; null for what circuit and drive tell. */
  signsOf(test: number): SignsOfTest | null {
    const silence = this.silences[test]
    const { outcomes } = (this.tests[test] as BenchTest).test
    return silence ? { outcomes: outcomes.length, silence, leaks: this.leaks[test] as number[] } : null
  }

  private silencesOf({ test, place }: BenchTest): Float64Array | null {
    if (test.reading.kind !== 'signs') return null
    const count = test.outcomes.length
    const silence = new Float64Array(this.suspects.length * count).fill(1)
    for (const [index, suspect] of this.suspects.entries()) {
      if (!concerns(place, suspect.place)) continue
      for (const sign of suspect.fault.signs) {
        if (sign.test !== test.id) continue
        const outcome = test.outcomes.findIndex((entry) => entry.id === sign.outcome)
        silence[index * count + outcome] = (silence[index * count + outcome] as number) * (1 - sign.chance)
      }
    }
    return silence
  }
}

/** What the book does not know may show as anything, but it takes nothing for itself that what is named shows as well. */
function spreadUnlisted(out: Float64Array, count: number): void {
  let whole = 0
  for (let outcome = 0; outcome < count; outcome++) {
    const named = out[outcome] as number
    const chance = named >= NAMED_CHANCE ? named : (1 - UNLISTED_SPREAD) * named + UNLISTED_SPREAD / count
    out[outcome] = chance
    whole += chance
  }
  for (let outcome = 0; outcome < count; outcome++) out[outcome] = (out[outcome] as number) / whole
}

/** Power, collecting through axle cups and a drive of spur gears alone need not be told. */
function builtIn(description: EngineDescription): Circumstance[] {
  const kinds = new Set(description.links.map((link) => link.kind))
  const straightCut = kinds.has('mesh') && !kinds.has('worm')
  return [
    `power-${description.power}`,
    ...(straightCut ? ['straight-cut-gears' as const] : []),
    ...(description.components.some(({ role }) => role === 'axle-cup') ? ['axle-cups' as const] : []),
  ]
}

/** A test at one bogie, or at one motor, says nothing of another; what is felt at the motor is felt of the whole train behind it. */
function concerns(tested: Place, suspected: Place): boolean {
  if (tested.role === 'engine' || tested.role === 'outside' || tested.id === suspected.id) return true
  // Two leads of one motor are looked at one by one.
  if (tested.role === suspected.role) return false
  if (tested.motor !== null && suspected.motor !== null) return tested.motor === suspected.motor
  return tested.truck === null || suspected.truck === null || tested.truck === suspected.truck
}
