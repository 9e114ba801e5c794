import type { Equipment } from '../../knowledge/knowledge-schema'
import type { BenchAct } from '../acts/acts-of'
import type { BenchCosts, WayIn } from '../acts/bench-costs'
import type { BenchTest } from '../places/bench-tests'
import { drawn, type Belief } from '../belief/belief'
import type { CircuitRow } from '../circuit/circuit-outcomes'
import { ATTENTION_MINUTES, type Worlds } from './worlds'

/** What may be noted at an act, and how much hangs on it. */
export interface Question {
  readonly test: number
  /** Chance of each outcome. */
  readonly outcomes: readonly number[]
  /** How far the answer hangs on what is wrong, in nats: mutual information of outcome and set. */
  readonly says: number
}

export interface ActChoice {
  readonly act: number
  /** Minutes it is expected to save, its own taken off. */
  readonly value: number
  /** With the way there and back, and what a breakage would cost, min. */
  readonly cost: number
  readonly way: WayIn
  readonly offAfter: ReadonlySet<string>
  /** Those worth asking first. */
  readonly questions: readonly Question[]
}

export interface Withheld {
  readonly test: number
  readonly why: string
}

/** So many likely bundles of what may be noted stand for all of them. */
const BUNDLES = 10
/** All answers together have to say so much, in nats. */
const LEAST_TOLD = 0.06
/** Below this an answer is as good as certain, or has nothing to do with what is wrong. */
const SAYS_NOTHING = 0.012

/** Which observations can be made now, and why the others cannot. */
export function askable(
  belief: Belief,
  costs: BenchCosts,
  runs: boolean,
  options: {
    readonly off: ReadonlySet<string>
    readonly refused: ReadonlySet<string>
    readonly equipment: ReadonlySet<Equipment>
  },
): { readonly tests: ReadonlySet<number>; readonly withheld: readonly Withheld[] } {
  const { engine } = belief
  const tests = new Set<number>()
  const withheld: Withheld[] = []
  for (const [index, known] of engine.tests.entries()) {
    const { test } = known
    if (stillSeen(belief, index)) continue
    const missing = test.equipment.find((piece) => !options.equipment.has(piece))
    const act = costs.actOf[index] as number
    const price = costs.act(act, options.off)
    const name = (costs.acts[act] as BenchAct).id
    if (options.refused.has(known.id) || options.refused.has(name))
      withheld.push({ test: index, why: 'It was refused.' })
    else if (missing) withheld.push({ test: index, why: `There is no ${missing.replaceAll('-', ' ')} on the bench.` })
    else if (test.needsRunning && !runs) withheld.push({ test: index, why: 'It does not run yet.' })
    else if (price.barred !== null) withheld.push({ test: index, why: price.barred })
    else tests.add(index)
  }
  return { tests, withheld }
}

/** What was noted of parts nobody has touched since stays noted; a run is another after every repair. */
function stillSeen(belief: Belief, index: number): boolean {
  const { engine, history, seenHere, state } = belief
  const known = engine.tests[index] as BenchTest
  const made = seenHere.filter(({ test }) => test === known.id)
  if (made.some((finding) => finding.state === state)) return true
  if (made.length === 0 || runsAnew(known)) return false
  const last = Math.max(...made.map((finding) => finding.state))
  return !history.events.some(
    (event) =>
      event.kind === 'repaired' &&
      event.state > last &&
      concerns(
        known,
        (engine.suspects[engine.indexOfSuspect(event.suspect)] as (typeof engine.suspects)[number]).place,
      ),
  )
}

/** Judged while it runs, or read from a supply. */
function runsAnew({ test }: BenchTest): boolean {
  return (
    test.needsRunning || !['signs', 'component-ohms', 'wheel-continuity', 'programming'].includes(test.reading.kind)
  )
}

function concerns({ place }: BenchTest, repaired: BenchTest['place']): boolean {
  return (
    place.id === repaired.id ||
    place.role === 'engine' ||
    (place.motor !== null && place.motor === repaired.motor) ||
    (place.truck !== null && place.truck === repaired.truck)
  )
}

