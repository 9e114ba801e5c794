import { SeededRandom } from '../../bench/casualty/random'
import { STOP_CHANCE } from '../../core/diagnosis/advice/advice'
import { Diagnosis } from '../../core/diagnosis/diagnosis'
import type { Belief } from '../../core/diagnosis/belief/belief'
import type { EngineEvent, SearchHistory, TestFinding } from '../../core/diagnosis/history'
import type { Knowledge } from '../../core/knowledge/knowledge-schema'
import type { EngineDescription } from '../../core/engine/description-schema'
import { describeConstruction } from '../../core/knowledge/constructions'
import { diagnosisKnowledge } from '../../core/knowledge/diagnosis-knowledge'
import { BenchHand } from '../../bench/hand/bench-hand'
import { drawTrueFaults, type TrueFault } from '../../bench/hand/true-faults'

export type Policy = 'advice' | 'checklist' | 'most-probable-first'
export const policies: readonly Policy[] = ['advice', 'checklist', 'most-probable-first']

/** Constructions the casualties are drawn from, some with a decoder fitted. */
export const searched = [
  'open-frame',
  'tender-pickup',
  'split-frame',
  'tank-can',
  'tank-open',
  'articulated',
  'side-brush-bogie',
  'centre-motor',
  'motor-bogie-unit',
  'axle-cup',
  'narrow-gauge',
  'three-rail-single',
  'three-rail-twin',
  'centre-motor+decoder',
  'axle-cup+decoder',
  'tank-can+decoder',
] as const

/** The chain from the rails to the wheels, in the order it is usually taught; then what is looked at besides. */
const checklist = [
  'on-the-track',
  'other-engine',
  'programming-track',
  'bypass',
  'supply-at-wheels',
  'supply-at-pickups',
  'wheels-ohms',
  'rail-ohms',
  'wiring-ohms',
  'supply-at-leads',
  'supply-at-terminals',
  'volts-at-motor',
  'motor-ohms',
  'insulation-ohms',
  'look-under',
  'look-inside',
  'look-at-decoder',
  'motor-by-finger',
  'brushes',
  'commutator',
  'supply-at-brushes',
  'gears-by-finger',
  'rods-off',
  'gauge',
  'haul',
  'body-off',
  'segments',
  'run-warm',
  'loosen',
]

export interface SearchOutcome {
  readonly construction: string
  readonly truth: readonly TrueFault[]
  readonly found: number
  readonly missed: readonly string[]
  /** Bench minutes of acts, dismantling for them, and repairs of what was not wrong. */
  readonly minutes: number
  readonly acts: number
  /** How many things were wrong. */
  readonly wrong: number
  readonly needlessRepairs: number
  readonly steps: number
  /** The last fault left was mended, and was the most suspected then; false where it was never mended. */
  readonly lastOnTop: boolean
  /** Of these minutes, those until the last fault that was mended. */
  readonly minutesToLast: number
  /** Of these minutes, those for repairs of what was not wrong. */
  readonly minutesNeedless: number
  /** What was believed of every listed group at every step, and whether it was so: for the reliability curve. */
  readonly beliefs: ReadonlyArray<readonly [chance: number, so: boolean, group: string]>
  readonly updateMilliseconds: readonly number[]
  /** Everything that was seen and done, for whoever asks why. */
  readonly history: SearchHistory
}

const MOST_STEPS = 90
const MOST_FAULTS = 7
/** From here on a policy that does not weigh tests against repairs goes ahead and mends. */
const SURE = 0.85

const ready = new Map<string, Diagnosis>()

export function diagnosisFor(
  construction: string,
  knowledge: Knowledge = diagnosisKnowledge,
  key = 'shipped',
): Diagnosis {
  const name = `${construction}/${key}`
  const known = ready.get(name)
  if (known) return known
  if (ready.size > 2) ready.clear()
  // A machine with nothing wrong is none of the casualties: somebody complained of each.
  const made = new Diagnosis(described(construction), knowledge, { circumstances: ['complained-of'] })
  ready.set(name, made)
  return made
}

