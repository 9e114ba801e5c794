import { SeededRandom } from '../../bench/casualty/random'
import { STOP_CHANCE } from '../../core/diagnosis/advice'
import { Diagnosis } from '../../core/diagnosis/diagnosis'
import type { Belief } from '../../core/diagnosis/belief'
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
  'track-run',
  'dcc-run',
  'dc-run',
  'bypass-run',
  'program-read',
  'cv29-read',
  'address-read',
  'track-current',
  'track-rocked',
  'lamp-on-track',
  'wheels-run',
  'pickups-run',
  'leads-run',
  'terminals-run',
  'brushes-run',
  'wheel-continuity',
  'wheel-insulation-ohms',
  'rail-ohms',
  'lead-ohms',
  'contacts-ohms',
  'linkage-ohms',
  'choke-ohms',
  'decoder-lead-ohms',
  'sequence-ohms',
  'sequence-step',
  'suppressor-lift',
  'separation-ohms',
  'insulation-ohms',
  'motor-ohms',
  'field-ohms',
  'coil-ohms',
  'horn-test',
  'decoder-look',
  'armature-feel',
  'roll',
  'direction',
  'smell',
  'turn-ohms',
  'commutator-look',
  'brushes-look',
  'springs-look',
  'magnet-pull',
  'end-play',
  'bearing-play',
  'gears-look',
  'noise',
  'wheels-turn',
  'truck-turns',
  'treads-look',
  'contacts-look',
  'linkage-look',
  'leads-tug',
  'joint-look',
  'worm-twist',
  'rods-watch',
  'quartering-look',
  'rods-look',
  'back-to-back',
  'tyres-look',
  'haul',
  'lamp-ohms',
  'both-ways',
  'light-speed',
  'segment-ohms',
]

export interface SearchOutcome {
  readonly construction: string
  readonly truth: readonly TrueFault[]
  readonly found: number
  readonly missed: readonly string[]
  /** Bench minutes of tests, dismantling for them, and repairs of what was not wrong. */
  readonly minutes: number
  readonly tests: number
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
 * One casualty from its arrival to the end of the search, by a policy. All policies share tests, repairs, retests
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
  const truth = drawTrueFaults(engine.description, engine.places, random)
  const hand = new BenchHand(engine.description, truth, seed, bareConstruction(construction))
  const findings: TestFinding[] = []
  const events: EngineEvent[] = []
  const beliefs: Array<SearchOutcome['beliefs'][number]> = []
  const updateMilliseconds: number[] = []
  let off: ReadonlySet<string> = new Set()
  let [state, minutes, tests, needless, steps] = [0, 0, 0, 0, 0]
  let lastOnTop = false
  let [minutesToLast, minutesNeedless] = [0, 0]
  const made = new Set<string>()
  /** Could not be done in this state. */
  const refused = new Set<string>()

  const make = (index: number, counted: boolean): void => {
    const test = engine.tests[index] as (typeof engine.tests)[number]
    const price = costs.test(index, off)
    if (counted) {
      minutes += price.minutes + test.test.minutes
      tests++
    }
    off = price.offAfter
    made.add(`${state}:${test.id}`)
    made.add(test.id)
    const outcome = hand.make(test)
    if (outcome === null) refused.add(test.id)
    else findings.push({ id: `f${findings.length}`, test: test.id, outcome, state })
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
    const belief = diagnosis.believe({ findings, events: [...events] })
    const next = nextStep(policy, diagnosis, belief, { off: [...off], refused: [...refused] }, made, state)
    updateMilliseconds.push(performance.now() - started)
    if (steps > 0 && steps % 3 === 0) noteBeliefs(belief, diagnosis, hand, beliefs)
    if (next.kind === 'done') break
    if (next.kind === 'prove') for (const test of next.tests) make(engine.indexOfTest(test), false)
    else if (next.kind === 'repair') repair(next.suspect, belief)
    else make(engine.indexOfTest(next.test), true)
  }
  return {
    construction,
    truth,
    found: truth.length - hand.left.length,
    missed: hand.left.map((fault) => `${fault.name} @ ${fault.place.id}`),
    minutes,
    minutesToLast,
    minutesNeedless,
    tests,
    needlessRepairs: needless,
    steps,
    lastOnTop,
    beliefs,
    updateMilliseconds,
    history: { findings, events },
  }
}

type Step =
  | { readonly kind: 'test'; readonly test: string }
  | { readonly kind: 'repair'; readonly suspect: string }
  | { readonly kind: 'prove'; readonly tests: readonly string[] }
  | { readonly kind: 'done' }

function nextStep(
  policy: Policy,
  diagnosis: Diagnosis,
  belief: Belief,
  bench: { readonly off: readonly string[]; readonly refused: readonly string[] },
  made: ReadonlySet<string>,
  state: number,
): Step {
  if (policy === 'advice') return diagnosis.adviser.advise(belief, diagnosis.choose(belief, bench), bench)
  const { engine, costs } = diagnosis
  const off = new Set(bench.off)
  const groups = costs.groups
    .map((group, index) => ({ index, chance: diagnosis.groupChance(belief, index), group }))
    .sort((first, second) => second.chance - first.chance)
  const [top] = groups
  if (top && top.chance >= SURE)
    return { kind: 'repair', suspect: likeliestOf(belief, top.group.suspects, engine.suspects) }
  if (1 - belief.nothingHidden <= STOP_CHANCE) return diagnosis.adviser.prove(belief, bench.refused) ?? { kind: 'done' }
  if (policy === 'checklist') {
    for (const id of checklist) {
      const again = id.startsWith('track-') || id === 'dcc-run' || id === 'dc-run'
      const test = engine.tests.find(
        (entry) =>
          entry.test.id === id &&
          !made.has(again ? `${state}:${entry.id}` : entry.id) &&
          costs.test(engine.indexOfTest(entry.id), off).barred === null &&
          (!entry.test.needsRunning || belief.runsNow),
      )
      if (test) return { kind: 'test', test: test.id }
    }
  } else {
    for (const { index, group, chance } of groups) {
      if (chance < 0.002) break
      const check = costs.checks[index]
      const test = check?.test === null || check === undefined ? undefined : engine.tests[check.test]
      if (test && !made.has(`${state}:${test.id}`)) return { kind: 'test', test: test.id }
      if (chance > 0.3) return { kind: 'repair', suspect: likeliestOf(belief, group.suspects, engine.suspects) }
    }
  }
  if (top && top.chance > 0.3)
    return { kind: 'repair', suspect: likeliestOf(belief, top.group.suspects, engine.suspects) }
  return diagnosis.adviser.prove(belief, bench.refused) ?? { kind: 'done' }
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

function ranks(belief: Belief, group: number, diagnosis: Diagnosis): number {
  const mine = diagnosis.groupChance(belief, group)
  return diagnosis.costs.groups.filter(
    (_, index) => index !== group && diagnosis.groupChance(belief, index) > mine + 1e-9,
  ).length
}

function noteBeliefs(
  belief: Belief,
  diagnosis: Diagnosis,
  hand: BenchHand,
  beliefs: Array<SearchOutcome['beliefs'][number]>,
): void {
  for (const [index, { id, suspect }] of diagnosis.costs.groups.entries()) {
    const chance = diagnosis.groupChance(belief, index)
    if (chance < 0.02) continue
    beliefs.push([chance, hand.left.some((fault) => hand.mends(fault, suspect.remedy.id, suspect.place.id)), id])
  }
}
