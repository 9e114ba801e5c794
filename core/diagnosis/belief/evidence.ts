import type { BenchTest } from '../places/bench-tests'
import type { CompiledEngine } from '../compiled-engine'
import type { CircuitRow } from '../circuit/circuit-outcomes'
import type { TestFinding } from '../history'
import { seenAt } from '../acts/seen'
import { chanceOfLooks, type ShownFrom } from './lasting-signs'
import { saidOfStanding } from './said-of-standing'
import type { Option, Slots } from './slots'

/** Chances closer than this come from the same faults. */
const SAME_SIGN = 1e-9
const MOST_OUTCOMES = 8
/** Told of something whose row does not say how often it is told wrongly. Judged. */
const TOLD_WRONG = 0.2
/** So many cores are kept from one finding to the next. */
const MOST_CORES = 1500

export interface Seen {
  readonly finding: number
  readonly test: number
  readonly state: number
  readonly outcome: number
  /** How often it is told wrongly; 0 of what was seen at the bench. */
  readonly toldWrong: number
}

/** Findings that may be one and the same thing seen again: those of one test. */
export interface Unit {
  readonly key: string
  readonly seen: readonly Seen[]
  /** What was found by one of these looks. */
  readonly shown: readonly ShownFrom[]
  readonly signs: boolean
  /** Whether what circuit and drive show has a part in it. */
  readonly asksCircuit: boolean
  /** By option: 1 where it may change what is seen. */
  readonly concerned: Uint8Array
}

/** What one group of findings says of a core, and in times of that with each option instead. */
export interface Saying {
  readonly base: number
  readonly times: Float64Array
}

/** What a core is weighed to, and what each option would change of it. */
export interface Evaluation {
  /** Natural logarithm of the chance of all findings. */
  readonly log: number
  /** By option: the chance of all findings with it, in times of that without. */
  readonly ratios: Float64Array
  readonly says: readonly Saying[]
  /** Worked out, and not only estimated from a smaller core. */
  readonly exact: boolean
}

/**
 * What the findings say of any set of faults, of whatever size. A core names the way each suspect is there; for a
 * core it is worked out what every single change of it would make of the findings.
 */
export class Evidence {
  readonly options: readonly Option[]
  /** By option: its slot. */
  readonly slotOf: Int16Array
  /** By slot: the first of its options; one entry more at the end. */
  readonly firstOf: Int16Array
  readonly units: readonly Unit[]
  /** Those anything was noted in. */
  readonly states: readonly number[]
  private readonly shows: Uint8Array
  private readonly patterns: readonly string[]
  /** By core and unit: what it says; kept from one finding to the next. */
  private readonly known: Map<string, Map<string, Saying>>
  /** By core and states: what the circuit shows with one option more. */
  private readonly rows: Map<string, Map<string, CircuitRow[]>>

  /**
   * @param engine compiled
   * @param slots of the history's events
   * @param noted findings of the history
   * @param before of the same slots, with fewer or other findings
   * @throws RangeError naming a test or outcome the engine does not have
   */
  constructor(
    readonly engine: CompiledEngine,
    readonly slots: Slots,
    readonly noted: readonly TestFinding[],
    before: Evidence | null = null,
  ) {
    this.options = slots.slots.flatMap(({ options }) => options)
    this.slotOf = Int16Array.from(slots.slots.flatMap(({ options }, slot) => options.map(() => slot)))
    const first = [0]
    for (const { options } of slots.slots) first.push((first.at(-1) as number) + options.length)
    this.firstOf = Int16Array.from(first)
    this.states = [...new Set(noted.map(({ state }) => state))].sort((one, other) => one - other)
    this.shows = Uint8Array.from(this.options, ({ variant }) => Number(variant >= 0 && engine.showsInCircuit(variant)))
    this.patterns = this.options.map((option, index) =>
      this.shows[index] === 1 ? `${engine.patternOf(option.variant)}:${option.bornAt}:${option.goneAt}` : '',
    )
    this.units = this.unitsOf(noted)
    const same = before?.slots === slots ? before : null
    this.known = same?.known ?? new Map()
    this.rows = same?.rows ?? new Map()
  }

  /** Whether circuit or drive show anything of an option. */
  inCircuit(option: number): boolean {
    return this.shows[option] === 1
  }

  /** Whether any finding may hang on an option. */
  concerns(option: number): boolean {
    return this.units.some(({ concerned }) => concerned[option] === 1)
  }

