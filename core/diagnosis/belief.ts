import type { BenchTest } from './bench-tests'
import type { Column } from './column'
import type { CompiledEngine } from './compiled-engine'
import { currentState, type SearchHistory } from './history'
import { SET_SIZE } from './hypothesis-sets'
import type { AtState, HypothesisSpace } from './hypothesis-space'
import type { EarlierLook } from './repeated-looks'

/** How far sets of three are followed: so many at most, and no further once the rest is expected to hold less than a share. */
export interface BeliefEffort {
  readonly mostTriples: number
  readonly leftOut: number
}
const usualEffort: BeliefEffort = { mostTriples: 20_000, leftOut: 0.02 }
const TAKEN_AT_ONCE = 2000

/** Runs for which nothing is taken off. */
const asItStands: ReadonlySet<string> = new Set(['track', 'track-rocked', 'wheels', 'pickups', 'dcc-track'])
/** With less than this chance that it turns, nothing is proposed that wants it turning. */
const RUNS = 0.5
/** All sets below this together weigh less than a thousandth. */
const NEGLIGIBLE = 1e-8

/**
 * What is believed after a history of findings and repairs: a weight for every set of up to three hidden faults,
 * prior times the chance of every finding in the state it was made in.
 */
export class Belief {
  /** Chance of each set; they add up to one. Zero where a set was not worth a look. */
  readonly chance: Float64Array
  readonly state: number
  readonly here: AtState
  /** What each finding says. */
  readonly evidence: readonly Column[]
  /** Chance of each finding in every set, worked out in those that were looked at. */
  readonly columns: readonly Float64Array[]
  /** Share of the belief expected to lie in sets of three not looked at. */
  readonly leftOut: number
  /** Sets with any weight to speak of. */
  readonly support: Int32Array
  private found: Float64Array | null = null
  private foundGroups: Float64Array | null = null

  /**
   * @param space hypotheses for the history's events
   * @param effort how far the sets of three are followed
   * @throws RangeError naming a test, outcome or suspect the engine does not have
   */
  constructor(
    readonly space: HypothesisSpace,
    readonly history: SearchHistory,
    effort: BeliefEffort = usualEffort,
  ) {
    const { engine, sets } = space
    const columns = history.findings.map((finding, index) => {
      const test = engine.indexOfTest(finding.test)
      return space.column(
        finding.state,
        test,
        engine.indexOfOutcome(test, finding.outcome),
        this.looksBefore(test, index),
      )
    })
    const { weights } = space
    weights.follow(columns)
    const { base } = weights
    const ranked = sets.rankTriples(base, effort.mostTriples)
    let whole = base.reduce((total, weight) => total + weight, 0)
    const exact: Array<readonly [triples: Int32Array, weights: Float64Array]> = []
    for (let taken = 0; taken < effort.mostTriples && ranked.left > effort.leftOut * whole; taken += TAKEN_AT_ONCE) {
      const triples = ranked.take(TAKEN_AT_ONCE)
      const weighed = weights.of(triples)
      for (let at = 0; at < weighed.length; at++) whole += weighed[at] as number
      exact.push([triples, weighed])
    }
    const chance = new Float64Array(sets.count)
    const support = new Int32Array(sets.base + exact.reduce((count, [triples]) => count + triples.length, 0))
    let supported = 0
    const keep = (set: number, weight: number): void => {
      chance[set] = weight / whole
      if (weight > NEGLIGIBLE * whole) support[supported++] = set
    }
    for (let set = 0; set < sets.base; set++) keep(set, base[set] as number)
    for (const [triples, weighed] of exact)
      for (let at = 0; at < triples.length; at++) keep(triples[at] as number, weighed[at] as number)
    this.chance = chance
    this.support = support.subarray(0, supported)
    this.evidence = columns
    this.columns = columns.map((column) => column.values)
    this.leftOut = ranked.left > 0 && Number.isFinite(ranked.left) ? ranked.left / (whole + ranked.left) : 0
    this.state = currentState(history)
    this.here = space.at(this.state)
  }

  get engine(): CompiledEngine {
    return this.space.engine
  }

