import type { CircuitRow } from './circuit-outcomes'
import { Column } from './column'
import type { CompiledEngine } from './compiled-engine'
import { grown } from './grown'
import type { SearchHistory } from './history'
import { hypothesesOf, type Hypotheses } from './hypotheses'
import { HypothesisSets, SET_SIZE } from './hypothesis-sets'
import { chancesAgain, holdsUnlisted, looksKey, type EarlierLook } from './repeated-looks'
import { OutcomeTables } from './outcome-tables'
import { SetWeights } from './set-weights'

/** Sets between two words on progress. */
const STEP = 500
/** Sets of three made ready before anything was found. */
const PREPARED_TRIPLES = 4000

/** The sets of hidden faults as they are at one state of the engine. */
export class AtState {
  /** Confirmed suspects present, and their variants. */
  readonly given: readonly number[]
  readonly givenVariants: readonly number[]
  /** By item: its suspect and variant where it is present in this state, −1 where it is not. */
  private readonly suspects: Int16Array
  private readonly variants: Int16Array
  /** By set: the number of its row; −1 where it was never asked for. */
  private rows = new Int32Array(0)
  /** By item: whether it is present and circuit or drive show it. */
  private readonly shown: Uint8Array
  private readonly present: Int16Array
  private memberSuspects = new Int16Array(0)
  private filled = 0

  constructor(
    private readonly engine: CompiledEngine,
    { items, given }: Hypotheses,
    private readonly sets: HypothesisSets,
    state: number,
  ) {
    const there = given.filter((entry) => entry.bornAt <= state && state < entry.goneAt)
    this.given = there.map((entry) => entry.suspect)
    this.givenVariants = there.map((entry) => entry.variant)
    const here = items.map((item) => item.bornAt <= state && state < item.goneAt)
    this.suspects = Int16Array.from(items, (item, index) => (here[index] ? item.suspect : -1))
    this.variants = Int16Array.from(items, (item, index) => (here[index] ? item.variant : -1))
    this.shown = Uint8Array.from(this.variants, (variant) => (variant >= 0 && engine.showsInCircuit(variant) ? 1 : 0))
    this.present = new Int16Array(SET_SIZE + there.length)
  }

  /** Suspects present in each set besides the given ones: three indices each, −1 where there is none. */
  get members(): Int16Array {
    const { sets } = this
    if (this.filled < sets.count) {
      if (this.memberSuspects.length < sets.members.length)
        this.memberSuspects = grown(this.memberSuspects, sets.members.length)
      for (let at = this.filled * SET_SIZE; at < sets.count * SET_SIZE; at++)
        this.memberSuspects[at] =
          (sets.members[at] as number) < 0 ? -1 : (this.suspects[sets.members[at] as number] as number)
      this.filled = sets.count
    }
    return this.memberSuspects
  }

  /** Whether an item is present in this state. */
  has(item: number): boolean {
    return (this.variants[item] as number) >= 0
  }

  /** What the circuit shows in a set; sets that look alike share it. */
  row(set: number): CircuitRow {
    return this.engine.row(this.rowIndex(set))
  }

  /** The number of that row. */
  rowIndex(set: number): number {
    if (set >= this.rows.length) this.rows = grown(this.rows, this.sets.odds.length, -1)
    const known = this.rows[set] as number
    return known >= 0 ? known : (this.rows[set] = this.findRow(set))
  }

  /** What circuit and drive do not show changes nothing there: the row is that of the rest. */
  private findRow(set: number): number {
    const { members } = this.sets
    let [first, second, count, all] = [-1, -1, 0, 0]
    for (let at = set * SET_SIZE; at < set * SET_SIZE + SET_SIZE; at++) {
      const item = members[at] as number
      if (item < 0) continue
      all++
      if (this.shown[item] === 0) continue
      if (count === 0) first = item
      else second = item
      count++
    }
    if (count < all) return this.rowIndex(this.sets.of(first, second))
    return this.engine.circuitRow(this.present, this.presentIn(set, this.present)).index
  }

  /** Writes the variants present in a set, the given ones too, and says how many. */
  presentIn(set: number, into: Int16Array): number {
    const { members } = this.sets
    let count = 0
    for (let at = set * SET_SIZE; at < set * SET_SIZE + SET_SIZE; at++) {
      const item = members[at] as number
      if (item >= 0 && (this.variants[item] as number) >= 0) into[count++] = this.variants[item] as number
    }
    for (const variant of this.givenVariants) into[count++] = variant
    return count
  }
}

/**
 * The sets of hidden faults for one chain of repairs, at every state asked for: worked out once and shared by all
 * beliefs that differ only in their findings.
 */
export class HypothesisSpace {
  readonly hypotheses: Hypotheses
  readonly sets: HypothesisSets
  private readonly states = new Map<number, AtState>()
  private readonly prepared = new Set<number>()
  private readonly columns = new Map<string, Column>()
  /** Of the findings asked for last. */
  readonly weights: SetWeights
  readonly tables = new OutcomeTables(this)

  /** Spaces of one engine with the same key are alike. */
  readonly key: string