  /** Variants of a core that are there in a state, one option exchanged. */
  variantsAt(core: Int16Array, state: number, slot = -1, option = -1): number[] {
    const found: number[] = []
    for (let at = 0; at < core.length; at++) {
      const chosen = at === slot ? option : (core[at] as number)
      if (chosen < 0) continue
      const { variant, bornAt, goneAt } = this.options[chosen] as Option
      if (variant >= 0 && bornAt <= state && state < goneAt) found.push(variant)
    }
    return found
  }

  /** Suspects of a core that are there in a state, one option exchanged. */
  suspectsAt(core: Int16Array, state: number, slot = -1, option = -1): number[] {
    const found: number[] = []
    for (let at = 0; at < core.length; at++) {
      const chosen = at === slot ? option : (core[at] as number)
      if (chosen < 0) continue
      const { suspect, bornAt, goneAt } = this.options[chosen] as Option
      if (bornAt <= state && state < goneAt) found.push(suspect)
    }
    return found
  }

  /** The findings that hang together, by their place in the history. */
  get findings(): ReadonlyArray<readonly number[]> {
    return this.units.map(({ seen }) => seen.map(({ finding }) => finding))
  }

  /** Chance that a finding comes of misreading alone, whatever is wrong. */
  misreadOf(finding: number): number {
    const seen = this.units.flatMap((unit) => unit.seen).find((entry) => entry.finding === finding) as Seen
    const { misread, outcomes } = (this.engine.tests[seen.test] as BenchTest).test
    return Math.max(misread, seen.toldWrong) / outcomes.length
  }

  /** @param core by slot its option, −1 where the suspect is absent */
  evaluate(core: Int16Array): Evaluation {
    const key = core.join()
    if (this.known.size > MOST_CORES) {
      this.known.clear()
      this.rows.clear()
    }
    const known = this.known.get(key) ?? new Map<string, Saying>()
    this.known.set(key, known)
    const missing = this.units.filter((unit) => !known.has(unit.key))
    if (missing.length > 0) this.weigh(core, missing, known)
    return this.evaluationOf(this.units.map((unit) => known.get(unit.key) as Saying))
  }

  /**
   * Natural logarithm of the chance of all findings with exactly this set, and nothing of what a change would make.
   *
   * @param core by slot its option, −1 where the suspect is absent
   */
  logOf(core: Int16Array): number {
    const { states, engine } = this
    const rows = states.map((state) => {
      const variants = this.variantsAt(core, state)
      return engine.circuitRow(variants, variants.length)
    })
    const suspects = states.map((state) => this.suspectsAt(core, state))
    return this.units.reduce((sum, unit) => sum + Math.log(this.chanceOf(unit, suspects, rows)), 0)
  }

  /**
   * What a core with one option more is likely weighed to, without asking the circuit: of two things that explain the
   * same finding the better one does, and of two that speak against it both do.
   */
  estimate(evaluation: Evaluation, option: number): Evaluation {
    const says = [...evaluation.says]
    const ratios = evaluation.ratios.slice()
    let { log } = evaluation
    // Most findings hang on few things: what does not change is kept as it is.
    for (let unit = 0; unit < says.length; unit++) {
      const { base, times } = says[unit] as Saying
      const own = times[option] as number
      if (own === 1) continue
      const { signs } = this.units[unit] as Unit
      const after = times.slice()
      for (let at = 0; at < after.length; at++) {
        const other = times[at] as number
        if (own > 1 ? other <= 1 : other >= 1 || signs) continue
        const now = (own > 1 ? Math.max(own, other) : Math.min(own, other)) / own
        after[at] = now
        ratios[at] = ((ratios[at] as number) / other) * now
      }
      says[unit] = { base: base * own, times: after }
      log += Math.log(own)
    }
    return { log, ratios, says, exact: false }
  }

  private evaluationOf(says: readonly Saying[]): Evaluation {
    const ratios = new Float64Array(this.options.length).fill(1)
    let log = 0
    for (const { base, times } of says) {
      log += Math.log(base)
      for (let at = 0; at < ratios.length; at++) ratios[at] = (ratios[at] as number) * (times[at] as number)
    }
    return { log, ratios, says, exact: true }
  }

