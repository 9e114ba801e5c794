import type { Part } from '../engine/description-schema'
import { isNoWay, minimalRemoval, removalCost, type RemovalOptions, type RemovalPlan } from '../strip/minimal-removal'
import type { CompiledEngine } from './compiled-engine'
import type { Equipment } from '../knowledge/knowledge-schema'
import type { GroupPrices } from './remaining-cost'
import type { Suspect } from './suspects'

/** Suspects that one remedy at one place mends together. */
export interface RepairGroup {
  readonly id: string
  readonly suspects: readonly number[]
  /** The first of them speaks for all. */
  readonly suspect: Suspect
}

/** How one finds out whether a group is at fault: by a test that points at it alone, or by mending it and trying. */
export interface GroupCheck {
  /** Index of the test; null where mending is cheaper than looking. */
  readonly test: number | null
  readonly minutes: number
  readonly goal: readonly (readonly string[])[]
}

/** A test points at a suspect if it shows it this often … */
const SENSITIVE = 0.7
/** … and other faults, weighed by how usual they are, give the same outcome no more often than this. */
const UNSPECIFIC = 0.12
/** An outcome speaks for a suspect where it is so many times as likely as with a sound engine. */
const SPEAKS_FOR = 4

/** Minutes of the retest that follows a repair. */
const RETEST_MINUTES = 1
const NOTHING_OFF: ReadonlySet<string> = new Set()
/** A way that is barred costs so much that it is never proposed first, but a fault behind it still counts. */
const BARRED_MINUTES = 600

/** Parts a run on the track can do without. */
const optional: ReadonlySet<Part['kind']> = new Set(['body', 'detail', 'fastener', 'weight', 'coupling', 'lamp'])

export interface WayIn {
  /** Parts to take off yet. */
  readonly parts: readonly string[]
  /** Off, and back on, min. */
  readonly minutes: number
  /** Minutes with what a breakage would cost. */
  readonly cost: number
  readonly barred: string | null
}

/** What tests and repairs cost on this engine, given what is off it already. */
export class BenchCosts {
  readonly groups: readonly RepairGroup[]
  /** By suspect: its group. */
  readonly groupOf: Int32Array
  /** By group. */
  readonly checks: readonly GroupCheck[]
  private readonly plans = new Map<string, RemovalPlan | string>()
  private readonly partCost: ReadonlyMap<string, { readonly minutes: number; readonly cost: number }>
  private readonly partIndex: ReadonlyMap<string, number>
  private asNumbers: GroupPrices | null = null
  private readonly kindOf: ReadonlyMap<string, Part['kind']>

  /**
   * @param engine compiled
   * @param options tools there are, parts that must stay on or may be overruled
   * @param missing equipment that is not on the bench
   */
  constructor(
    private readonly engine: CompiledEngine,
    private readonly options: RemovalOptions = {},
    private readonly missing: ReadonlySet<Equipment> = new Set(),
  ) {
    const byId = new Map<string, number[]>()
    for (const [index, { mendedBy }] of engine.suspects.entries())
      byId.set(mendedBy, [...(byId.get(mendedBy) ?? []), index])
    this.groups = [...byId].map(([id, suspects]) => ({
      id,
      suspects,
      suspect: engine.suspects[suspects[0] as number] as Suspect,
    }))
    this.groupOf = new Int32Array(engine.suspects.length)
    for (const [group, { suspects }] of this.groups.entries())
      for (const suspect of suspects) this.groupOf[suspect] = group
    this.partCost = new Map(
      engine.description.parts.flatMap((part) =>
        part.removal
          ? [
              [
                part.id,
                { minutes: part.removal.minutes + part.removal.refitMinutes, cost: removalCost(part.removal) },
              ] as const,
            ]
          : [],
      ),
    )
    this.kindOf = new Map(engine.description.parts.map((part) => [part.id, part.kind]))
    this.partIndex = new Map(engine.description.parts.map((part, index) => [part.id, index]))
    this.checks = this.findChecks()
  }

  /** What it takes to have these off, with what is off already. */
  wayIn(goal: readonly (readonly string[])[], off: ReadonlySet<string>): WayIn {
    if (goal.length === 0) return { parts: [], minutes: 0, cost: 0, barred: null }
    const key = JSON.stringify(goal)
    let plan = this.plans.get(key)
    if (plan === undefined) {
      const found = minimalRemoval(this.engine.description, goal, this.options)
      plan = isNoWay(found) ? found.message : found
      this.plans.set(key, plan)
    }
    if (typeof plan === 'string') return { parts: [], minutes: 0, cost: BARRED_MINUTES, barred: plan }
    const parts = plan.order.filter((id) => !off.has(id))
    const sum = (pick: 'minutes' | 'cost'): number =>
      parts.reduce((total, id) => total + (this.partCost.get(id)?.[pick] ?? 0), 0)
    return { parts, minutes: sum('minutes'), cost: sum('cost'), barred: null }
  }

