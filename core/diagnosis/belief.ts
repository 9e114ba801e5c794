import type { CompiledEngine } from './compiled-engine'
import { currentState, type SearchHistory } from './history'
import { hypothesesOf, type Hypotheses } from './hypotheses'

const SET = 3
/** Sets between two words on progress. */
const STEP = 2000
/** All sets below this together weigh less than a thousandth. */
const NEGLIGIBLE = 1e-8

/** The sets of hidden faults as they are at one state of the engine. */
export interface AtState {
  /** Suspects present in each set besides the given ones: three indices each, −1 where there is none. */
  readonly members: Int16Array
  /** The same as variants. */
  readonly variants: Int16Array
  /** Confirmed suspects present, and their variants. */
  readonly given: readonly number[]
  readonly givenVariants: readonly number[]
  /** What the circuit shows in each set; sets that look alike share it. */
  readonly rows: readonly Float32Array[]
  /** Chance of an outcome in each set, by test and outcome. */
  readonly columns: Map<string, Float64Array>
}

/** Writes the variants present in a set, the given ones too, and says how many. */
export function presentIn({ variants, givenVariants }: AtState, set: number, into: Int16Array): number {
  let count = 0
  for (let at = set * SET; at < set * SET + SET; at++) if ((variants[at] as number) >= 0) into[count++] = variants[at] as number
  for (const variant of givenVariants) into[count++] = variant
  return count
}

/**
 * The sets of hidden faults for one chain of repairs, at every state asked for: worked out once and shared by all
 * beliefs that differ only in their findings.
 */
export class HypothesisSpace {
  readonly hypotheses: Hypotheses
  private readonly states = new Map<number, AtState>()

  constructor(readonly engine: CompiledEngine, events: SearchHistory['events']) {
    this.hypotheses = hypothesesOf(engine, events)
  }

  get size(): number {
    return this.hypotheses.odds.length
  }

  at(state: number): AtState {
    const known = this.states.get(state)
    if (known) return known
    // Run to its end at once.
    for (const _ of this.prepare(state)) void _
    return this.states.get(state) as AtState
  }

  /** Works out a state in steps; yields the share done. */
  * prepare(state: number): Generator<number, void> {
    if (this.states.has(state)) return
    const { items, given: confirmed, members } = this.hypotheses
    const there = confirmed.filter((entry) => entry.bornAt <= state && state < entry.goneAt)
    const here = new Int16Array(members.length)
    const variants = new Int16Array(members.length)
    for (let at = 0; at < members.length; at++) {
      const item = items[members[at] as number]
      const present = item && item.bornAt <= state && state < item.goneAt
      here[at] = present ? item.suspect : -1
      variants[at] = present ? item.variant : -1
    }
    const rows: Float32Array[] = []
    const made: AtState = { members: here, variants, given: there.map((entry) => entry.suspect), givenVariants: there.map((entry) => entry.variant), rows, columns: new Map() }
    const present = new Int16Array(SET + there.length)
    for (let set = 0; set < this.size; set++) {
      rows.push(this.engine.circuitRow(present, presentIn(made, set, present)))
      if (set % STEP === STEP - 1) yield (set + 1) / this.size
    }
    this.states.set(state, made)
  }

  /** Chance of one outcome of a test in every set, the engine being in this state. */
  column(state: number, test: number, outcome: number): Float64Array {
    const here = this.at(state)
    const key = `${test}:${outcome}`
    const known = here.columns.get(key)
    if (known) return known
    const column = new Float64Array(this.size)
    const scratch = new Float64Array(8)
    const present = new Int16Array(SET + here.given.length)
    for (let set = 0; set < this.size; set++) {
      const count = presentIn(here, set, present)
      this.engine.chances(test, present, count, here.rows[set] as Float32Array, scratch)
      column[set] = scratch[outcome] as number
    }
    here.columns.set(key, column)
    return column
  }
}

/**
 * What is believed after a history of findings and repairs: a weight for every set of up to three hidden faults,
 * prior times the chance of every finding in the state it was made in.
 */