  private weigh(core: Int16Array, units: readonly Unit[], into: Map<string, Saying>): void {
    const { states, engine } = this
    const rowsOf = (slot: number, option: number): CircuitRow[] =>
      states.map((state) => {
        const variants = this.variantsAt(core, state, slot, option)
        return engine.circuitRow(variants, variants.length)
      })
    const baseRows = rowsOf(-1, -1)
    // What the circuit cannot tell apart is worked out once.
    const place = `${core.join()}/${states.join()}`
    const rows = this.rows.get(place) ?? new Map<string, CircuitRow[]>()
    this.rows.set(place, rows)
    const byOption = new Array<CircuitRow[] | undefined>(this.options.length)
    const rowsWith = (option: number): CircuitRow[] => (byOption[option] ??= lookedUp(option))
    const lookedUp = (option: number): CircuitRow[] => {
      const slot = this.slotOf[option] as number
      const base = core[slot] as number
      if (this.shows[option] !== 1 && (base < 0 || this.shows[base] !== 1)) return baseRows
      const key = `${base < 0 ? '' : this.patterns[base]}|${this.patterns[option]}`
      const found = rows.get(key) ?? rowsOf(slot, option)
      rows.set(key, found)
      return found
    }
    const suspectsBase = states.map((state) => this.suspectsAt(core, state))
    const suspectsWith = (option: number): number[][] =>
      states.map((state) => this.suspectsAt(core, state, this.slotOf[option] as number, option))
    const alone = new Map<number, number[][]>()
    for (const unit of units) {
      const base = this.chanceOf(unit, suspectsBase, baseRows)
      const times = new Float64Array(this.options.length).fill(1)
      const same = new Map<CircuitRow[], number>()
      for (let option = 0; option < times.length; option++) {
        const slot = this.slotOf[option] as number
        const before = core[slot] as number
        if (before === option || (unit.concerned[option] !== 1 && (before < 0 || unit.concerned[before] !== 1)))
          continue
        const withIt = unit.asksCircuit ? rowsWith(option) : baseRows
        const unlisted = (this.options[option] as Option).suspect === engine.unlisted
        if (!unit.signs && !unlisted) {
          if (withIt === baseRows) continue
          const found = same.get(withIt) ?? this.chanceOf(unit, suspectsBase, withIt)
          same.set(withIt, found)
          times[option] = found / base
          continue
        }
        const suspects = alone.get(option) ?? suspectsWith(option)
        alone.set(option, suspects)
        times[option] = this.chanceOf(unit, suspects, withIt) / base
      }
      into.set(unit.key, { base, times })
    }
  }

  private readonly vectors = Array.from({ length: 64 }, () => new Float64Array(MOST_OUTCOMES))
  private readonly spreads = new Float64Array(64)

  /** Chance of what was seen: a thing seen again is one thing, misread anew each time. */
  chanceOf({ seen, shown, signs }: Unit, suspects: readonly number[][], rows: readonly CircuitRow[]): number {
    const { engine, vectors, spreads, states } = this
    let said = 1
    for (const [at, { test, state, outcome, toldWrong }] of seen.entries()) {
      const place = states.indexOf(state)
      const misread = engine.trueChances(
        test,
        suspects[place] as number[],
        rows[place] as CircuitRow,
        (vectors[at] ??= new Float64Array(MOST_OUTCOMES)),
      )
      spreads[at] = Math.max(misread, toldWrong)
      if (!(rows[place] as CircuitRow).turns) said *= saidOfStanding(engine.tests[test] as BenchTest, outcome)
    }
    const lasting = signs && seen.length > 1 ? this.chanceOfSigns(seen, shown, suspects) : null
    if (lasting !== null) return Math.max(said * lasting, 1e-300)
    let chance = said
    const done = new Uint8Array(seen.length)
    for (let at = 0; at < seen.length; at++) {
      if (done[at] === 1) continue
      const first = seen[at] as Seen
      const vector = vectors[at] as Float64Array
      const count = (engine.tests[first.test] as BenchTest).test.outcomes.length
      const together = [at]
      for (let other = at + 1; other < seen.length; other++) {
        const second = seen[other] as Seen
        const alike = signs
          ? sameChances(vector, vectors[other] as Float64Array, count)
          : this.sameFigure(first, second, suspects, rows)
        if (alike && done[other] === 0) together.push(other)
      }
      let sum = 0
      for (let outcome = 0; outcome < count; outcome++) {
        let product = vector[outcome] as number
        for (const index of together) {
          const spread = spreads[index] as number
          product *= (1 - spread) * Number((seen[index] as Seen).outcome === outcome) + spread / count
        }
        sum += product
      }
      for (const index of together) done[index] = 1
      chance *= sum
    }
    return Math.max(chance, 1e-300)
  }

