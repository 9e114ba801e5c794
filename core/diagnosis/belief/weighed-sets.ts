import type { CircuitRow } from '../circuit/circuit-outcomes'
import type { CompiledEngine } from '../compiled-engine'
import type { Evidence, Unit } from './evidence'
import type { Option } from './slots'

/** A full set of faults with what it weighs, kept so that a change of it is weighed by what it changes. */
export interface WeighedSet {
  /** By slot its option, −1 where the suspect is absent. */
  readonly core: Int16Array
  /** Natural logarithm of the chance of all findings with it. */
  readonly log: number
  /** The same by unit of the evidence. */
  readonly logs: Float64Array
  /** By unit: two numbers that tell apart who of those concerned was there when. */
  readonly marks: Int32Array
  /** By state of the evidence: two numbers that tell apart what circuit and drive are told. */
  readonly stateMarks: Int32Array
  /** By state of the evidence: what circuit and drive show. */
  readonly rows: readonly CircuitRow[]
}

/** One slot and what it is to hold. */
export type Change = readonly [slot: number, option: number]

/** So many weights are kept from one finding to the next, over all tests, and so many rows. */
const MOST_KEPT = 200_000
const HIGH = 2 ** 32
/** Sums made in the order of what is known already differ in the last digits: nothing is given up for those. */
const LAST_DIGITS = 1e-9

/** What an engine's findings were worked out to be worth, by test and reading; kept for as long as its rows are. */
interface Kept {
  readonly worth: Map<string, Map<number, number>>
  readonly atoms: Map<string, Map<number, number>>
  readonly rows: Map<number, CircuitRow>
  readonly timesForgotten: number
  size: number
}
const keptOf = new WeakMap<CompiledEngine, Kept>()

/** Weighs full sets of faults by the findings, one change after the other. */
export class SetWeigher {
  /** By option: the units whose signs hang on it, each with its two marks. */
  private readonly touches: ReadonlyArray<{ readonly units: Int32Array; readonly marks: Int32Array }>
  /** By option: the states of the evidence it is there in and shows something to the circuit. */
  private readonly shownIn: readonly Int32Array[]
  private readonly shownMarks: Int32Array
  /** By state of the evidence: units seen in it that hang on circuit and drive. */
  private readonly circuitIn: readonly Int32Array[]
  private readonly worth: ReadonlyArray<Map<number, number>>
  private readonly seenStates: readonly Int32Array[]
  /** By unit and finding of it: what a row of the circuit says of it. */
  private readonly atoms: ReadonlyArray<ReadonlyArray<Map<number, number>>>
  private readonly kept: Kept
  // Room to work in, for one change at a time.
  private readonly affected: Uint8Array
  private readonly places: Int32Array
  private affectedCount = 0
  private readonly fresh: Int32Array
  private readonly logs: Float64Array
  private readonly marks: Int32Array
  private readonly stateMarks: Int32Array
  private readonly restless: Uint8Array
  private readonly rows: CircuitRow[] = []

  constructor(private readonly evidence: Evidence) {
    const { engine, units, options, states } = evidence
    this.kept = keptFor(engine)
    this.seenStates = units.map(({ seen }) => Int32Array.from(seen, ({ state }) => states.indexOf(state)))
    this.touches = options.map((option, index) => touchesOf(evidence, option, index))
    this.shownIn = options.map(({ bornAt, goneAt }, index) =>
      evidence.inCircuit(index)
        ? Int32Array.from(states.flatMap((state, at) => (bornAt <= state && state < goneAt ? [at] : [])))
        : new Int32Array(0),
    )
    this.shownMarks = Int32Array.from(options.flatMap(({ variant }) => [mixed(variant, 3), mixed(variant, 4)]))
    this.circuitIn = states.map((_, at) =>
      Int32Array.from(
        units.flatMap(({ asksCircuit }, unit) =>
          asksCircuit && (this.seenStates[unit] as Int32Array).includes(at) ? [unit] : [],
        ),
      ),
    )
    this.worth = units.map(({ key }) => {
      const known = this.kept.worth.get(key) ?? new Map<number, number>()
      this.kept.worth.set(key, known)
      return known
    })
    this.atoms = units.map(({ seen }) =>
      seen.map(({ test, outcome, toldWrong }) => {
        // Seen again, a figure between two words hangs together with itself; seen once it does not.
        const key = `${test}/${outcome}/${toldWrong}/${seen.length > 1 ? 'again' : 'once'}`
        const known = this.kept.atoms.get(key) ?? new Map<number, number>()
        this.kept.atoms.set(key, known)
        return known
      }),
    )
    this.affected = new Uint8Array(units.length)
    this.places = new Int32Array(units.length)
    this.fresh = new Int32Array(units.length)
    this.logs = new Float64Array(units.length)
    this.marks = new Int32Array(2 * units.length)
    this.stateMarks = new Int32Array(2 * states.length)
    this.restless = new Uint8Array(states.length)
  }