  test(
    index: number,
    off: ReadonlySet<string>,
  ): WayIn & { readonly total: number; readonly offAfter: ReadonlySet<string> } {
    const known = this.engine.tests[index] as CompiledEngine['tests'][number]
    const base = known.test.whole ? this.onTrack(off) : off
    const way = this.wayIn(known.goal, base)
    return {
      ...way,
      total: way.cost + known.test.minutes,
      offAfter: way.parts.length === 0 ? base : new Set([...base, ...way.parts]),
    }
  }

  repair(
    group: number,
    off: ReadonlySet<string>,
  ): WayIn & { readonly total: number; readonly offAfter: ReadonlySet<string> } {
    const { suspect } = this.groups[group] as RepairGroup
    const way = this.wayIn(suspect.goal, off)
    return {
      ...way,
      total: way.cost + suspect.remedy.minutes + RETEST_MINUTES,
      offAfter: way.parts.length === 0 ? off : new Set([...off, ...way.parts]),
    }
  }

  /** Every group and part as numbers, for the reckoning of what is left. */
  get prices(): GroupPrices {
    this.asNumbers ??= this.numbers()
    return this.asNumbers
  }

  indicesOf(parts: Iterable<string>): number[] {
    return [...parts].flatMap((id) => this.partIndex.get(id) ?? [])
  }

  private numbers(): GroupPrices {
    const parts = (goal: readonly (readonly string[])[]): number[] =>
      this.indicesOf(this.wayIn(goal, NOTHING_OFF).parts)
    return {
      // A barred way counts as long minutes, without parts.
      lookMinutes: this.checks.map(
        (check) => check.minutes + (this.wayIn(check.goal, NOTHING_OFF).barred === null ? 0 : BARRED_MINUTES),
      ),
      lookParts: this.checks.map((check) => parts(check.goal)),
      repairParts: this.groups.map(({ suspect }) => parts(suspect.goal)),
      partCost: this.engine.description.parts.map((part) => this.partCost.get(part.id)?.cost ?? 0),
    }
  }

  /** The cheapest way to know of each group, with everything on. */
  private findChecks(): GroupCheck[] {
    const { engine } = this
    // What comes and goes is looked for while it does.
    const single = engine.suspects.map((_, suspect) => [
      engine.variants.findIndex((variant) => variant.suspect === suspect && variant.mood !== 'dead'),
    ])
    const [sound, ...alone] = [[], ...single].map((suspects) => {
      const row = engine.circuitRow(suspects, suspects.length)
      return engine.tests.map((_, test) => {
        const out = new Float64Array(8)
        engine.chances(test, suspects, suspects.length, row, out)
        return out
      })
    })
    const odds = engine.suspects.map((suspect) => suspect.prior)
    const allOdds = odds.reduce((sum, value) => sum + value, 0)
    return this.groups.map(({ suspects, suspect }, group): GroupCheck => {
      const mending: GroupCheck = { test: null, minutes: suspect.remedy.minutes + RETEST_MINUTES, goal: suspect.goal }
      const main = suspects.reduce(
        (best, index) => ((odds[index] as number) > (odds[best] as number) ? index : best),
        suspects[0] as number,
      )
      if (main === engine.unlisted) return mending
      let best = mending
      let bestCost = this.repair(group, NOTHING_OFF).total
      for (const [
        test,
        {
          test: { outcomes, minutes, equipment },
          goal,
        },
      ] of engine.tests.entries()) {
        if (equipment.some((piece) => this.missing.has(piece))) continue
        const speaking = outcomes.flatMap((_, outcome) =>
          (alone[main]?.[test]?.[outcome] as number) > SPEAKS_FOR * (sound?.[test]?.[outcome] as number)
            ? [outcome]
            : [],
        )
        const shown = (index: number): number =>
          speaking.reduce((sum, outcome) => sum + (alone[index]?.[test]?.[outcome] as number), 0)
        if (speaking.length === 0 || shown(main) < SENSITIVE) continue
        const others =
          odds.reduce((sum, weight, index) => (suspects.includes(index) ? sum : sum + weight * shown(index)), 0) /
          allOdds
        const cost = this.test(test, NOTHING_OFF).total
        if (others <= UNSPECIFIC && cost < bestCost) [best, bestCost] = [{ test, minutes, goal }, cost]
      }
      return best
    })
  }

  /** What may stay off while the engine stands on the track. */
  onTrack(off: ReadonlySet<string>): ReadonlySet<string> {
    return [...off].every((id) => optional.has(this.kindOf.get(id) ?? 'body'))
      ? off
      : new Set([...off].filter((id) => optional.has(this.kindOf.get(id) ?? 'body')))
  }
}
