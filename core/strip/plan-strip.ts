import type { EngineDescription, Hazard, Part, Removal, Replaceability, Tool } from '../engine/description-schema'
import { isNoWay, minimalRemoval, removalCost, type NoWay, type RemovalOptions } from './minimal-removal'
import { stripGoals, type StripGoal } from './strip-goals'

/** One thing to take off. */
export interface StripStep {
  readonly part: string
  readonly name: string
  readonly kind: Part['kind']
  /** Lid, motor, running gear …: steps of one group follow each other. */
  readonly group: StripGroup
  readonly place: string
  readonly heldBy: string
  readonly minutes: number
  readonly tools: readonly Tool[]
  readonly hazards: readonly Hazard[]
  readonly risk: number
  readonly replacement: Replaceability
  readonly wayBack: string
  /** Goals that are reached once this is off. */
  readonly reaches: readonly string[]
}

export const stripGroups = ['lid', 'wiring', 'motor', 'running-gear', 'chassis'] as const
export type StripGroup = (typeof stripGroups)[number]

export interface StripPlan {
  readonly steps: readonly StripStep[]
  readonly minutes: number
  readonly refitMinutes: number
  /** Chance that at least one thing breaks. */
  readonly risk: number
  /** What may break, the dearest expected loss first. */
  readonly breaks: ReadonlyArray<{
    readonly part: string
    readonly name: string
    readonly chance: number
    readonly replacement: Replaceability
  }>
  /** What is worth having in the drawer before the first screw. */
  readonly orderFirst: readonly string[]
  readonly tools: readonly Tool[]
  readonly hazards: readonly Hazard[]
  /** Leads that are moved or come off. */
  readonly leads: number
  /** Other goals that are met by it at no further price. */
  readonly free: readonly string[]
}

export interface StripOptions extends RemovalOptions {
  /** Goals beside those every engine has: what a fault to be mended wants off. */
  readonly more?: readonly StripGoal[]
  /** Parts in the order somebody wants them off: followed as far as each can come off, with what lies over it just before. */
  readonly order?: readonly string[]
}

/** Why there is no plan, the goal that stands in its own way, and what can be done without it. */
export interface StripRefusal {
  readonly refused: { readonly code: NoWay['code'] | 'unknown' | 'against-each-other'; readonly message: string }
  readonly goal: string | null
  readonly part: string | null
  readonly without: readonly string[]
}

/** More likely to break than this, and not to be had at once: it is ordered before one begins. Judged. */
const WORTH_ORDERING = 0.04

/**
 * The least way to several goals at once: what comes off, in groups that follow each other, with what it takes, what
 * may break, and what else lies open then. Exact over all alternatives; a goal that needs something still on is
 * reached before that comes off.
 *
 * @param goalIds ids of {@link stripGoals}
 * @param options what is off, must stay, may be overruled, and which tools there are
 * @example planStrip(describeConstruction('tank-open'), ['usual.commutator']).minutes // 5
 */
export function planStrip(
  description: EngineDescription,
  goalIds: readonly string[],
  options: StripOptions = {},
): StripPlan | StripRefusal {
  const all = [...(options.more ?? []), ...stripGoals(description)]
  const goals: StripGoal[] = []
  for (const id of goalIds) {
    const goal = all.find((entry) => entry.id === id)
    if (!goal)
      return refuse('unknown', `There is nothing called “${id}” to open ${description.name} for.`, id, null, [])
    goals.push(goal)
  }
  const alone = (goal: StripGoal) => minimalRemoval(description, goal.off, withOn(options, goal.on))
  for (const goal of goals) {
    const plan = alone(goal)
    if (isNoWay(plan)) {
      const others = goals.filter((other) => other !== goal && !isNoWay(alone(other)))
      return refuse(
        plan.code,
        `${goal.words}: ${plan.message}`,
        goal.id,
        plan.part,
        others.map((other) => other.id),
      )
    }
  }
  const chosen = inPhases(description, goals, options)
  if ('refused' in chosen) return chosen
  return describePlan(description, chosen, goals, all, options)
}

