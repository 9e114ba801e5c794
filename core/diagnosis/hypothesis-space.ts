import type { CircuitRow } from './circuit-outcomes'
import type { CompiledEngine } from './compiled-engine'
import type { SearchHistory } from './history'
import { hypothesesOf, type Hypotheses } from './hypotheses'
import { HypothesisSets } from './hypothesis-sets'

const SET = 3
/** Sets between two words on progress. */
const STEP = 500
/** Sets of three made ready before anything was found. */
const PREPARED_TRIPLES = 4000
/** So many looks still make an exact number of bits, with room for what they met. */
const EXACT_BITS = 40
/** Chances closer than this come from the same faults. */
const SAME_SIGN = 1e-9

/** An earlier time the same signs were looked for, or a figure of the same kind was read. */
export interface EarlierLook {
  readonly test: number
  readonly state: number
  readonly outcome: number
}

/** The sets of hidden faults as they are at one state of the engine. */
export class AtState {
  /** Confirmed suspects present, and their variants. */
  readonly given: readonly number[]
  readonly givenVariants: readonly number[]
  /** By item: its suspect and variant where it is present in this state, −1 where it is not. */
  private readonly suspects: Int16Array
  private readonly variants: Int16Array
  private readonly rows: Array<CircuitRow | undefined> = []
  /** By item: whether it is present and circuit or drive show it. */
  private readonly shown: Uint8Array
  private readonly present: Int16Array
  private memberSuspects = new Int16Array(0)
  private filled = 0

  constructor(private readonly engine: CompiledEngine, { items, given }: Hypotheses, private readonly sets: HypothesisSets, state: number) {
    const there = given.filter((entry) => entry.bornAt <= state && state < entry.goneAt)
    this.given = there.map((entry) => entry.suspect)
    this.givenVariants = there.map((entry) => entry.variant)
    const here = items.map((item) => item.bornAt <= state && state < item.goneAt)
    this.suspects = Int16Array.from(items, (item, index) => (here[index] ? item.suspect : -1))
    this.variants = Int16Array.from(items, (item, index) => (here[index] ? item.variant : -1))
    this.shown = Uint8Array.from(this.variants, (variant) => (variant >= 0 && engine.showsInCircuit(variant) ? 1 : 0))
    this.present = new Int16Array(SET + there.length)
  }

  /** Suspects present in each set besides the given ones: three indices each, −1 where there is none. */
  get members(): Int16Array {
    const { sets } = this
    if (this.filled < sets.count) {
      if (this.memberSuspects.length < sets.members.length) {
        const larger = new Int16Array(sets.members.length)
        larger.set(this.memberSuspects)
        this.memberSuspects = larger
      }
      for (let at = this.filled * SET; at < sets.count * SET; at++) this.memberSuspects[at] = (sets.members[at] as number) < 0 ? -1 : this.suspects[sets.members[at] as number] as number
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
    return this.rows[set] ??= this.findRow(set)
  }

  /** What circuit and drive do not show changes nothing there: the row is that of the rest. */
  private findRow(set: number): CircuitRow {
    const { members } = this.sets
    let [first, second, count, all] = [-1, -1, 0, 0]
    for (let at = set * SET; at < set * SET + SET; at++) {
      const item = members[at] as number
      if (item < 0) continue
      all++
      if (this.shown[item] === 0) continue
      if (count === 0) first = item
      else second = item
      count++
    }
    if (count < all) return this.row(this.sets.of(first, second))
    return this.engine.circuitRow(this.present, this.presentIn(set, this.present))
  }

  /** Writes the variants present in a set, the given ones too, and says how many. */
  presentIn(set: number, into: Int16Array): number {
    const { members } = this.sets
    let count = 0
    for (let at = set * SET; at < set * SET + SET; at++) {
      const item = members[at] as number
      if (item >= 0 && (this.variants[item] as number) >= 0) into[count++] = this.variants[item] as number
    }
    for (const variant of this.givenVariants) into[count++] = variant
    return count
  }
}

/** Chance of one outcome of a test in every set, worked out where it is asked for and kept. */
export class Column {
  /** By set; not a number where it was never asked for. */
  values: Float64Array

  constructor(private readonly sets: HypothesisSets, private readonly chance: (set: number) => number) {
    this.values = new Float64Array(sets.odds.length).fill(Number.NaN)
  }

  /** Works it out for the sets of none, one and two. */
  fillBase(): void {
    const { values } = this
    if (!Number.isNaN(values[this.sets.base - 1] as number)) return
    for (let set = 0; set < this.sets.base; set++) values[set] = this.chance(set)
  }