  /** How a test came out before, until a finding of the history; of what circuit and drive answer, every test that reads the same kind of figure there or of the whole engine. */
  looksBefore(test: number, until: number = this.history.findings.length): EarlierLook[] {
    const { engine } = this
    const known = engine.tests[test]
    if (!known) return []
    return this.history.findings.slice(0, until).flatMap((finding) => {
      const made = engine.indexOfTest(finding.test)
      return made === test || readsTheSame(known, engine.tests[made] as BenchTest)
        ? [{ test: made, state: finding.state, outcome: engine.indexOfOutcome(made, finding.outcome) }]
        : []
    })
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
      for (let at = set * SET_SIZE; at < set * SET_SIZE + SET_SIZE; at++) {
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
      if (
        suspects.has(members[set * SET_SIZE] as number) ||
        suspects.has(members[set * SET_SIZE + 1] as number) ||
        suspects.has(members[set * SET_SIZE + 2] as number)
      )
        sum += this.chance[set] as number
    }
    return sum
  }

  /** Chance of each group of repair: that any of its suspects is there now. */
  groupChances(costs: { readonly groups: readonly unknown[]; readonly groupOf: Int32Array }): Float64Array {
    return (this.foundGroups ??= this.chancesOf(costs.groupOf, costs.groups.length))
  }

  /**
   * Chance of each of some groups: that any of its suspects is there now.
   *
   * @param groupOf by suspect: its group; −1 where it is in none
   * @param count of the groups
   */
  chancesOf(groupOf: Int32Array, count: number): Float64Array {
    const { members, given } = this.here
    const found = new Float64Array(count)
    for (const set of this.support) {
      const weight = this.chance[set] as number
      let [one, other] = [-1, -1]
      for (let at = set * SET_SIZE; at < set * SET_SIZE + SET_SIZE; at++) {
        const suspect = members[at] as number
        const group = suspect < 0 ? -1 : (groupOf[suspect] as number)
        // A group counts once, however many of its suspects are there.
        if (group < 0 || group === one || group === other) continue
        found[group] = (found[group] as number) + weight
        other = one
        one = group
      }
    }
    for (const suspect of given) if ((groupOf[suspect] as number) >= 0) found[groupOf[suspect] as number] = 1
    return found
  }

  /** Whether the motor more likely turns than not, without taking anything off; no further set is looked at than it takes to tell. */
  private get likelyTurns(): boolean {
    let [turning, open] = [0, this.support.reduce((sum, set) => sum + (this.chance[set] as number), 0)]
    for (const set of this.support) {
      const weight = this.chance[set] as number
      open -= weight
      if (this.here.row(set).turns) turning += weight
      if (turning >= RUNS) return true
      if (turning + open < RUNS) return false
    }
    return false
  }

  /** Whether what can only be judged on a motor that turns can be judged now: as it was last seen in this state, or as is to be expected. */
  get runsNow(): boolean {
    const { engine } = this
    const seen = this.history.findings.filter((finding) => {
      const { reading } = (engine.tests[engine.indexOfTest(finding.test)] as BenchTest).test
      return finding.state === this.state && reading.kind === 'motion' && asItStands.has(reading.feed)
    })
    return seen.length > 0 ? seen.some(({ outcome }) => outcome === 'runs' || outcome === 'falters') : this.likelyTurns
  }

  /** Chance that nothing is wrong now but what is confirmed and not yet mended. */
  get nothingHidden(): number {
    const { members } = this.here
    let sum = 0
    for (const set of this.support)
      if (
        (members[set * SET_SIZE] as number) < 0 &&
        (members[set * SET_SIZE + 1] as number) < 0 &&
        (members[set * SET_SIZE + 2] as number) < 0
      )
        sum += this.chance[set] as number
    return sum
  }
}

function readsTheSame(one: BenchTest, other: BenchTest): boolean {
  const samePlace = one.place.id === other.place.id || one.place.role === 'engine' || other.place.role === 'engine'
  return (
    one.test.reading.kind !== 'signs' &&
    one.test.reading.kind === other.test.reading.kind &&
    samePlace &&
    one.test.outcomes.map(({ id }) => id).join() === other.test.outcomes.map(({ id }) => id).join()
  )
}
