import type { Belief } from './belief'
import type { BenchCosts, WayIn } from './bench-costs'
import { SET_SIZE } from './hypothesis-sets'
import type { Equipment } from '../knowledge/knowledge-schema'
import type { OutcomeTables } from './outcome-tables'
import { RemainingCost } from './remaining-cost'

export interface TestChoice {
  readonly test: number
  /** Minutes it is expected to save, its own cost taken off; with the best test after it counted in. */
  readonly value: number
  /** Minutes of the test itself, of getting there and back, and what a breakage would cost. */
  readonly cost: number
  readonly way: WayIn
  /** Chance of each outcome. */
  readonly outcomes: Float64Array
  /** By how much it is expected to change the chance that anything is wrong. */
  readonly clears: number
  /** The test that would follow at best, if any is worth it. */
  readonly then: number | null
}

export interface RepairChoice {
  readonly group: number
  readonly chance: number
  readonly cost: number
  readonly way: WayIn
}

export interface Choices {
  /** Expected minutes to the end without another test. */
  readonly remaining: number
  /** Best first; those not worth their minutes too. */
  readonly tests: readonly TestChoice[]
  /** In the order they would be mended untested. */
  readonly repairs: readonly RepairChoice[]
  /** Chance of every suspect now, everything counted in. */
  readonly now: Float64Array
  /** Chance of every suspect after each outcome of one of the tests, outcome by outcome, as far as the likeliest sets say. */
  readonly after: (test: number) => readonly Float64Array[]
  /** Not offered, and why. */
  readonly withheld: ReadonlyArray<{ readonly test: number; readonly why: string }>
}

export interface ChoiceOptions {
  readonly off?: ReadonlySet<string>
  /** Tests that could not be done, or are not wanted. */
  readonly refused?: ReadonlySet<string>
  readonly equipment?: ReadonlySet<Equipment>
}

/** Sets looked at one step ahead and two, the same so that both weigh alike: the likeliest first; the rest of the belief is left out of the reckoning. */
const SETS_AHEAD = 450
const FIRST_TESTS = 4
const SECOND_TESTS = 7
const NONE: ReadonlySet<string> = new Set()

/**
 * What to do next: every test valued by the minutes it is expected to save, the best few with the best test after
 * them; against it stands mending at once. Dismantling already done costs nothing, and what a test takes off makes
 * the repairs behind it cheaper.
 *
 * @param belief now
 * @param costs of this engine
 * @param options what is off, refused and on the bench
 */
export function chooseNext(belief: Belief, costs: BenchCosts, options: ChoiceOptions = {}): Choices {
  const off = options.off ?? NONE
  const reckoning = new Reckoning(belief, costs, off)
  const withheld: Array<{ test: number; why: string }> = []
  const made = belief.history.findings.filter((finding) => finding.state === belief.state)
  const candidates: TestChoice[] = []
  const { runsNow } = belief
  for (const [index, { id, test }] of belief.engine.tests.entries()) {
    const here = made.filter((finding) => finding.test === id)
    // A reading that surprised may be taken once more; looking again at the same thing shows the same thing.
    const surprising = here.length === 1 && test.reading.kind !== 'signs' && here[0]?.outcome !== test.outcomes[0]?.id
    if (here.length > 0 && !surprising) continue
    const missing = test.equipment.find((piece) => options.equipment && !options.equipment.has(piece))
    const price = costs.test(index, off)
    if (options.refused?.has(id)) withheld.push({ test: index, why: 'It was refused.' })
    else if (missing) withheld.push({ test: index, why: `There is no ${missing.replaceAll('-', ' ')} on the bench.` })
    else if (test.needsRunning && !runsNow) withheld.push({ test: index, why: 'It does not run yet.' })
    else if (price.barred !== null) withheld.push({ test: index, why: price.barred })
    else candidates.push(reckoning.oneStep(index, price))
  }
  candidates.sort(byValue)
  const ahead = candidates
    .slice(0, FIRST_TESTS)
    .map((choice) => reckoning.twoSteps(choice, candidates.slice(0, SECOND_TESTS)))
  return {
    remaining: reckoning.remaining,
    tests: [...ahead, ...candidates.slice(FIRST_TESTS)].sort(byValue),
    repairs: reckoning.repairs(),
    now: belief.marginals,
    after: (test) => reckoning.after(test),
    withheld,
  }
}