  constructor(
    readonly engine: CompiledEngine,
    events: SearchHistory['events'],
  ) {
    this.key = JSON.stringify(events)
    this.hypotheses = hypothesesOf(engine, events)
    this.sets = new HypothesisSets(this.hypotheses.items, this.hypotheses.soundOnArrival)
    this.weights = new SetWeights(this.sets)
  }

  at(state: number): AtState {
    const known = this.states.get(state)
    if (known) return known
    const made = new AtState(this.engine, this.hypotheses, this.sets, state)
    this.states.set(state, made)
    return made
  }

  /** Solves the circuit for all sets of up to two faults and the likeliest sets of three in steps, once for each state; yields the share done. */
  *prepare(state: number): Generator<number, void> {
    if (this.prepared.has(state)) return
    const here = this.at(state)
    this.sets.rankTriples(this.sets.odds).take(PREPARED_TRIPLES)
    for (let set = 0; set < this.sets.count; set++) {
      here.rowIndex(set)
      if (set % STEP === STEP - 1) yield (set + 1) / this.sets.count
    }
    this.prepared.add(state)
  }

  /** Lets go of what all other findings say: they were struck out, or only thought of. */
  keepOnly(kept: readonly Column[]): void {
    for (const [key, column] of this.columns) if (!kept.includes(column)) this.columns.delete(key)
  }

  /**
   * Chance of one outcome of a test in every set, the engine being in this state.
   *
   * @param before how it, or a test of the same kind, came out earlier
   */
  column(state: number, test: number, outcome: number, before: readonly EarlierLook[] = []): Column {
    const key = `${state}:${test}:${outcome}${looksKey(before)}`
    const known = this.columns.get(key)
    if (known) return known
    const made = new Column(this.sets, this.chanceOf(state, test, outcome, before))
    this.columns.set(key, made)
    return made
  }

  /** The chance of one outcome, set by set; as `chancesAgain` has it, without the detours. */
  private chanceOf(
    state: number,
    test: number,
    outcome: number,
    before: readonly EarlierLook[],
  ): (set: number) => number {
    const {
      engine,
      sets,
      hypotheses: { items },
    } = this
    const here = this.at(state)
    const { outcomes, needsRunning, reading } = (engine.tests[test] as CompiledEngine['tests'][number]).test
    const count = outcomes.length
    if (reading.kind !== 'signs') {
      const holds = holdsUnlisted(this, here)
      const offset = engine.outcomes.offsets[test] as number
      const spreads = [false, true].map((hidden) => engine.spreadOf(test, hidden)) as [number, number]
      const again = before.length > 0 ? chancesAgain(this, state, test, before) : null
      return (set) => {
        const row = here.row(set)
        const anything = holds(set)
        if (again && (anything || row.betweenWords(test) >= 0)) return again(set)[outcome] as number
        const spread = needsRunning && !row.turns ? 1 : anything ? spreads[1] : spreads[0]
        const chances = row.chances(test)
        let sum = 0
        for (let other = 0; other < count; other++) sum += chances[offset + other] as number
        return (1 - spread) * (sum > 0 ? (chances[offset + outcome] as number) / sum : 1 / count) + spread / count
      }
    }
    if (before.length > 0) {
      const again = chancesAgain(this, state, test, before)
      return (set) => again(set)[outcome] as number
    }
    const silence = new Float64Array((items.length + 1) * count).fill(1)
    const unlisted = new Uint8Array(items.length + 1)
    for (const [index, item] of items.entries()) {
      if (!here.has(index)) continue
      for (let sign = 0; sign < count; sign++)
        silence[index * count + sign] = engine.silenceOf(test, item.suspect, sign)
      unlisted[index] = item.suspect === engine.unlisted ? 1 : 0
    }
    const still = Float64Array.from(outcomes, ({ leak }, sign) =>
      here.given.reduce((rest, suspect) => rest * engine.silenceOf(test, suspect, sign), 1 - leak),
    )
    const spreads = [false, true].map((hidden) =>
      engine.spreadOf(test, hidden || here.given.includes(engine.unlisted)),
    ) as [number, number]
    const none = items.length
    return (set) => {
      const { members } = sets
      const [one, two, three] = [
        members[set * SET_SIZE] as number,
        members[set * SET_SIZE + 1] as number,
        members[set * SET_SIZE + 2] as number,
      ]
      const first = one < 0 ? none : one
      const second = two < 0 ? none : two
      const third = three < 0 ? none : three
      const spread =
        needsRunning && !here.row(set).turns
          ? 1
          : (spreads[
              (unlisted[first] as number) | (unlisted[second] as number) | (unlisted[third] as number)
            ] as number)
      let notLater = 1
      for (let sign = count - 1; sign > outcome; sign--)
        notLater *=
          (still[sign] as number) *
          (silence[first * count + sign] as number) *
          (silence[second * count + sign] as number) *
          (silence[third * count + sign] as number)
      const silent =
        outcome === 0
          ? 0
          : (still[outcome] as number) *
            (silence[first * count + outcome] as number) *
            (silence[second * count + outcome] as number) *
            (silence[third * count + outcome] as number)
      return (1 - spread) * notLater * (1 - silent) + spread / count
    }
  }
}
