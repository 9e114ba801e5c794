import type { CompiledEngine } from './compiled-engine'
import { currentState, type SearchHistory } from './history'
import { hypothesesOf, type Hypotheses } from './hypotheses'

const SET = 3
/** Sets between two words on progress. */
const STEP = 2000
/** All sets below this together weigh less than a thousandth. */
const NEGLIGIBLE = 1e-8
/** Chances of signs closer than this come from the same faults. */
const SAME_SIGN = 1e-9

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

/** An earlier time the same signs were looked for. */
export interface EarlierLook {
  readonly state: number
  readonly outcome: number
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

  /**
   * Chance of one outcome of a test in every set, the engine being in this state.
   *
   * @param before how the same test came out earlier
   */
  column(state: number, test: number, outcome: number, before: readonly EarlierLook[] = []): Float64Array {
    const here = this.at(state)
    const key = `${test}:${outcome}${before.map((look) => `/${look.state}:${look.outcome}`).join('')}`
    const known = here.columns.get(key)
    if (known) return known
    const column = new Float64Array(this.size)
    const chances = this.chancesAgain(state, test, before)
    for (let set = 0; set < this.size; set++) column[set] = chances(set)[outcome] as number
    here.columns.set(key, column)
    return column
  }

  /**
   * Chance of every outcome of a test, set by set, after it was made before. A sign is there or it is not, however
   * often one looks: only misreading is drawn anew, as long as what gives the sign is still the same.
   *
   * @returns asks for one set; what it answers is overwritten by the next
   */
  chancesAgain(state: number, test: number, before: readonly EarlierLook[]): (set: number) => Float64Array {
    const { engine, hypotheses: { items, members } } = this
    const here = this.at(state)
    const known = engine.tests[test]?.test
    const out = new Float64Array(8)
    const present = new Int16Array(SET + here.given.length)
    if (known?.reading.kind !== 'signs') {
      return (set) => {
        engine.chances(test, present, presentIn(here, set, present), here.rows[set] as Float32Array, out)
        return out
      }
    }
    const weigh = this.looking(here, test, before.map((look) => ({ at: this.at(look.state), outcome: look.outcome })), out)
    // Most sets have nothing to do with what is looked at: they all give the same, but for whether it runs.
    const matters = Uint8Array.from(items, (item) => (engine.givesSign(test, item.suspect) ? 1 : 0))
    const states = [here, ...before.map((look) => this.at(look.state))]
    const plain = new Map<number, Float64Array>()
    return (set) => {
      for (let at = set * SET; at < set * SET + SET; at++) {
        const item = members[at] as number
        if (item >= 0 && matters[item] === 1) return weigh(set)
      }
      let running = 0
      if (known.needsRunning) {
        for (const { rows } of states) {
          const row = rows[set] as Float32Array
          running = 2 * running + ((row[row.length - 1] as number) === 0 ? 0 : 1)
        }
      }
      const found = plain.get(running)
      if (found) return found
      const made = weigh(set).slice()
      plain.set(running, made)
      return made
    }
  }

  private looking(here: AtState, test: number, before: ReadonlyArray<{ readonly at: AtState; readonly outcome: number }>, out: Float64Array): (set: number) => Float64Array {
    const { engine } = this
    const count = engine.tests[test]?.test.outcomes.length ?? 0
    const present = new Int16Array(SET + here.given.length)
    const looks = before.map((look) => ({ ...look, present: new Int16Array(SET + look.at.given.length) }))
    const [now, then] = [new Float64Array(count), new Float64Array(count)]
    return (set) => {
      const spread = engine.trueChances(test, present, presentIn(here, set, present), here.rows[set] as Float32Array, now)
      for (let sign = 0; sign < count; sign++) out[sign] = now[sign] as number
      for (const look of looks) {
        const misread = engine.trueChances(test, look.present, presentIn(look.at, set, look.present), look.at.rows[set] as Float32Array, then)
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
    this.columns = history.findings.map((finding, index) => {
      const test = engine.indexOfTest(finding.test)
      return space.column(finding.state, test, engine.indexOfOutcome(test, finding.outcome), this.looksBefore(test, index))
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

  /** How a test read by signs came out before, until a finding of the history; a circuit is measured anew each time. */
  looksBefore(test: number, until: number = this.history.findings.length): EarlierLook[] {
    const known = this.engine.tests[test]
    if (known?.test.reading.kind !== 'signs') return []
    return this.history.findings.slice(0, until).flatMap((finding) => (finding.test === known.id ? [{ state: finding.state, outcome: this.engine.indexOfOutcome(test, finding.outcome) }] : []))
  }

  /** Chance that a suspect is there now, by suspect; a given one is certain until it is mended. */
  get marginals(): Float64Array {
    this.found ??= this.marginalsAt(this.state)
    return this.found
  }

  /** Chance that a suspect was there in a state, with all that was found since. */
  marginalsAt(state: number): Float64Array {
    const { members, given } = this.space.at(state)
    const marginals = new Float64Array(this.engine.suspects.length)
    for (const set of this.support) {
      const weight = this.chance[set] as number
      for (let at = set * SET; at < set * SET + SET; at++) {
        const suspect = members[at] as number
        if (suspect >= 0) marginals[suspect] = (marginals[suspect] as number) + weight
      }
    }
    for (const suspect of given) marginals[suspect] = 1
    return marginals
  }

  /** Chance that at least one of these suspects is there in a state; now where none is named. */
  chanceOfAny(suspects: ReadonlySet<number>, state: number = this.state): number {
    const { members, given } = this.space.at(state)
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
