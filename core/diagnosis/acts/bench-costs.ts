import type { Part } from '../../engine/description-schema'
import {
  isNoWay,
  minimalRemoval,
  removalCost,
  type RemovalOptions,
  type RemovalPlan,
} from '../../strip/minimal-removal'
import type { Equipment } from '../../knowledge/knowledge-schema'
import type { CompiledEngine } from '../compiled-engine'
import type { Suspect } from '../places/suspects'
import { actsOf, type BenchAct } from './acts-of'

/** Suspects that one remedy at one place mends together. */
export interface RepairGroup {
  readonly id: string
  readonly suspects: readonly number[]
  /** The first of them speaks for all. */
  readonly suspect: Suspect
}

/** How one finds out whether a group is at fault: by an act at which it shows alone, or by mending it and trying. */
export interface GroupCheck {
  /** Index of the act; null where mending is cheaper than looking. */
  readonly act: number | null
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
  readonly acts: readonly BenchAct[]
  /** By test: the act it is made at. */
  readonly actOf: Int16Array
  /** By group: the acts at which it shows alone, the cheapest first; mending it untested is among them where it is as cheap. */
  readonly checks: ReadonlyArray<readonly GroupCheck[]>
  private readonly plans = new Map<string, RemovalPlan | string>()
  private readonly gone = new WeakMap<ReadonlySet<string>, ReadonlySet<string>>()
  private readonly partCost: ReadonlyMap<string, { readonly minutes: number; readonly cost: number }>
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
    this.acts = actsOf(engine, (goal) => this.wayIn(goal, NOTHING_OFF).minutes)
    this.actOf = new Int16Array(engine.tests.length)
    for (const [act, { observations }] of this.acts.entries()) for (const test of observations) this.actOf[test] = act
    this.checks = this.findChecks()
  }

  /** Minutes to take a part off and put it back, a breakage counted in. */
  costOfPart(id: string): number {
    return this.partCost.get(id)?.cost ?? 0
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
    const gone = this.goneWith(off)
    const parts = plan.order.filter((id) => !gone.has(id))
    const sum = (pick: 'minutes' | 'cost'): number =>
      parts.reduce((total, id) => total + (this.partCost.get(id)?.[pick] ?? 0), 0)
    return { parts, minutes: sum('minutes'), cost: sum('cost'), barred: null }
  }

  /** Parts that are off, and what had to come off before them. */
  private goneWith(off: ReadonlySet<string>): ReadonlySet<string> {
    const known = this.gone.get(off)
    if (known) return known
    const found = new Set(off)
    for (const id of off) {
      const plan = minimalRemoval(this.engine.description, [[id]], this.options)
      if (!isNoWay(plan)) for (const part of plan.order) found.add(part)
    }
    this.gone.set(off, found)
    return found
  }

  /** What an act costs now: with the way there and back, and what a breakage would cost. */
  act(
    index: number,
    off: ReadonlySet<string>,
  ): WayIn & { readonly total: number; readonly offAfter: ReadonlySet<string> } {
    const { whole, goal, minutes } = this.acts[index] as BenchAct
    const base = whole ? this.onTrack(off) : off
    const way = this.wayIn(goal, base)
    return {
      ...way,
      total: way.cost + minutes,
      offAfter: way.parts.length === 0 ? base : new Set([...base, ...way.parts]),
    }
  }

  /** What has to come off, or stay off, for a test made alone. */
  test(index: number, off: ReadonlySet<string>): WayIn & { readonly total: number } {
    return this.act(this.actOf[index] as number, off)
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

  /** The cheapest way to know of each group, with everything on. */
  private findChecks(): GroupCheck[][] {
    const { engine } = this
    // What comes and goes is looked for while it does.
    const shown = [[], ...engine.suspects.map((_, suspect) => [suspect])].map((suspects) => {
      const variants = suspects.map((suspect) =>
        engine.variants.findIndex((variant) => variant.suspect === suspect && variant.mood !== 'dead'),
      )
      const row = engine.circuitRow(variants, variants.length)
      return engine.tests.map(({ test }, index) => {
        const out = new Float64Array(test.outcomes.length)
        engine.chances(index, suspects, row, out)
        return out
      })
    })
    const [sound = [], ...alone] = shown
    const odds = engine.suspects.map((suspect) => suspect.prior)
    const allOdds = odds.reduce((sum, value) => sum + value, 0)
    return this.groups.map(({ suspects, suspect }, group): GroupCheck[] => {
      const main = suspects.reduce(
        (best, index) => ((odds[index] as number) > (odds[best] as number) ? index : best),
        suspects[0] as number,
      )
      const mend: GroupCheck = { act: null, minutes: suspect.remedy.minutes + RETEST_MINUTES, goal: suspect.goal }
      if (main === engine.unlisted) return [mend]
      const byAct = new Map<number, { readonly check: GroupCheck; readonly cost: number }>()
      for (const [test, { test: known }] of engine.tests.entries()) {
        if (known.equipment.some((piece) => this.missing.has(piece))) continue
        const speaking = known.outcomes.flatMap((_, outcome) =>
          (alone[main]?.[test]?.[outcome] as number) > SPEAKS_FOR * (sound[test]?.[outcome] as number) ? [outcome] : [],
        )
        const shows = (index: number): number =>
          speaking.reduce((sum, outcome) => sum + (alone[index]?.[test]?.[outcome] as number), 0)
        if (speaking.length === 0 || shows(main) < SENSITIVE) continue
        const others =
          odds.reduce((sum, weight, index) => (suspects.includes(index) ? sum : sum + weight * shows(index)), 0) /
          allOdds
        if (others > UNSPECIFIC) continue
        const act = this.actOf[test] as number
        const { goal, minutes } = this.acts[act] as BenchAct
        byAct.set(act, { check: { act, minutes, goal }, cost: this.act(act, NOTHING_OFF).total })
      }
      return [...byAct.values(), { check: mend, cost: this.repair(group, NOTHING_OFF).total }]
        .sort((one, other) => one.cost - other.cost)
        .map(({ check }) => check)
    })
  }

  /** What may stay off while the engine stands on the track. */
  onTrack(off: ReadonlySet<string>): ReadonlySet<string> {
    return [...off].every((id) => optional.has(this.kindOf.get(id) ?? 'body'))
      ? off
      : new Set([...off].filter((id) => optional.has(this.kindOf.get(id) ?? 'body')))
  }
}