  /** @param core by slot its option, −1 where the suspect is absent */
  weigh(core: Int16Array): WeighedSet {
    const { units, states } = this.evidence
    const empty: WeighedSet = {
      core: core.slice().fill(-1),
      log: 0,
      logs: new Float64Array(units.length),
      marks: new Int32Array(2 * units.length),
      stateMarks: new Int32Array(2 * states.length),
      rows: [],
    }
    const changes = [...core.entries()].filter(([, option]) => option >= 0)
    return this.changed(empty, changes, Number.NEGATIVE_INFINITY) as WeighedSet
  }

  /**
   * @param set weighed before
   * @param changes of it
   * @param least natural logarithm of the chance of all findings it has to reach
   * @returns null as soon as it cannot be reached any more
   */
  changed(set: WeighedSet, changes: readonly Change[], least: number): WeighedSet | null {
    const { evidence, marks, affected } = this
    const { units, states } = evidence
    const whole = set.rows.length === 0
    marks.set(set.marks)
    this.stateMarks.set(set.stateMarks)
    this.restless.fill(Number(whole))
    this.affectedCount = 0
    affected.fill(0)
    if (whole) for (const unit of units.keys()) this.affect(unit)
    for (const [slot, option] of changes) {
      this.mark(set.core[slot] as number, -1)
      this.mark(option, 1)
    }
    // What is weighed anew can at best become certain.
    const enough = least - LAST_DIGITS
    let { log } = set
    const bySigns = this.affectedCount
    for (const [at, restless] of this.restless.entries())
      if (restless === 1) for (const unit of this.circuitIn[at] as Int32Array) this.affect(unit)
    let hope = 0
    for (let place = 0; place < this.affectedCount; place++) hope -= set.logs[this.places[place] as number] as number
    if (log + hope < enough) return null

    // What the circuit has no part in, and was met before, is asked first: most changes fall by it.
    const fresh = this.fresh
    let waiting = 0
    const settle = (unit: number, now: number): boolean => {
      const before = set.logs[unit] as number
      this.logs[unit] = now
      log += now - before
      hope += before
      return log + hope >= enough
    }
    for (let place = 0; place < bySigns; place++) {
      const unit = this.places[place] as number
      if ((units[unit] as Unit).asksCircuit) continue
      const known = (this.worth[unit] as Map<number, number>).get(this.signKeyOf(unit))
      if (known === undefined) fresh[waiting++] = unit
      else if (!settle(unit, known)) return null
    }
    const core = set.core.slice()
    for (const [slot, option] of changes) core[slot] = option
    const { rows } = this
    for (let at = 0; at < states.length; at++)
      rows[at] = this.restless[at] === 1 ? this.rowAt(core, at) : (set.rows[at] as CircuitRow)
    for (let place = 0; place < this.affectedCount; place++) {
      const unit = this.places[place] as number
      if (!(units[unit] as Unit).asksCircuit) continue
      if (place >= bySigns && this.sameRows(unit, set)) {
        hope += set.logs[unit] as number
        this.logs[unit] = set.logs[unit] as number
        continue
      }
      const known = (units[unit] as Unit).signs
        ? (this.worth[unit] as Map<number, number>).get(this.runKeyOf(unit))
        : this.worthOfRows(unit)
      if (known === undefined) fresh[waiting++] = unit
      else if (!settle(unit, known)) return null
    }
    if (log + hope < enough) return null
    if (waiting > 0) {
      const suspects = states.map((state) => evidence.suspectsAt(core, state))
      for (let at = 0; at < waiting; at++) {
        const unit = fresh[at] as number
        const now = Math.log(evidence.chanceOf(units[unit] as Unit, suspects, rows))
        const { signs, asksCircuit } = units[unit] as Unit
        if (signs) {
          ;(this.worth[unit] as Map<number, number>).set(asksCircuit ? this.runKeyOf(unit) : this.signKeyOf(unit), now)
          this.kept.size++
        }
        if (!settle(unit, now)) return null
      }
    }
    const logs = set.logs.slice()
    for (let place = 0; place < this.affectedCount; place++) {
      const unit = this.places[place] as number
      logs[unit] = this.logs[unit] as number
    }
    // Whatever was known before, the same set weighs the same to the last digit.
    let sum = 0
    for (let unit = 0; unit < logs.length; unit++) sum += logs[unit] as number
    if (sum < least) return null
    return { core, log: sum, logs, marks: marks.slice(), stateMarks: this.stateMarks.slice(), rows: [...rows] }
  }

  private affect(unit: number): void {
    if (this.affected[unit] === 1) return
    this.affected[unit] = 1
    this.places[this.affectedCount++] = unit
  }

  private sameRows(unit: number, set: WeighedSet): boolean {
    for (const at of this.seenStates[unit] as Int32Array) if (this.rows[at] !== set.rows[at]) return false
    return true
  }

