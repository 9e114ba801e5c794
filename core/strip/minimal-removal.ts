import type { EngineDescription, Hazard, Part, Removal, Replaceability, Tool } from '../engine/description-schema'

export interface RemovalOptions {
  /** Parts that are off already. */
  readonly off?: ReadonlySet<string>
  /** Parts that must stay on. */
  readonly on?: ReadonlySet<string>
  /** Parts marked to be left alone that may come off all the same. */
  readonly overruled?: ReadonlySet<string>
  /** Tools on this bench; all when not given. */
  readonly tools?: ReadonlySet<Tool>
}

export interface RemovalPlan {
  /** Parts in an order in which each can come off. */
  readonly order: readonly string[]
  readonly minutes: number
  readonly refitMinutes: number
  /** Chance that at least one of them breaks. */
  readonly risk: number
  /** Minutes, refitting and what a break would cost, in minutes. */
  readonly cost: number
  readonly tools: readonly Tool[]
  readonly hazards: readonly Hazard[]
}

export interface NoWay {
  readonly code: 'left-alone' | 'must-stay' | 'no-tool' | 'does-not-come-off' | 'circle'
  readonly message: string
  /** The part that stands in the way. */
  readonly part: string
}

/** Minutes it costs to have a part again, time at the bench and waiting counted together. Judged, common practice. */
const replacementMinutes: Readonly<Record<Replaceability, number>> = {
  'scrap-box': 5,
  easy: 15,
  order: 60,
  rare: 300,
  none: 1200,
}

/** What taking this part off and putting it back costs, in minutes, its risk counted in. */
export function removalCost(removal: Removal): number {
  return removal.minutes + removal.refitMinutes + removal.risk * replacementMinutes[removal.replacement]
}

type Needs = readonly (readonly string[])[]

/**
 * The cheapest set of parts to take off so that every need of the goal is met: branch and bound over the
 * alternatives, exact. A set counts only if its parts can come off one after the other.
 *
 * @param description the engine
 * @param goal every inner list must have one of its parts off
 * @param options what is off, must stay, may be overruled, and which tools there are
 * @returns the plan, or the part that stands in the way and why
 * @example minimalRemoval(describeConstruction('tank-can'), [['motor']]).minutes // 10.4
 */
export function minimalRemoval(
  description: EngineDescription,
  goal: Needs,
  options: RemovalOptions = {},
): RemovalPlan | NoWay {
  const parts = new Map(description.parts.map((part) => [part.id, part]))
  const search = new Search(parts, options)
  const best = search.find(goal)
  return best ?? explain(parts, goal, search)
}

/**
 * The plan for reaching a place, its parts that must stay on honoured.
 *
 * @example planAccess(describeConstruction('tank-can'), 'motor.terminals').minutes // 3.4
 */
export function planAccess(
  description: EngineDescription,
  accessId: string,
  options: RemovalOptions = {},
): RemovalPlan | NoWay {
  const access = description.accesses.find((entry) => entry.id === accessId)
  if (!access) throw new RangeError(`There is no place “${accessId}” to reach in ${description.name}.`)
  return minimalRemoval(description, access.off, { ...options, on: new Set([...(options.on ?? []), ...access.on]) })
}

export function isNoWay(plan: RemovalPlan | NoWay): plan is NoWay {
  return 'code' in plan
}

class Search {
  private best: { cost: number; chosen: ReadonlySet<string> } | null = null
  private readonly costs = new Map<string, number>()

  constructor(
    private readonly parts: ReadonlyMap<string, Part>,
    private readonly options: RemovalOptions,
  ) {
    for (const part of parts.values()) if (part.removal) this.costs.set(part.id, removalCost(part.removal))
  }

  obstacle(id: string): NoWay | null {
    const part = this.parts.get(id)
    if (!part?.removal)
      return { code: 'does-not-come-off', part: id, message: `${part?.name ?? id} does not come off by itself.` }
    if (this.options.on?.has(id))
      return { code: 'must-stay', part: id, message: `${part.name} has to stay on for this.` }
    if (part.removal.leaveAlone && !this.options.overruled?.has(id))
      return { code: 'left-alone', part: id, message: `${part.name} is better left alone: ${part.removal.leaveAlone}` }
    const missing = part.removal.tools.find(
      (tool) => tool !== 'fingers' && this.options.tools && !this.options.tools.has(tool),
    )
    if (missing)
      return {
        code: 'no-tool',
        part: id,
        message: `${part.name} needs a tool that is not on the bench: ${missing.replaceAll('-', ' ')}.`,
      }
    return null
  }

  isOff(id: string): boolean {
    return this.options.off?.has(id) ?? false
  }

  allowed(id: string): boolean {
    return this.parts.has(id) && this.obstacle(id) === null
  }

