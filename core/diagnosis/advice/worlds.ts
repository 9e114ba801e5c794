import type { BenchCosts, GroupCheck, RepairGroup } from '../acts/bench-costs'
import type { BenchTest } from '../places/bench-tests'
import type { Belief, World } from '../belief/belief'
import type { CircuitRow } from '../circuit/circuit-outcomes'

/** So many sets of faults stand for the belief when acts are valued. */
const WORLDS = 220
/** Minutes are not all: every look and every question costs whoever makes it so much besides. */
export const ATTENTION_MINUTES = 1.5
/** A group less likely than this is not waited for. */
const LEAST_CHANCE = 0.008

/**
 * The belief as some hundred full sets, for valuing what could be done next: what each observation would show in each
 * of them, and how many minutes it would still take to find everything that anybody would notice.
 */
export class Worlds {
  readonly worlds: readonly World[]
  readonly weights: Float64Array
  readonly rows: readonly CircuitRow[]
  /** Confirmed and not yet mended. */
  readonly given: ReadonlySet<number>
  /** By world: the groups of repair at fault, hidden and noticeable. */
  readonly groups: ReadonlyArray<readonly number[]>
  private readonly known = new Map<number, Float64Array>()
  /** By group: the way it lies behind. */
  private readonly wayOf: readonly number[]
  private readonly goals: ReadonlyArray<GroupCheck['goal']>
  /** By group: minutes of the look itself, and the attention it costs. */
  private readonly looks: Float64Array
  private readonly ways = new Map<ReadonlySet<string>, ReadonlyArray<Int16Array>>()
  private readonly partCost: Float64Array

  /** By group: how one would find out next. */
  readonly checks: readonly GroupCheck[]

  /**
   * @param belief now
   * @param costs of this engine
   * @param counts whether a suspect, in one of its variants, is waited for
   * @param made acts made in this state: nothing more is to be seen at them
   */
  constructor(
    readonly belief: Belief,
    readonly costs: BenchCosts,
    counts: (suspect: number, variant: number) => boolean,
    made: ReadonlySet<number> = new Set(),
  ) {
    this.checks = costs.checks.map(
      (checks) => checks.find(({ act }) => act === null || !made.has(act)) ?? (checks[0] as GroupCheck),
    )
    const { engine } = belief
    const given = new Set(belief.given)
    this.given = given
    this.worlds = belief.worlds(WORLDS)
    this.weights = Float64Array.from(this.worlds, ({ weight }) => weight)
    this.rows = this.worlds.map(({ variants }) => engine.circuitRow(variants, variants.length))
    this.groups = this.worlds.map(({ suspects, variants }) => [
      ...new Set(
        suspects
          .filter(
            (suspect) =>
              !given.has(suspect) &&
              suspect !== engine.unlisted &&
              counts(suspect, variants.find((variant) => engine.suspectOf[variant] === suspect) ?? -1),
          )
          .map((suspect) => costs.groupOf[suspect] as number),
      ),
    ])
    const keys = new Map<string, number>()
    const goals: Array<GroupCheck['goal']> = []
    this.wayOf = this.checks.map(({ goal }) => {
      const key = JSON.stringify(goal)
      const known = keys.get(key)
      if (known !== undefined) return known
      keys.set(key, goals.length)
      return goals.push(goal) - 1
    })
    this.goals = goals
    this.looks = Float64Array.from(this.checks, ({ minutes }) => minutes + ATTENTION_MINUTES)
    this.partCost = Float64Array.from(engine.description.parts, ({ id }) => costs.costOfPart(id))
  }

  /** Chance of every outcome of a test, world after world. */
  chances(test: number): Float64Array {
    const known = this.known.get(test)
    if (known) return known
    const { engine } = this.belief
    const count = (engine.tests[test] as BenchTest).test.outcomes.length
    const found = new Float64Array(this.worlds.length * count)
    const out = new Float64Array(count)
    for (const [at, { suspects }] of this.worlds.entries()) {
      engine.chances(test, suspects, this.rows[at] as CircuitRow, out)
      found.set(out, at * count)
    }
    this.known.set(test, found)
    return found
  }