/**
 * Every act with the minutes it is expected to save: some likely bundles of what would be noted are thought through,
 * and what would then be left to do is set against what is left now.
 *
 * @param worlds the belief
 * @param tests that can be made now
 * @param off what is off
 */
export function valueActs(worlds: Worlds, tests: ReadonlySet<number>, off: ReadonlySet<string>): ActChoice[] {
  const { costs, weights } = worlds
  const now = worlds.remaining(weights, off)
  return costs.acts.flatMap(({ observations }, act): ActChoice[] => {
    const possible = observations.filter((test) => tests.has(test))
    if (possible.length === 0) return []
    const price = costs.act(act, off)
    const questions = possible
      .map((test) => questionOf(worlds, test))
      .sort((one, other) => other.says - one.says || one.test - other.test)
    const asked = questions.filter(({ says }) => says > SAYS_NOTHING)
    // An act at which next to nothing tells is not thought through.
    const telling = asked.reduce((sum, { says }) => sum + says, 0)
    const after = telling < LEAST_TOLD ? now : expectedAfter(worlds, asked, price.offAfter)
    return [
      {
        act,
        value: now - after - price.total - ATTENTION_MINUTES,
        cost: price.total,
        way: price,
        offAfter: price.offAfter,
        questions,
      },
    ]
  })
}

function questionOf(worlds: Worlds, test: number): Question {
  const chances = worlds.chances(test)
  const count = chances.length / worlds.worlds.length
  const outcomes = new Array<number>(count).fill(0)
  let within = 0
  for (let world = 0; world < worlds.worlds.length; world++) {
    const weight = worlds.weights[world] as number
    for (let outcome = 0; outcome < count; outcome++) {
      const chance = chances[world * count + outcome] as number
      outcomes[outcome] = (outcomes[outcome] as number) + weight * chance
      if (chance > 0) within -= weight * chance * Math.log(chance)
    }
  }
  const whole = outcomes.reduce((sum, chance) => (chance > 0 ? sum - chance * Math.log(chance) : sum), 0)
  return { test, outcomes, says: Math.max(0, whole - within) }
}

function expectedAfter(worlds: Worlds, asked: readonly Question[], off: ReadonlySet<string>): number {
  const { weights } = worlds
  const count = weights.length
  const { engine } = worlds.belief
  let sum = 0
  const posterior = new Float64Array(count)
  for (let bundle = 0; bundle < BUNDLES; bundle++) {
    const world = Math.floor(((bundle + 0.5) / BUNDLES) * count)
    posterior.set(weights)
    // What is thought of is not itself among what is thought possible: it would always be guessed.
    posterior[world] = 0
    for (const { test } of asked) {
      const known = engine.tests[test] as BenchTest
      if (known.test.needsRunning && !(worlds.rows[world] as CircuitRow).turns) continue
      const chances = worlds.chances(test)
      const outcomes = known.test.outcomes.length
      let rest = drawn(bundle * 97 + 13, test)
      let outcome = 0
      while (outcome < outcomes - 1 && (rest -= chances[world * outcomes + outcome] as number) > 0) outcome++
      for (let at = 0; at < count; at++)
        posterior[at] = (posterior[at] as number) * (chances[at * outcomes + outcome] as number)
    }
    const whole = posterior.reduce((total, weight) => total + weight, 0)
    if (whole > 0) sum += worlds.remaining(posterior, off) / whole
  }
  return sum / BUNDLES
}

/** Weights after one outcome of one observation. */
export function afterOutcome(worlds: Worlds, test: number, outcome: number): Float64Array {
  const chances = worlds.chances(test)
  const count = chances.length / worlds.worlds.length
  const found = worlds.weights.map((weight, at) => weight * (chances[at * count + outcome] as number))
  const whole = found.reduce((sum, weight) => sum + weight, 0)
  return whole > 0 ? found.map((weight) => weight / whole) : found
}