  private needsOf(id: string): Needs {
    return this.parts.get(id)?.removal?.needs ?? []
  }

  find(goal: Needs): RemovalPlan | null {
    this.branch(goal, new Set(), new Set(), 0)
    return this.best ? this.planOf(this.best.chosen) : null
  }

  private branch(goal: Needs, chosen: Set<string>, refused: ReadonlySet<string>, cost: number): void {
    if (this.best && cost >= this.best.cost) return
    // Take what leaves no choice; branch on the need with the fewest ways.
    const open: string[][] = []
    for (const group of [...goal, ...[...chosen].flatMap((id) => this.needsOf(id))]) {
      if (group.some((id) => this.isOff(id) || chosen.has(id))) continue
      const ways = group.filter((id) => this.allowed(id) && !refused.has(id))
      if (ways.length === 0) return
      open.push(ways)
    }
    const tightest = open.sort((first, second) => first.length - second.length)[0]
    if (tightest) return this.tryEach(goal, tightest, chosen, refused, cost)
    const stuck = this.stuckGroups(chosen)
    if (stuck.length === 0) {
      this.best = { cost, chosen: new Set(chosen) }
      return
    }
    // Parts hold each other: one of their needs has to be met from outside the circle.
    const outside = [...new Set(stuck.flat())].filter((id) => this.allowed(id) && !refused.has(id) && !chosen.has(id))
    this.tryEach(goal, outside, chosen, refused, cost)
  }

  private tryEach(
    goal: Needs,
    ways: readonly string[],
    chosen: ReadonlySet<string>,
    refused: ReadonlySet<string>,
    cost: number,
  ): void {
    const tried = new Set(refused)
    for (const way of [...ways].sort((first, second) => (this.costs.get(first) ?? 0) - (this.costs.get(second) ?? 0))) {
      this.branch(goal, new Set(chosen).add(way), tried, cost + (this.costs.get(way) ?? 0))
      tried.add(way)
    }
  }

  /** The needs of parts that cannot come off one after the other. */
  private stuckGroups(chosen: ReadonlySet<string>): string[][] {
    const { left } = this.inOrder(chosen)
    return left.flatMap((id) =>
      this.needsOf(id)
        .filter((group) => !group.some((other) => this.isOff(other) || (chosen.has(other) && !left.includes(other))))
        .map((group) => [...group]),
    )
  }

  inOrder(chosen: ReadonlySet<string>): { order: string[]; left: string[] } {
    const order: string[] = []
    const gone = new Set<string>(this.options.off)
    let left = [...chosen]
    for (let took = true; took;) {
      took = false
      for (const id of left) {
        if (!this.needsOf(id).every((group) => group.some((other) => gone.has(other)))) continue
        order.push(id)
        gone.add(id)
        took = true
      }
      left = left.filter((id) => !gone.has(id))
    }
    return { order, left }
  }

  private planOf(chosen: ReadonlySet<string>): RemovalPlan {
    const { order } = this.inOrder(chosen)
    const removals = order.map((id) => this.parts.get(id)?.removal as Removal)
    const sum = (pick: (removal: Removal) => number): number =>
      removals.reduce((total, removal) => total + pick(removal), 0)
    return {
      order,
      minutes: sum((removal) => removal.minutes),
      refitMinutes: sum((removal) => removal.refitMinutes),
      risk: 1 - removals.reduce((safe, removal) => safe * (1 - removal.risk), 1),
      cost: sum(removalCost),
      tools: [...new Set(removals.flatMap((removal) => removal.tools.filter((tool) => tool !== 'fingers')))],
      hazards: [...new Set(removals.flatMap((removal) => removal.hazards))],
    }
  }
}

/** Names the first part on every way that stands in it. */
function explain(parts: ReadonlyMap<string, Part>, goal: Needs, search: Search): NoWay {
  const seen = new Set<string>()
  const visit = (group: readonly string[]): NoWay | null => {
    if (group.some((id) => search.isOff(id))) return null
    let first: NoWay | null = null
    for (const id of group) {
      const found = seen.has(id) ? null : follow(id)
      if (!found && !seen.has(id)) return null
      first ??= found
    }
    return first
  }
  const follow = (id: string): NoWay | null => {
    const obstacle = search.obstacle(id)
    if (obstacle) return obstacle
    seen.add(id)
    for (const group of parts.get(id)?.removal?.needs ?? []) {
      const found = visit(group)
      if (found) return found
    }
    seen.delete(id)
    return null
  }
  for (const group of goal) {
    const found = visit(group)
    if (found) return found
  }
  const part = goal[0]?.[0] ?? ''
  return {
    code: 'circle',
    part,
    message: `${parts.get(part)?.name ?? part} and what holds it hold each other: no order takes them off.`,
  }
}