  /** Takes an option into the marks, or out of them. */
  private mark(option: number, sign: 1 | -1): void {
    if (option < 0) return
    const { marks, stateMarks, shownMarks } = this
    const touched = this.touches[option] as (typeof this.touches)[number]
    for (let at = 0; at < touched.units.length; at++) {
      const unit = touched.units[at] as number
      this.affect(unit)
      marks[2 * unit] = (marks[2 * unit] as number) + sign * (touched.marks[2 * at] as number)
      marks[2 * unit + 1] = (marks[2 * unit + 1] as number) + sign * (touched.marks[2 * at + 1] as number)
    }
    for (const at of this.shownIn[option] as Int32Array) {
      this.restless[at] = 1
      stateMarks[2 * at] = (stateMarks[2 * at] as number) + sign * (shownMarks[2 * option] as number)
      stateMarks[2 * at + 1] = (stateMarks[2 * at + 1] as number) + sign * (shownMarks[2 * option + 1] as number)
    }
  }

  private rowAt(core: Int16Array, at: number): CircuitRow {
    const { evidence, kept, stateMarks } = this
    const key = numbered(stateMarks[2 * at] as number, stateMarks[2 * at + 1] as number)
    const known = kept.rows.get(key)
    if (known) return known
    const variants = evidence.variantsAt(core, evidence.states[at] as number)
    const row = evidence.engine.circuitRow(variants, variants.length)
    kept.rows.set(key, row)
    return row
  }

  private signKeyOf(unit: number): number {
    return numbered(this.marks[2 * unit] as number, this.marks[2 * unit + 1] as number)
  }

  /** As the signs of it, and whether anything turned when it was noted. */
  private runKeyOf(unit: number): number {
    let [high, low] = [this.marks[2 * unit] as number, this.marks[2 * unit + 1] as number]
    for (const at of this.seenStates[unit] as Int32Array) {
      const turns = Number((this.rows[at] as CircuitRow).turns)
      high = mixed(high ^ turns, 5)
      low = mixed(low ^ turns, 6)
    }
    return numbered(high, low)
  }

  /** What circuit and drive say of a unit; undefined where figures between two words hang together. */
  private worthOfRows(unit: number): number | undefined {
    // The mark of who is unlisted is the only one there is.
    const { seen } = this.evidence.units[unit] as Unit
    const places = this.seenStates[unit] as Int32Array
    const unlisted = this.marks[2 * unit] !== 0 || this.marks[2 * unit + 1] !== 0
    if (unlisted) return undefined
    let log = 0
    for (let at = 0; at < seen.length; at++) {
      const row = this.rows[places[at] as number] as CircuitRow
      const known = (this.atoms[unit] as ReadonlyArray<Map<number, number>>)[at] as Map<number, number>
      let own = known.get(row.index)
      if (own === undefined) {
        const entry = seen[at] as Unit['seen'][number]
        own =
          row.betweenWords(entry.test) >= 0 && seen.length > 1
            ? Number.NaN
            : Math.log(this.evidence.chanceOfOne(entry, row))
        known.set(row.index, own)
      }
      log += own
    }
    return Number.isNaN(log) ? undefined : log
  }
}

function keptFor(engine: CompiledEngine): Kept {
  const { timesForgotten } = engine
  const known = keptOf.get(engine)
  if (known?.timesForgotten === timesForgotten && known.size < MOST_KEPT) return known
  const kept: Kept = { worth: new Map(), atoms: new Map(), rows: new Map(), timesForgotten, size: 0 }
  keptOf.set(engine, kept)
  return kept
}

/** The units that see the signs of an option, told apart by the states it is there in when they were noted. */
function touchesOf(
  { units, engine }: Evidence,
  { suspect, bornAt, goneAt }: Option,
  option: number,
): { readonly units: Int32Array; readonly marks: Int32Array } {
  const touched = units.flatMap(({ concerned, signs, seen }, unit) => {
    if (concerned[option] !== 1) return []
    if (suspect !== engine.unlisted && !(signs && engine.givesSign((seen[0] as Unit['seen'][number]).test, suspect)))
      return []
    let there = 1
    for (const { state } of seen) there = mixed(there + Number(bornAt <= state && state < goneAt), 7)
    const never = seen.every(({ state }) => !(bornAt <= state && state < goneAt))
    return never ? [] : [{ unit, first: mixed(suspect ^ there, 1), second: mixed(suspect ^ there, 2) }]
  })
  return {
    units: Int32Array.from(touched, ({ unit }) => unit),
    marks: Int32Array.from(touched.flatMap(({ first, second }) => [first, second])),
  }
}

/** An integer hash (multiply and shift), one of several. */
function mixed(value: number, which: number): number {
  let hash = Math.imul(value + 1, 0x9e3779b1) ^ Math.imul(which, 0x85ebca6b)
  hash = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d)
  hash = Math.imul(hash ^ (hash >>> 12), 0x297a2d39)
  return hash ^ (hash >>> 15)
}

/** One number of two: 53 bits of them. */
function numbered(high: number, low: number): number {
  return (high & 0x1f_ffff) * HIGH + (low >>> 0)
}