export function isRefusedStrip(plan: StripPlan | StripRefusal): plan is StripRefusal {
  return 'refused' in plan
}

const withOn = (options: RemovalOptions, on: readonly string[]): RemovalOptions => ({
  ...options,
  on: new Set([...(options.on ?? []), ...on]),
})

const refuse = (
  code: StripRefusal['refused']['code'],
  message: string,
  goal: string | null,
  part: string | null,
  without: readonly string[],
): StripRefusal => ({ refused: { code, message }, goal, part, without })

/** The parts of the least way; goals that need a part on which another takes off come first. */
function inPhases(
  description: EngineDescription,
  goals: readonly StripGoal[],
  options: RemovalOptions,
): string[][] | StripRefusal {
  const together = minimalRemoval(
    description,
    goals.flatMap((goal) => goal.off),
    options,
  )
  if (isNoWay(together)) return refuse(together.code, together.message, null, together.part, [])
  const taken = new Set(together.order)
  const early = goals.filter((goal) => goal.on.some((part) => taken.has(part) && !options.off?.has(part)))
  if (early.length === 0) return [[...together.order]]
  const first = minimalRemoval(
    description,
    early.flatMap((goal) => goal.off),
    withOn(
      options,
      early.flatMap((goal) => goal.on),
    ),
  )
  if (isNoWay(first)) {
    const words = early.map((goal) => goal.words).join(' and ')
    const rest = goals.filter((goal) => !early.includes(goal)).map((goal) => goal.id)
    return refuse(
      'against-each-other',
      `${words} cannot be done in one opening: ${first.message}`,
      early[0]?.id ?? null,
      first.part,
      rest,
    )
  }
  const later = minimalRemoval(
    description,
    goals.flatMap((goal) => goal.off),
    {
      ...options,
      off: new Set([...(options.off ?? []), ...first.order]),
    },
  )
  return isNoWay(later) ? refuse(later.code, later.message, null, later.part, []) : [[...first.order], [...later.order]]
}

function describePlan(
  description: EngineDescription,
  phases: readonly string[][],
  goals: readonly StripGoal[],
  all: readonly StripGoal[],
  options: StripOptions,
): StripPlan {
  const parts = new Map(description.parts.map((part) => [part.id, part]))
  const groups = groupsOf(description, phases.flat())
  const gone = new Set(options.off ?? [])
  const steps: StripStep[] = []
  const met = (goal: StripGoal): boolean => goal.off.every((group) => group.some((id) => gone.has(id)))
  const before = new Set(all.filter(met).map((goal) => goal.id))
  const reached = new Set(goals.filter(met).map((goal) => goal.id))
  for (const id of phases.flatMap((phase) => groupedOrder(phase, parts, groups, gone, options.order ?? []))) {
    const part = parts.get(id) as Part
    const removal = part.removal as Removal
    gone.add(id)
    const reaches = goals.filter((goal) => !reached.has(goal.id) && met(goal)).map((goal) => goal.id)
    for (const goal of reaches) reached.add(goal)
    const { name, kind, place, heldBy } = part
    const { minutes, tools, hazards, risk, replacement, wayBack } = removal
    const group = groups.get(id) as StripGroup
    steps.push({
      part: id,
      name,
      kind,
      group,
      place,
      heldBy,
      minutes,
      tools,
      hazards,
      risk,
      replacement,
      wayBack,
      reaches,
    })
  }
  const removals = steps.map((step) => parts.get(step.part)?.removal as Removal)
  const breaks = steps
    .filter((step) => step.risk > 0.01)
    .map(({ part, name, risk: chance, replacement }) => ({ part, name, chance, replacement }))
    .sort((one, other) => lossOf(parts, other.part) - lossOf(parts, one.part))
  return {
    steps,
    minutes: sum(removals, (removal) => removal.minutes),
    refitMinutes: sum(removals, (removal) => removal.refitMinutes),
    risk: 1 - removals.reduce((safe, removal) => safe * (1 - removal.risk), 1),
    breaks,
    orderFirst: breaks
      .filter((entry) => entry.chance >= WORTH_ORDERING && ['order', 'rare', 'none'].includes(entry.replacement))
      .map((entry) => entry.part),
    tools: [...new Set(removals.flatMap((removal) => removal.tools.filter((tool) => tool !== 'fingers')))],
    hazards: [...new Set(removals.flatMap((removal) => removal.hazards))],
    leads: steps.filter((step) => step.kind === 'lead').length,
    free: all
      .filter(
        (goal) => met(goal) && !before.has(goal.id) && !reached.has(goal.id) && !goal.on.some((id) => gone.has(id)),
      )
      .filter((goal) => goal.kind !== 'part')
      .map((goal) => goal.id),
  }
}

