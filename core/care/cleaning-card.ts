import type { EngineDescription } from '../engine/description-schema'
import { inSentence } from '../engine/name-in-sentence'
import { careKnowledge } from '../knowledge/care/care-knowledge'
import type { Agent, CareKnowledge, Soil } from '../knowledge/care/care-schema'
import { schools as everySchool } from '../knowledge/schools'
import type { ChosenSchools, School } from '../knowledge/schools-of-practice'
import { cleaningGroups, type CleaningGroup } from './cleaning-groups'
import { judgeWay, type JudgedWay, type Way } from './judge-way'
import weights from '../knowledge/care/weights.json'

/** What a group is dirty with. */
export interface GroupSoil {
  readonly group: string
  readonly soil: string
}

/** A way taken by the bench’s own word: another of the good ones, or one that is never taken. */
export interface ChosenWay extends Way {
  readonly step: string
  /** Why, where a rule forbids it; empty where none does. */
  readonly word: string
}

/** The shop’s own times for a soil on a subject. */
export interface OwnMinutes {
  readonly subject: string
  readonly soil: string
  /** Median, min a piece. */
  readonly perPiece: number
  readonly count: number
}

export interface CardOptions {
  /** Classes of agents, and of baths, that stand on the shelf; everything where it is left out. */
  readonly shelf?: readonly string[] | undefined
  readonly chosen?: ChosenSchools | undefined
  readonly ways?: readonly ChosenWay[] | undefined
  readonly own?: readonly OwnMinutes[] | undefined
  /** What is off the engine; a part that is on is not bathed. Null where that is not asked. */
  readonly off?: ReadonlySet<string> | null | undefined
  readonly knowledge?: CareKnowledge | undefined
  readonly schools?: readonly School[] | undefined
}

/** A way with what it takes. */
export interface OfferedWay extends JudgedWay {
  readonly words: string
  readonly minutes: number
  /** Place among the usual ways: 0 is the most usual. */
  readonly rank: number
}

/** One thing to clean of one soil. */
export interface CleaningStep {
  readonly id: string
  readonly group: CleaningGroup
  readonly soil: Soil
  /** How it is done; null where nothing that is here may be taken. */
  readonly way: OfferedWay | null
  /** Taken against a rule, by this word. */
  readonly overruled: string
  /** Until power may be put on. */
  readonly driesMinutes: number
  /** Own times behind the minutes. */
  readonly ownTimes: number
  readonly cautions: readonly string[]
  readonly lookAfter: readonly string[]
  /** Other ways that may be taken, best first. */
  readonly others: readonly OfferedWay[]
  /** What one might reach for and never takes, with its reason. */
  readonly never: readonly OfferedWay[]
  /** What would do better and does not stand on the shelf. */
  readonly missing: readonly string[]
}

export interface CleaningCard {
  readonly steps: readonly CleaningStep[]
  /** Bottles it takes. */
  readonly agents: readonly Agent[]
  readonly minutes: number
  /** The longest drying of all steps: no power before. */
  readonly driesMinutes: number
}

const subjectOrder = [
  'everything',
  'body',
  'frame',
  'wiring',
  'gears-plastic',
  'gears-metal',
  'rods',
  'contacts',
  'switch-contacts',
  'motor-inside',
  'motor-closed',
  'commutator',
  'brushes',
  'motor-bearings',
  'live-bearings',
  'axle-bearings',
  'axle-boxes',
  'tyres',
  'treads',
  'wheel-backs',
]
/** More bottles than this are not weighed in every combination: the usual ways decide then. */
const MOST_WEIGHED = 10

/**
 * The cleaning card of this engine: for everything said to be dirty the agent, the tool and the minutes, from what
 * stands on the shelf, in as few bottles as is sensible, in the order of the work. The most sensitive material decides;
 * what is never taken stands beside it with its reason.
 *
 * @throws Error when a group or a soil is not known
 * @example cleaningCard(describeConstruction('tank-can'), [{ group: cleaningGroups(describeConstruction('tank-can'))[0].id, soil: 'dust' }]).steps.length > 0 // true
 */