function byValue(first: TestChoice, second: TestChoice): number {
  return second.value - first.value
}

type TestPrice = ReturnType<BenchCosts['test']>

/** The likeliest sets, with their groups of repair, ready to be weighed again and again. */
class Reckoning {
  readonly remaining: number
  private readonly sets: Int32Array
  private readonly weights: Float64Array
  private readonly cost: RemainingCost
  private readonly chancesOf = new Map<number, Float64Array>()
  private readonly scratch: Float64Array
  private readonly table: ReturnType<OutcomeTables['of']>
  /** Sets in which nothing is hidden, and how much they weigh. */
  private readonly empty: readonly number[]
  private readonly nothing: number

  constructor(
    private readonly belief: Belief,
    private readonly costs: BenchCosts,
    private readonly off: ReadonlySet<string>,
  ) {
    this.sets = likeliest(belief, SETS_AHEAD)
    this.table = belief.space.tables.of(this.sets, belief.state)
    this.weights = Float64Array.from(this.sets, (set) => belief.chance[set] as number)
    const sum = this.weights.reduce((total, weight) => total + weight, 0)
    for (let at = 0; at < this.weights.length; at++) this.weights[at] = (this.weights[at] as number) / sum
    const { members } = belief.here
    const groups = new Int16Array(this.sets.length * SET_SIZE).fill(-1)
    for (let at = 0; at < this.sets.length; at++) {
      for (let member = 0; member < SET_SIZE; member++) {
        const suspect = members[(this.sets[at] as number) * SET_SIZE + member] as number
        if (suspect >= 0) groups[at * SET_SIZE + member] = costs.groupOf[suspect] as number
      }
    }
    this.empty = [...this.sets.keys()].filter(
      (at) =>
        (groups[at * SET_SIZE] as number) < 0 &&
        (groups[at * SET_SIZE + 1] as number) < 0 &&
        (groups[at * SET_SIZE + 2] as number) < 0,
    )
    this.nothing = this.empty.reduce((sum, at) => sum + (this.weights[at] as number), 0)
    this.cost = new RemainingCost(costs.prices, groups)
    this.scratch = new Float64Array(this.sets.length)
    this.remaining = this.cost.of(this.weights, this.sets.length, costs.indicesOf(off))
  }

  oneStep(test: number, price: TestPrice): TestChoice {
    const chances = this.chances(test)
    const count = this.belief.engine.tests[test]?.test.outcomes.length ?? 0
    const outcomes = new Float64Array(count)
    let after = 0
    let clears = 0
    const offAfter = this.costs.indicesOf(price.offAfter)
    for (let outcome = 0; outcome < count; outcome++) {
      const chance = this.reweigh(this.weights, chances, count, outcome, this.sets.length, this.scratch)
      outcomes[outcome] = chance
      after += this.cost.of(this.scratch, this.sets.length, offAfter)
      let nothing = 0
      for (const at of this.empty) nothing += this.scratch[at] as number
      clears += Math.abs(nothing - chance * this.nothing)
    }
    return {
      test,
      value: this.remaining - after - price.total,
      cost: price.total,
      way: price,
      outcomes,
      clears,
      then: null,
    }
  }