/** The same machine without its decoder. */
export function bareConstruction(construction: string): EngineDescription {
  return described(construction.split('+')[0] as string)
}

function described(construction: string): EngineDescription {
  const [id = '', decoder] = construction.split('+')
  return describeConstruction(id, decoder ? 'dcc' : 'dc')
}

/**
 * One casualty from its arrival to the end of the search, by a policy. All policies share acts, repairs, retests
 * and the rule to stop; only what is done next differs.
 */
export function searchCasualty(
  seed: number,
  policy: Policy,
  construction: string,
  diagnosis: Diagnosis,
): SearchOutcome {
  const random = new SeededRandom(seed)
  const { engine, costs } = diagnosis
  const truth = drawTrueFaults(engine.description, engine.places, random, MOST_FAULTS)
  const hand = new BenchHand(engine.description, truth, seed, bareConstruction(construction))
  const findings: TestFinding[] = []
  const events: EngineEvent[] = []
  const beliefs: Array<SearchOutcome['beliefs'][number]> = []
  const updateMilliseconds: number[] = []
  let off: ReadonlySet<string> = new Set()
  let [state, minutes, acts, needless, steps] = [0, 0, 0, 0, 0]
  let lastOnTop = false
  let [minutesToLast, minutesNeedless] = [0, 0]
  /** By state and act: made, or tried in vain. */
  const made = new Set<string>()
  const refused = new Set<string>()

  const make = (id: string): void => {
    const index = costs.acts.findIndex((act) => act.id === id)
    const act = costs.acts[index] as (typeof costs.acts)[number]
    const price = costs.act(index, off)
    minutes += price.minutes + act.minutes
    acts++
    off = price.offAfter
    made.add(`${state}:${id}`)
    made.add(id)
    let noted = 0
    for (const observation of act.observations) {
      const test = engine.tests[observation] as (typeof engine.tests)[number]
      const outcome = hand.make(test)
      if (outcome === null) continue
      noted++
      findings.push({ id: `f${findings.length}`, test: test.id, outcome, state })
    }
    if (noted === 0) refused.add(id)
  }
  const repair = (suspectId: string, belief: Belief): void => {
    const group = costs.groupOf[engine.indexOfSuspect(suspectId)] as number
    const { suspect } = costs.groups[group] as (typeof costs.groups)[number]
    const price = costs.repair(group, off)
    const wasLast = hand.left.length === 1
    const mended = hand.mend(suspect.remedy.id, suspect.place.id, 0.97)
    if (mended.length === 0) {
      minutes += price.minutes + suspect.remedy.minutes
      minutesNeedless += price.minutes + suspect.remedy.minutes
      needless++
    } else {
      minutesToLast = minutes
      if (wasLast) lastOnTop = ranks(belief, group, diagnosis) === 0
    }
    off = price.offAfter
    state++
    refused.clear()
    events.push({ kind: 'repaired', suspect: suspectId, state })
  }

  for (; steps < MOST_STEPS; steps++) {
    const started = performance.now()
    const belief = diagnosis.believe({ findings: [...findings], events: [...events] })
    const next = nextStep(policy, diagnosis, belief, { off: [...off], refused: [...refused] }, made, state)
    updateMilliseconds.push(performance.now() - started)
    if (steps > 0) noteBeliefs(belief, diagnosis, hand, beliefs)
    if (next.kind === 'done') break
    if (next.kind === 'repair') for (const suspect of [next.suspect, ...next.also]) repair(suspect, belief)
    else make(next.act)
  }
  return {
    construction,
    truth,
    wrong: truth.length,
    found: truth.length - hand.left.length,
    missed: hand.left.map((fault) => `${fault.name} @ ${fault.place.id}`),
    minutes,
    minutesToLast,
    minutesNeedless,
    acts,
    needlessRepairs: needless,
    steps,
    lastOnTop,
    beliefs,
    updateMilliseconds,
    history: { findings, events },
  }
}