export function cleaningCard(
  description: EngineDescription,
  soils: readonly GroupSoil[],
  options: CardOptions = {},
): CleaningCard {
  const { knowledge = careKnowledge, schools = everySchool, chosen = {}, ways = [], off = null } = options
  const groups = new Map(cleaningGroups(description).map((group) => [group.id, group]))
  const practice = { knowledge, schools, chosen }
  const tasks = soils.map(({ group: groupId, soil: soilId }) => {
    const group = groups.get(groupId)
    const soil = knowledge.soils.find((row) => row.id === soilId)
    if (!group) throw new Error(`This engine has no “${groupId}” to clean.`)
    if (!soil) throw new Error(`“${soilId}” is no soil that is known.`)
    const rows = knowledge.ways.filter((row) => row.soil === soilId && row.subjects.includes(group.subject))
    const known = rows.flatMap((row) => row.ways)
    const preferred = rows.find((row) => row.firstPreferred)?.ways[0]
    const possible = known.filter((way) => canBeDone(description, group, way, knowledge, off))
    const offered = possible.map((way, rank) => offer(group, soil, judgeWay(group, way, practice), rank, options))
    const allowed = offered.filter((way) => way.level !== 'never')
    const here = allowed.filter((way) => isHere(way, options.shelf, knowledge))
    const first = here.filter((way) => way.agent === preferred?.agent && way.method === preferred.method)
    return {
      id: `${groupId} ${soilId}`,
      group,
      soil,
      offered,
      allowed,
      here,
      usual: first.length > 0 ? first : here,
    }
  })
  const bottles = fewestBottles(tasks, knowledge)
  const unordered = tasks.map((task): CleaningStep => {
    const chosenWay = ways.filter((way) => way.step === task.id).at(-1)
    const own = chosenWay && offer(task.group, task.soil, judgeWay(task.group, chosenWay, practice), 0, options)
    const mayTake = own && (own.level !== 'never' || (chosenWay?.word ?? '').trim() !== '')
    const way = mayTake ? own : cheapest(task.usual, bottles, knowledge)
    return stepOf(task, way, mayTake && own.level === 'never' ? (chosenWay?.word ?? '') : '', knowledge, options)
  })

  const steps = [...unordered].sort(inOrder)
  const taken = new Set(steps.flatMap((step) => step.way?.agent ?? []))
  return {
    steps,
    agents: knowledge.agents.filter((agent) => taken.has(agent.id)),
    minutes: steps.reduce((sum, step) => sum + (step.way?.minutes ?? 0), 0),
    driesMinutes: Math.max(0, ...steps.map((step) => step.driesMinutes)),
  }
}

interface Task {
  readonly id: string
  readonly group: CleaningGroup
  readonly soil: Soil
  readonly offered: readonly OfferedWay[]
  readonly allowed: readonly OfferedWay[]
  readonly here: readonly OfferedWay[]
  /** Of these one is taken where nobody says otherwise. */
  readonly usual: readonly OfferedWay[]
}

/** Wheels that the motor does not turn are not cleaned turning, and what is still on is not bathed. */
function canBeDone(
  description: EngineDescription,
  group: CleaningGroup,
  way: Way,
  knowledge: CareKnowledge,
  off: ReadonlySet<string> | null,
): boolean {
  const manner = knowledge.methods.find((method) => method.id === way.method)?.manner
  // Turning on a pad wants the machine together.
  if (manner === 'power') return group.driven === true && !(off !== null && off.size > 0)
  if (manner !== 'bath' || off === null) return true
  const removable = description.parts.filter((part) => part.removal !== null && group.parts.includes(part.id))
  return removable.length > 0 && removable.every((part) => off.has(part.id))
}

function isHere(way: Way, shelf: readonly string[] | undefined, knowledge: CareKnowledge): boolean {
  if (!shelf) return true
  const agent = knowledge.agents.find((row) => row.id === way.agent)
  const bottle = !agent || agent.always || shelf.includes(agent.id)
  return bottle && (way.method !== 'ultrasonic' || shelf.includes('ultrasonic'))
}

function offer(
  group: CleaningGroup,
  soil: Soil,
  way: JudgedWay,
  rank: number,
  { knowledge = careKnowledge, own = [] }: CardOptions,
): OfferedWay {
  const method = knowledge.methods.find((row) => row.id === way.method)
  const agent = knowledge.agents.find((row) => row.id === way.agent)
  const times = own.find((row) => row.subject === group.subject && row.soil === soil.id)
  // Own times are of the usual way; each other way keeps its share of it.
  const shipped = wheels.has(group.subject) ? soil.minutes : soil.minutesElsewhere
  const perPiece = times
    ? (weights.shippedTimes * shipped + times.count * times.perPiece) / (weights.shippedTimes + times.count)
    : shipped
  const minutes = weights.setUpMinutes + perPiece * (method?.factor ?? 1) * group.pieces
  return { ...way, rank, minutes, words: [agent?.words, method?.words ?? way.method].filter(Boolean).join(', ') }
}

const costOf = (way: OfferedWay): number =>
  way.minutes + (way.level === 'care' ? weights.careMinutes : 0) + way.rank * weights.usualOrderMinutes
/** Counted by the wheel set. */
const wheels: ReadonlySet<string> = new Set(['treads', 'wheel-backs'])

function cheapest(
  ways: readonly OfferedWay[],
  bottles: ReadonlySet<string>,
  knowledge: CareKnowledge,
): OfferedWay | null {
  const free = ways.filter(
    (way) =>
      way.agent === null ||
      bottles.has(way.agent) ||
      knowledge.agents.some((row) => row.id === way.agent && row.always),
  )
  return [...free].sort((one, other) => costOf(one) - costOf(other))[0] ?? null
}