  /** With the best test after each outcome, where one is worth its minutes. */
  twoSteps(choice: TestChoice, seconds: readonly TestChoice[]): TestChoice {
    const few = this.sets.length
    const first = this.chances(choice.test)
    const count = choice.outcomes.length
    const { offAfter } = choice.way as TestPrice
    const offNow = this.costs.indicesOf(offAfter)
    const weighed = new Float64Array(few)
    const candidates = seconds
      .filter((second) => second.test !== choice.test)
      .map((second) => {
        const price = this.costs.test(second.test, offAfter)
        return {
          test: second.test,
          count: second.outcomes.length,
          total: price.total,
          offAfter: this.costs.indicesOf(price.offAfter),
          chances: this.chances(second.test),
        }
      })
    let gain = 0
    let then: { test: number; gain: number } | null = null
    for (let outcome = 0; outcome < count; outcome++) {
      const chance = this.reweigh(this.weights, first, count, outcome, few, weighed)
      if (chance < 0.01) continue
      const without = this.cost.of(weighed, few, offNow)
      let best = 0
      let bestTest = -1
      for (const second of candidates) {
        if (second.total * chance >= without) continue
        let after = 0
        for (let other = 0; other < second.count; other++) {
          this.reweigh(weighed, second.chances, second.count, other, few, this.scratch)
          after += this.cost.of(this.scratch, few, second.offAfter)
        }
        const saved = without - after - second.total * chance
        if (saved > best) [best, bestTest] = [saved, second.test]
      }
      gain += best
      if (bestTest >= 0 && (!then || best > then.gain)) then = { test: bestTest, gain: best }
    }
    return { ...choice, value: choice.value + gain, then: then?.test ?? null }
  }

  after(test: number): Float64Array[] {
    const chances = this.chances(test)
    const count = this.belief.engine.tests[test]?.test.outcomes.length ?? 0
    const { members } = this.belief.here
    return Array.from({ length: count }, (_, outcome) => {
      const found = new Float64Array(this.belief.engine.suspects.length)
      const sum = this.reweigh(this.weights, chances, count, outcome, this.sets.length, this.scratch)
      for (let at = 0; at < this.sets.length; at++) {
        const set = this.sets[at] as number
        const weight = (this.scratch[at] as number) / Math.max(sum, 1e-12)
        for (let member = set * SET_SIZE; member < set * SET_SIZE + SET_SIZE; member++) {
          const suspect = members[member] as number
          if (suspect >= 0) found[suspect] = (found[suspect] as number) + weight
        }
      }
      return found
    })
  }

  repairs(): RepairChoice[] {
    const chances = this.belief.groupChances(this.costs)
    this.cost.of(this.weights, this.sets.length, this.costs.indicesOf(this.off))
    return this.cost.sequence.map((group) => {
      const price = this.costs.repair(group, this.off)
      return { group, chance: chances[group] as number, cost: price.total, way: price }
    })
  }

  private reweigh(
    from: Float64Array,
    chances: Float64Array,
    count: number,
    outcome: number,
    sets: number,
    into: Float64Array,
  ): number {
    let sum = 0
    for (let at = 0; at < sets; at++) {
      const weight = (from[at] as number) * (chances[at * count + outcome] as number)
      into[at] = weight
      sum += weight
    }
    return sum
  }

  /** Chance of every outcome in each of the likeliest sets. */
  private chances(test: number): Float64Array {
    const known = this.chancesOf.get(test)
    if (known) return known
    const found = this.table(test, this.belief.looksBefore(test))
    this.chancesOf.set(test, found)
    return found
  }
}

/** The likeliest sets, likeliest first. */
function likeliest({ support, chance }: Belief, most: number): Int32Array {
  let least = 1e-7
  // Raise the bar until few enough are left to be sorted.
  for (;;) {
    const found: number[] = []
    for (let at = 0; at < support.length; at++)
      if ((chance[support[at] as number] as number) >= least) found.push(support[at] as number)
    if (found.length <= 4 * most || least > 0.1)
      return Int32Array.from(
        found
          .sort((first, second) => (chance[second] as number) - (chance[first] as number) || first - second)
          .slice(0, most),
      )
    least *= 3
  }
}