const sum = (removals: readonly Removal[], pick: (removal: Removal) => number): number =>
  removals.reduce((total, removal) => total + pick(removal), 0)

function lossOf(parts: ReadonlyMap<string, Part>, id: string): number {
  const removal = parts.get(id)?.removal
  return removal ? removalCost(removal) - removal.minutes - removal.refitMinutes : 0
}

const groupOfKind: Readonly<Record<Part['kind'], StripGroup>> = {
  body: 'lid',
  detail: 'lid',
  fastener: 'lid',
  coupling: 'lid',
  chassis: 'chassis',
  weight: 'chassis',
  motor: 'motor',
  'motor-part': 'motor',
  board: 'wiring',
  lead: 'wiring',
  lamp: 'wiring',
  switch: 'wiring',
  pickup: 'running-gear',
  gear: 'running-gear',
  shaft: 'running-gear',
  axle: 'running-gear',
  wheel: 'running-gear',
  tyre: 'running-gear',
  rod: 'running-gear',
}

/** A fastener belongs to what it holds. */
function groupsOf(description: EngineDescription, chosen: readonly string[]): Map<string, StripGroup> {
  const parts = new Map(description.parts.map((part) => [part.id, part]))
  return new Map(
    chosen.map((id) => {
      const part = parts.get(id) as Part
      const held = chosen.find((other) => parts.get(other)?.removal?.needs.some((group) => group.includes(id)))
      const kind = part.kind === 'fastener' && held ? (parts.get(held)?.kind ?? part.kind) : part.kind
      return [id, groupOfKind[kind]] as const
    }),
  )
}

/** An order in which each can come off: as it was wished for, otherwise staying with one group as long as it goes. */
function groupedOrder(
  chosen: readonly string[],
  parts: ReadonlyMap<string, Part>,
  groups: ReadonlyMap<string, StripGroup>,
  off: ReadonlySet<string>,
  wished: readonly string[],
): string[] {
  const gone = new Set(off)
  const left = [...chosen]
  const order: string[] = []
  const missing = (id: string): string[] =>
    (parts.get(id)?.removal?.needs ?? [])
      .filter((needs) => !needs.some((other) => gone.has(other)))
      .map((needs) => needs.find((other) => left.includes(other)) ?? '')
  /** What has to come off now for a part to come off, itself where nothing lies over it. */
  const towards = (id: string, depth = 0): string | undefined => {
    const [over] = missing(id)
    return over === undefined ? id : depth > left.length ? undefined : towards(over, depth + 1)
  }
  let group: StripGroup | undefined
  while (left.length > 0) {
    const free = left.filter((id) => missing(id).length === 0)
    const wish = wished.find((id) => left.includes(id))
    const toWish = wish === undefined ? undefined : towards(wish)
    const next =
      toWish !== undefined && free.includes(toWish) ? toWish : (free.find((id) => groups.get(id) === group) ?? free[0])
    if (next === undefined) break
    group = groups.get(next)
    order.push(next)
    gone.add(next)
    left.splice(left.indexOf(next), 1)
  }
  return order
}