type Step =
  | { readonly kind: 'act'; readonly act: string }
  | { readonly kind: 'repair'; readonly suspect: string; readonly also: readonly string[] }
  | { readonly kind: 'done' }

function nextStep(
  policy: Policy,
  diagnosis: Diagnosis,
  belief: Belief,
  bench: { readonly off: readonly string[]; readonly refused: readonly string[] },
  made: ReadonlySet<string>,
  state: number,
): Step {
  const choices = diagnosis.choose(belief, bench)
  const { engine, costs, adviser } = diagnosis
  if (policy === 'advice') return adviser.advise(belief, choices, bench)
  const off = new Set(bench.off)
  const chances = belief.groupChances(costs)
  const groups = costs.groups
    .map((group, index) => ({ index, chance: chances[index] as number, group }))
    .filter(({ group }) => !group.suspects.includes(engine.unlisted))
    .sort((first, second) => second.chance - first.chance)
  const [top] = groups
  const mend = ({ group }: (typeof groups)[number]): Step => ({
    kind: 'repair',
    suspect: likeliestOf(belief, group.suspects, engine.suspects),
    also: [],
  })
  if (top && top.chance >= SURE) return mend(top)
  const trial = costs.acts[adviser.trial ?? 0]?.id ?? ''
  if (adviser.leftToNotice(belief) <= STOP_CHANCE)
    return made.has(`${state}:${trial}`) ? { kind: 'done' } : { kind: 'act', act: trial }
  const open = (id: string, again: boolean): boolean =>
    !made.has(again ? `${state}:${id}` : id) &&
    !bench.refused.includes(id) &&
    costs.act(
      costs.acts.findIndex((act) => act.id === id),
      off,
    ).barred === null
  if (policy === 'checklist') {
    for (const id of checklist) {
      const act = costs.acts.find((entry) => entry.id.split('.')[0] === id && open(entry.id, id === 'on-the-track'))
      if (act) return { kind: 'act', act: act.id }
    }
  } else {
    for (const entry of groups) {
      if (entry.chance < 0.002) break
      const check = costs.checks[entry.index]?.find(({ act }) => act !== null && open(costs.acts[act]?.id ?? '', true))
      if (check?.act !== undefined && check.act !== null) return { kind: 'act', act: costs.acts[check.act]?.id ?? '' }
      if (entry.chance > 0.3) return mend(entry)
    }
  }
  if (top && top.chance > 0.3) return mend(top)
  return made.has(`${state}:${trial}`) ? { kind: 'done' } : { kind: 'act', act: trial }
}

function likeliestOf(belief: Belief, suspects: readonly number[], all: Diagnosis['engine']['suspects']): string {
  const { marginals } = belief
  return (
    all[
      suspects.reduce(
        (best, suspect) => ((marginals[suspect] as number) > (marginals[best] as number) ? suspect : best),
        suspects[0] as number,
      )
    ]?.id ?? ''
  )
}

function ranks(belief: Belief, group: number, { costs }: Diagnosis): number {
  const chances = belief.groupChances(costs)
  return chances.filter((chance, index) => index !== group && chance > (chances[group] as number) + 1e-9).length
}

function noteBeliefs(
  belief: Belief,
  diagnosis: Diagnosis,
  hand: BenchHand,
  beliefs: Array<SearchOutcome['beliefs'][number]>,
): void {
  // What was seen is told, not believed.
  const given = new Set(belief.given)
  const chances = belief.groupChances(diagnosis.costs)
  for (const [index, { id, suspect, suspects }] of diagnosis.costs.groups.entries()) {
    const chance = chances[index] as number
    if (chance < 0.02 || suspects.some((entry) => given.has(entry))) continue
    beliefs.push([chance, hand.left.some((fault) => hand.mends(fault, suspect.remedy.id, suspect.place.id)), id])
  }
}