  fill(chosen: Int32Array): void {
    if (this.values.length < this.sets.count) {
      const larger = new Float64Array(this.sets.odds.length).fill(Number.NaN)
      larger.set(this.values)
      this.values = larger
    }
    const { values } = this
    for (let at = 0; at < chosen.length; at++) {
      const set = chosen[at] as number
      if (Number.isNaN(values[set] as number)) values[set] = this.chance(set)
    }
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
  private readonly columns = new Map<string, Column>()

  constructor(readonly engine: CompiledEngine, events: SearchHistory['events']) {
    this.hypotheses = hypothesesOf(engine, events)
    this.sets = new HypothesisSets(this.hypotheses.items)
  }

  at(state: number): AtState {
    const known = this.states.get(state)
    if (known) return known
    const made = new AtState(this.engine, this.hypotheses, this.sets, state)
    this.states.set(state, made)
    return made
  }

  /** Solves the circuit for all sets of up to two faults and the likeliest sets of three in steps; yields the share done. */
  * prepare(state: number): Generator<number, void> {
    const here = this.at(state)
    this.sets.rankTriples(this.sets.odds).take(PREPARED_TRIPLES)
    for (let set = 0; set < this.sets.count; set++) {
      here.row(set)
      if (set % STEP === STEP - 1) yield (set + 1) / this.sets.count
    }
  }

  /**
   * Chance of one outcome of a test in every set, the engine being in this state.
   *
   * @param before how it, or a test of the same kind, came out earlier
   */
  column(state: number, test: number, outcome: number, before: readonly EarlierLook[] = []): Column {
    const key = `${state}:${test}:${outcome}${before.map((look) => `/${look.test}:${look.state}:${look.outcome}`).join('')}`
    const known = this.columns.get(key)
    if (known) return known
    const made = new Column(this.sets, this.chanceOf(state, test, outcome, before))
    this.columns.set(key, made)
    return made
  }

  /** The chance of one outcome, set by set; as `chancesAgain` has it, without the detours. */
  private chanceOf(state: number, test: number, outcome: number, before: readonly EarlierLook[]): (set: number) => number {
    const { engine, sets, hypotheses: { items } } = this
    const here = this.at(state)
    const { outcomes, needsRunning, reading } = (engine.tests[test] as CompiledEngine['tests'][number]).test
    const count = outcomes.length
    if (reading.kind !== 'signs') {
      const unlisted = Uint8Array.from(items, (item) => (item.suspect === engine.unlisted ? 1 : 0))
      const offset = engine.outcomes.offsets[test] as number
      const spreads = [false, true].map((hidden) => engine.spreadOf(test, hidden || here.given.includes(engine.unlisted))) as [number, number]
      const again = before.length > 0 ? this.chancesAgain(state, test, before) : null
      return (set) => {
        const { members } = sets
        const row = here.row(set)
        if (again && row.betweenWords(test) >= 0) return again(set)[outcome] as number
        let spread = needsRunning && !row.turns ? 1 : spreads[0]
        for (let at = set * SET; at < set * SET + SET; at++) if ((members[at] as number) >= 0 && unlisted[members[at] as number] === 1) spread = Math.max(spread, spreads[1])
        const chances = row.chances(test)
        let sum = 0
        for (let other = 0; other < count; other++) sum += chances[offset + other] as number
        return (1 - spread) * (sum > 0 ? (chances[offset + outcome] as number) / sum : 1 / count) + spread / count
      }
    }
    if (before.length > 0) {
      const again = this.chancesAgain(state, test, before)
      return (set) => again(set)[outcome] as number
    }
    const silence = new Float64Array((items.length + 1) * count).fill(1)
    const unlisted = new Uint8Array(items.length + 1)
    for (const [index, item] of items.entries()) {
      if (!here.has(index)) continue
      for (let sign = 0; sign < count; sign++) silence[index * count + sign] = engine.silenceOf(test, item.suspect, sign)
      unlisted[index] = item.suspect === engine.unlisted ? 1 : 0
    }
    const still = Float64Array.from(outcomes, ({ leak }, sign) => here.given.reduce((rest, suspect) => rest * engine.silenceOf(test, suspect, sign), 1 - leak))
    const spreads = [false, true].map((hidden) => engine.spreadOf(test, hidden || here.given.includes(engine.unlisted))) as [number, number]
    const none = items.length
    return (set) => {
      const { members } = sets
      const [one, two, three] = [members[set * SET] as number, members[set * SET + 1] as number, members[set * SET + 2] as number]
      const first = one < 0 ? none : one
      const second = two < 0 ? none : two
      const third = three < 0 ? none : three
      const spread = needsRunning && !here.row(set).turns ? 1 : spreads[(unlisted[first] as number) | (unlisted[second] as number) | (unlisted[third] as number)] as number
      let notLater = 1
      for (let sign = count - 1; sign > outcome; sign--) notLater *= (still[sign] as number) * (silence[first * count + sign] as number) * (silence[second * count + sign] as number) * (silence[third * count + sign] as number)
      const silent = outcome === 0 ? 0 : (still[outcome] as number) * (silence[first * count + outcome] as number) * (silence[second * count + outcome] as number) * (silence[third * count + outcome] as number)
      return (1 - spread) * notLater * (1 - silent) + spread / count
    }
  }

  /**
   * Chance of every outcome of a test, set by set, after it was made before. A sign is there or it is not, however
   * often one looks, and a figure between two words is called by the same word again: only misreading is drawn anew,
   * as long as what gives the sign or the figure is still the same.
   *
   * @returns asks for one set; what it answers is overwritten by the next
   */
  chancesAgain(state: number, test: number, before: readonly EarlierLook[]): (set: number) => Float64Array {
    const { engine, sets, hypotheses: { items } } = this
    const here = this.at(state)
    const known = engine.tests[test]?.test
    const out = new Float64Array(8)
    const present = new Int16Array(SET + here.given.length)
    const looks = before.map((look) => ({ ...look, at: this.at(look.state) }))
    const weigh = this.looking(here, test, looks, out)
    if (known?.reading.kind !== 'signs') {
      const again = this.readAgain(here, test, looks, weigh)
      return (set) => {
        const row = here.row(set)
        if (looks.length > 0 && row.betweenWords(test) >= 0) return again(set)
        engine.chances(test, present, here.presentIn(set, present), row, out)
        return out
      }
    }
    // Most sets have nothing to do with what is looked at: they all give the same, but for whether it runs.
    const matters = Uint8Array.from(items, (item) => (engine.givesSign(test, item.suspect) ? 1 : 0))
    const states = [here, ...looks.map((look) => look.at)]
    const plain = new Map<number, Float64Array>()
    return (set) => {
      const { members } = sets
      for (let at = set * SET; at < set * SET + SET; at++) {
        const item = members[at] as number
        if (item >= 0 && matters[item] === 1) return weigh(set)
      }
      let running = 0
      if (known.needsRunning) for (const at of states) running = 2 * running + (at.row(set).turns ? 1 : 0)
      const found = plain.get(running)
      if (found) return found
      const made = weigh(set).slice()
      plain.set(running, made)
      return made
    }
  }

  /** Which of the earlier looks met the same figure decides: sets in which the same ones did have the same chances. */
  private readAgain(here: AtState, test: number, looks: ReadonlyArray<EarlierLook & { readonly at: AtState }>, weigh: (set: number) => Float64Array): (set: number) => Float64Array {
    const { engine, sets, hypotheses: { items } } = this
    const unlisted = Uint8Array.from(items, (item) => (item.suspect === engine.unlisted ? 1 : 0))
    const judgedRunning = [test, ...looks.map((look) => look.test)].some((made) => engine.tests[made]?.test.needsRunning)
    if (judgedRunning || looks.length > EXACT_BITS) return weigh
    const known = new Map<number, Float64Array>()
    return (set) => {
      const { members } = sets
      for (let at = set * SET; at < set * SET + SET; at++) if ((members[at] as number) >= 0 && unlisted[members[at] as number] === 1) return weigh(set)
      const words = here.row(set).betweenWords(test)
      let key = words
      for (let at = 0; at < looks.length; at++) {
        const look = looks[at] as (typeof looks)[number]
        key = 2 * key + (look.at.row(set).betweenWords(look.test) === words ? 1 : 0)
      }
      const found = known.get(key)
      if (found) return found
      const made = weigh(set).slice()
      known.set(key, made)
      return made
    }
  }

  private looking(here: AtState, test: number, before: ReadonlyArray<EarlierLook & { readonly at: AtState }>, out: Float64Array): (set: number) => Float64Array {
    const { engine } = this
    const count = engine.tests[test]?.test.outcomes.length ?? 0
    const signs = engine.tests[test]?.test.reading.kind === 'signs'
    const present = new Int16Array(SET + here.given.length)
    const looks = before.map((look) => ({ ...look, present: new Int16Array(SET + look.at.given.length) }))
    const [now, then] = [new Float64Array(count), new Float64Array(count)]
    return (set) => {
      const spread = engine.trueChances(test, present, here.presentIn(set, present), here.row(set), now)
      for (let sign = 0; sign < count; sign++) out[sign] = now[sign] as number
      for (const look of looks) {
        const row = look.at.row(set)
        if (!signs && row.betweenWords(look.test) !== here.row(set).betweenWords(test)) continue
        const misread = engine.trueChances(look.test, look.present, look.at.presentIn(set, look.present), row, then)
        let same = true
        for (let sign = 0; sign < count; sign++) if (Math.abs((now[sign] as number) - (then[sign] as number)) > SAME_SIGN) same = false
        if (!same) continue
        for (let sign = 0; sign < count; sign++) out[sign] = (out[sign] as number) * ((sign === look.outcome ? 1 - misread : 0) + misread / count)
      }
      let sum = 0
      for (let sign = 0; sign < count; sign++) sum += out[sign] as number
      for (let sign = 0; sign < count; sign++) out[sign] = (1 - spread) * ((out[sign] as number) / sum) + spread / count
      return out
    }
  }
}