  /** Chance of one finding that circuit and drive answer, nothing unlisted there. */
  chanceOfOne({ test, outcome, toldWrong }: Seen, row: CircuitRow): number {
    const [vector] = this.vectors as [Float64Array]
    const misread = this.engine.trueChances(test, [], row, vector)
    const spread = Math.max(misread, toldWrong)
    const known = this.engine.tests[test] as BenchTest
    const chance = (1 - spread) * (vector[outcome] as number) + spread / known.test.outcomes.length
    return Math.max(row.turns ? chance : saidOfStanding(known, outcome) * chance, 1e-300)
  }

  /** Looks at one thing, in whatever states; null where something nobody named may show anything. */
  private chanceOfSigns(
    seen: readonly Seen[],
    shown: readonly ShownFrom[],
    suspects: readonly number[][],
  ): number | null {
    const { engine, states, spreads } = this
    const [first] = seen
    const signs = first ? engine.signsOf(first.test) : null
    if (!signs || suspects.some((present) => present.includes(engine.unlisted))) return null
    return chanceOfLooks(
      signs,
      seen.map(({ state, outcome }, at) => ({
        suspects: suspects[states.indexOf(state)] as number[],
        outcome,
        spread: spreads[at] as number,
      })),
      shown,
    )
  }

  /** What looks at one thing found, each from the first that did. */
  private shownBy(seen: readonly Seen[], given: ReadonlySet<number>): ShownFrom[] {
    const { engine } = this
    const found = new Map<number, ShownFrom>()
    for (const [look, { test, outcome, toldWrong }] of seen.entries()) {
      const id = (engine.tests[test] as BenchTest).test.outcomes[outcome]?.id ?? ''
      const suspect = toldWrong > 0 ? null : seenAt(engine, test, id)
      if (suspect !== null && given.has(suspect) && !found.has(suspect)) found.set(suspect, { suspect, outcome, look })
    }
    return [...found.values()]
  }

  /** A figure that lies between two words and does not change is called by the same word again. */
  private sameFigure(one: Seen, other: Seen, suspects: readonly number[][], rows: readonly CircuitRow[]): boolean {
    const { states, engine } = this
    const [here, there] = [states.indexOf(one.state), states.indexOf(other.state)]
    if (suspects[here]?.includes(engine.unlisted) || suspects[there]?.includes(engine.unlisted))
      return suspects[here]?.includes(engine.unlisted) === suspects[there]?.includes(engine.unlisted)
    const word = (rows[here] as CircuitRow).betweenWords(one.test)
    return word >= 0 && word === (rows[there] as CircuitRow).betweenWords(other.test)
  }

  private unitsOf(findings: readonly TestFinding[]): Unit[] {
    const { engine } = this
    const given = new Set(this.slots.slots.filter((slot) => slot.given).map(({ suspect }) => suspect))
    const groups = new Map<number, Seen[]>()
    for (const [finding, { test: id, outcome: outcomeId, state, told }] of findings.entries()) {
      const test = engine.indexOfTest(id)
      const outcome = engine.indexOfOutcome(test, outcomeId)
      const known = (engine.tests[test] as BenchTest).test.outcomes[outcome]
      const seen = { finding, test, state, outcome, toldWrong: told ? (known?.told?.wrong ?? TOLD_WRONG) : 0 }
      groups.set(test, [...(groups.get(test) ?? []), seen])
    }
    // In the order of the tests, not of the telling: sums come out the same to the last digit.
    return [...groups]
      .sort(([one], [other]) => one - other)
      .map(([test, unsorted]): Unit => {
        // Whatever the order things were told in: the same history gives the same answer.
        const seen = [...unsorted].sort(
          (one, other) => one.state - other.state || one.outcome - other.outcome || one.toldWrong - other.toldWrong,
        )
        const { test: known } = engine.tests[test] as BenchTest
        const signs = known.reading.kind === 'signs'
        const running = known.needsRunning
        return {
          key: `${test}/${seen.map(({ state, outcome, toldWrong }) => `${state}.${outcome}.${toldWrong}`).join()}`,
          seen,
          shown: signs ? this.shownBy(seen, given) : [],
          signs,
          asksCircuit: !signs || running,
          concerned: Uint8Array.from(this.options, ({ suspect }, option) =>
            Number(
              suspect === engine.unlisted ||
                (signs
                  ? engine.givesSign(test, suspect) || (running && this.shows[option] === 1)
                  : this.shows[option] === 1),
            ),
          ),
        }
      })
  }
}

function sameChances(one: Float64Array, other: Float64Array, count: number): boolean {
  for (let at = 0; at < count; at++) if (Math.abs((one[at] as number) - (other[at] as number)) > SAME_SIGN) return false
  return true
}