export class Belief {
  /** Chance of each set; they add up to one. */
  readonly chance: Float64Array
  /** Natural logarithm of the chance of all findings together. */
  readonly logEvidence: number
  readonly state: number
  readonly here: AtState
  readonly columns: readonly Float64Array[]
  /** Sets with any weight to speak of. */
  readonly support: Int32Array
  private found: Float64Array | null = null
  private foundGroups: Float64Array | null = null

  /**
   * @param space hypotheses for the history's events
   * @throws RangeError naming a test, outcome or suspect the engine does not have
   */
  constructor(readonly space: HypothesisSpace, readonly history: SearchHistory) {
    const { engine, hypotheses: { odds } } = space
    this.columns = history.findings.map((finding) => {
      const test = engine.indexOfTest(finding.test)
      return space.column(finding.state, test, engine.indexOfOutcome(test, finding.outcome))
    })
    const weights = Float64Array.from(odds)
    for (const column of this.columns) for (let set = 0; set < weights.length; set++) weights[set] = (weights[set] as number) * (column[set] as number)
    let [sum, before] = [0, 0]
    for (let set = 0; set < weights.length; set++) {
      sum += weights[set] as number
      before += odds[set] as number
    }
    for (let set = 0; set < weights.length; set++) weights[set] = (weights[set] as number) / sum
    this.chance = weights
    const support: number[] = []
    for (let set = 0; set < weights.length; set++) if ((weights[set] as number) > NEGLIGIBLE) support.push(set)
    this.support = Int32Array.from(support)
    this.logEvidence = Math.log(sum / before)
    this.state = currentState(history)
    this.here = space.at(this.state)
  }

  get engine(): CompiledEngine {
    return this.space.engine
  }

  /** Chance that a suspect is there now, by suspect; a given one is certain until it is mended. */
  get marginals(): Float64Array {
    if (this.found) return this.found
    const { members, given } = this.here
    const marginals = new Float64Array(this.engine.suspects.length)
    for (const set of this.support) {
      const weight = this.chance[set] as number
      for (let at = set * SET; at < set * SET + SET; at++) {
        const suspect = members[at] as number
        if (suspect >= 0) marginals[suspect] = (marginals[suspect] as number) + weight
      }
    }
    for (const suspect of given) marginals[suspect] = 1
    this.found = marginals
    return marginals
  }

  /** Chance that at least one of these suspects is there now. */
  chanceOfAny(suspects: ReadonlySet<number>): number {
    const { members, given } = this.here
    if (given.some((suspect) => suspects.has(suspect))) return 1
    let sum = 0
    for (const set of this.support) {
      if (suspects.has(members[set * SET] as number) || suspects.has(members[set * SET + 1] as number) || suspects.has(members[set * SET + 2] as number)) sum += this.chance[set] as number
    }
    return sum
  }

  /** Chance of each group of repair: that any of its suspects is there now. */
  groupChances(costs: { readonly groups: readonly unknown[]; readonly groupOf: Int32Array }): Float64Array {
    if (this.foundGroups) return this.foundGroups
    const { members, given } = this.here
    const found = new Float64Array(costs.groups.length)
    for (const set of this.support) {
      const weight = this.chance[set] as number
      const groups = [members[set * SET] as number, members[set * SET + 1] as number, members[set * SET + 2] as number].map((suspect) => (suspect < 0 ? -1 : costs.groupOf[suspect] as number))
      for (const [at, group] of groups.entries()) if (group >= 0 && groups.indexOf(group) === at) found[group] = (found[group] as number) + weight
    }
    for (const suspect of given) found[costs.groupOf[suspect] as number] = 1
    this.foundGroups = found
    return found
  }

  /** Chance that the motor turns without taking anything off. */
  get turns(): number {
    const { rows } = this.here
    let sum = 0
    for (const set of this.support) {
      const row = rows[set] as Float32Array
      sum += (this.chance[set] as number) * (row[row.length - 1] as number)
    }
    return sum
  }

  /** Chance that nothing is wrong now but what is confirmed and not yet mended. */
  get nothingHidden(): number {
    const { members } = this.here
    let sum = 0
    for (const set of this.support) if ((members[set * SET] as number) < 0 && (members[set * SET + 1] as number) < 0 && (members[set * SET + 2] as number) < 0) sum += this.chance[set] as number
    return sum
  }
}