/**
 * The bottles to open: of every combination the one with the least minutes, care and opening together. Exact, since
 * few agents are in play.
 */
function fewestBottles(tasks: readonly Task[], knowledge: CareKnowledge): ReadonlySet<string> {
  const always = new Set(knowledge.agents.filter((agent) => agent.always).map((agent) => agent.id))
  const inPlay = [...new Set(tasks.flatMap((task) => task.usual.flatMap((way) => way.agent ?? [])))]
    .filter((agent) => !always.has(agent))
    .slice(0, MOST_WEIGHED)
  // By task and bottle the least cost of a way that needs no other; what needs none stands apart.
  const without = tasks.map((task) => least(task.usual.filter((way) => way.agent === null || always.has(way.agent))))
  const byBottle = inPlay.map((agent) => tasks.map((task) => least(task.usual.filter((way) => way.agent === agent))))
  let best = { cost: Infinity, mask: 0 }
  for (let mask = 0; mask < 1 << inPlay.length; mask++) {
    let cost = 0
    for (const [index, task] of tasks.entries()) {
      let cheapestHere = without[index] as number
      for (let bottle = 0; bottle < inPlay.length; bottle++)
        if (mask & (1 << bottle)) cheapestHere = Math.min(cheapestHere, byBottle[bottle]?.[index] ?? Infinity)
      // What cannot be cleaned with these bottles is dear, but not forbidden: it may not be cleanable at all.
      cost += Math.min(cheapestHere, task.usual.length > 0 ? weights.leftDirtyMinutes : 0)
    }
    for (let bottle = 0; bottle < inPlay.length; bottle++) if (mask & (1 << bottle)) cost += weights.bottleMinutes
    if (cost < best.cost - 1e-9) best = { cost, mask }
  }
  return new Set(inPlay.filter((_, bottle) => best.mask & (1 << bottle)))
}

const least = (ways: readonly OfferedWay[]): number => Math.min(Infinity, ...ways.map(costOf))

function stepOf(
  task: Task,
  way: OfferedWay | null,
  overruled: string,
  knowledge: CareKnowledge,
  options: CardOptions,
): CleaningStep {
  const agent = knowledge.agents.find((row) => row.id === way?.agent)
  const method = knowledge.methods.find((row) => row.id === way?.method)
  const times = options.own?.find((row) => row.subject === task.group.subject && row.soil === task.soil.id)
  const better = task.allowed.filter(
    (other) => !isHere(other, options.shelf, knowledge) && (!way || costOf(other) < costOf(way) - weights.worthNaming),
  )
  const missing = better.flatMap((other) => knowledge.agents.find((row) => row.id === other.agent)?.words ?? [])
  const rusts = task.group.wet.some((material) => ['steel', 'ferrite', 'alnico'].includes(material))
  const rust = agent?.leavesWater && rusts ? 'Dry it at once: it rusts.' : ''
  const lookAfter = [
    method?.lookAfter ?? '',
    task.group.subject === 'commutator' ? 'The gaps: with wood, no metal.' : '',
    task.soil.id === 'blackening' ? 'It must carry now: back to Wheel by wheel.' : '',
  ].filter(Boolean)
  return {
    id: task.id,
    group: task.group,
    soil: task.soil,
    way,
    overruled,
    driesMinutes: agent?.driesMinutes ?? 0,
    ownTimes: times?.count ?? 0,
    cautions: [...new Set([agent?.caution ?? '', method?.caution ?? '', rust].filter(Boolean))],
    lookAfter,
    others: [...task.here.filter((other) => other.agent !== way?.agent || other.method !== way?.method)].sort(
      (one, other) => costOf(one) - costOf(other),
    ),
    never: task.offered.filter((other) => other.level === 'never'),
    missing: [...new Set(missing)],
  }
}

/** Dust, fibres, old grease; then surface by surface, treads and backs last. */
function inOrder(one: CleaningStep, other: CleaningStep): number {
  const place = ({ soil, group }: CleaningStep): number => soil.stage * 100 + subjectOrder.indexOf(group.subject)
  const late = (step: CleaningStep): number =>
    ['treads', 'wheel-backs'].includes(step.group.subject) && step.soil.stage > 1 ? 1000 : 0
  return place(one) + late(one) - place(other) - late(other)
}

/** Why a way is never taken here, in a sentence with what is made of what. */
export function neverInWords(way: JudgedWay): string {
  const reasons = way.because.filter((entry) => entry.level === 'never')
  const made = [...new Set(reasons.flatMap((entry) => entry.material ?? []))].map((material) =>
    material.replaceAll('-', ' '),
  )
  const [first] = reasons
  if (!first) return ''
  return made.length > 0 ? `${inMaterial(made)}: ${inSentence(first.why)}` : first.why
}
const inMaterial = (made: readonly string[]): string => {
  const words = made.join(', ')
  return words.charAt(0).toUpperCase() + words.slice(1)
}