  /** Whether it turns as it stands in most of the worlds. */
  get likelyTurns(): boolean {
    return this.rows.reduce((sum, { turns }, at) => sum + (turns ? (this.weights[at] as number) : 0), 0) >= 0.5
  }

  /** Chance of every group with these weights. */
  groupChances(weights: Float64Array): Float64Array {
    const found = new Float64Array(this.costs.groups.length)
    for (const [at, groups] of this.groups.entries())
      for (const group of groups) found[group] = (found[group] as number) + (weights[at] as number)
    return found
  }

  /**
   * The order in which one group after the other would be looked at, or mended where that is cheaper, from now on:
   * most chance a minute first (the best order for one fault with independent costs: Kalagnanam and Henrion 1990;
   * Heckerman, Breese and Rommelse 1995). What is taken off once is not paid twice.
   *
   * @param weights of the worlds; they need not add up to one
   * @param off what is off
   * @returns each group with the minutes spent when it is through
   */
  order(
    weights: Float64Array,
    off: ReadonlySet<string>,
  ): ReadonlyArray<{ readonly group: number; readonly spent: number }> {
    const chances = this.groupChances(weights)
    const ways = this.waysFrom(off)
    let all = 0
    for (const weight of weights) all += weight
    const waiting: number[] = []
    for (let group = 0; group < chances.length; group++)
      if ((chances[group] as number) > LEAST_CHANCE * all) waiting.push(group)
    const { looks, wayOf } = this
    const taken = new Uint8Array(this.partCost.length)
    const wayCost = Float64Array.from(ways, (parts) => this.costOf(parts, taken))
    const found: Array<{ readonly group: number; readonly spent: number }> = []
    let spent = 0
    while (waiting.length > 0) {
      let best = 0
      let rate = -1
      for (let at = 0; at < waiting.length; at++) {
        const group = waiting[at] as number
        const minutes = (looks[group] as number) + (wayCost[wayOf[group] as number] as number)
        const perMinute = (chances[group] as number) / minutes
        if (perMinute > rate) {
          best = at
          rate = perMinute
        }
      }
      const group = waiting[best] as number
      waiting.splice(best, 1)
      const way = wayOf[group] as number
      spent += (looks[group] as number) + (wayCost[way] as number)
      found.push({ group, spent })
      if ((wayCost[way] as number) === 0) continue
      for (const part of ways[way] as Int16Array) taken[part] = 1
      for (let other = 0; other < ways.length; other++)
        if ((wayCost[other] as number) > 0) wayCost[other] = this.costOf(ways[other] as Int16Array, taken)
    }
    return found
  }

  /**
   * Expected minutes until nothing anybody would notice is left, in that order. Minutes of the repairs themselves are
   * the same whatever is done, and left out.
   */
  remaining(weights: Float64Array, off: ReadonlySet<string>): number {
    const spentAt = new Float64Array(this.costs.groups.length)
    for (const { group, spent } of this.order(weights, off)) spentAt[group] = spent
    let expected = 0
    for (const [at, groups] of this.groups.entries()) {
      let last = 0
      for (const group of groups) last = Math.max(last, spentAt[group] as number)
      expected += (weights[at] as number) * last
    }
    return expected
  }

  private costOf(parts: Int16Array, taken: Uint8Array): number {
    let sum = 0
    for (const part of parts) if (taken[part] === 0) sum += this.partCost[part] as number
    return sum
  }

  /** By way: the parts to take off yet. */
  private waysFrom(off: ReadonlySet<string>): ReadonlyArray<Int16Array> {
    const known = this.ways.get(off)
    if (known) return known
    const place = new Map(this.belief.engine.description.parts.map(({ id }, index) => [id, index]))
    const found = this.goals.map((goal) =>
      Int16Array.from(this.costs.wayIn(goal, off).parts, (part) => place.get(part) ?? 0),
    )
    this.ways.set(off, found)
    return found
  }

  /** The group that speaks for a suspect. */
  group(index: number): RepairGroup {
    return this.costs.groups[index] as RepairGroup
  }
}
