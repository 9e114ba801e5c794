import type { Equipment } from '../../knowledge/knowledge-schema'
import type { BenchAct } from '../acts/acts-of'
import type { BenchCosts, WayIn } from '../acts/bench-costs'
import type { BenchTest } from '../places/bench-tests'
import type { Belief } from '../belief/belief'
import { drawn } from '../belief/drawn'
import type { CircuitRow } from '../circuit/circuit-outcomes'
import { ATTENTION_MINUTES, type Worlds } from './worlds'

/** What may be noted at an act, and how much hangs on it. */
export interface Question {
  readonly test: number
  /** Chance of each outcome. */
  readonly outcomes: readonly number[]
  /** By group: how much the answer tells of it, in nats: mutual information of outcome and group. */
  readonly ofGroup: Float64Array
  /** Of all groups together. */
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

/** Where there are no more bundles of what may be noted, all are thought through … */
const ALL_BUNDLES = 12
/** … and so many likely ones stand for more. */
const BUNDLES = 12
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
  const now = belief.seenHere
    .filter((finding) => finding.state === belief.state)
    .map(({ test, outcome }) => ({
      reading: (engine.tests[engine.indexOfTest(test)] as BenchTest).test.reading,
      outcome,
    }))
  const moves = (how: string): boolean =>
    now.some(({ reading, outcome }) => reading.kind === 'motion' && onRails.has(reading.feed) && outcome === how)
  const [onTrack, trips] = [moves('runs'), moves('trips')]
  const metered = new Set(now.flatMap(({ reading }) => (reading.kind === 'current' ? [reading.feed] : [])))
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
    else if (onTrack && nearer.has(feedOf(known))) withheld.push({ test: index, why: 'It runs on the track.' })
    else if (trips && test.reading.kind === 'motor-volts') withheld.push({ test: index, why: 'It trips the supply.' })
    else if (test.reading.kind === 'current' && metered.has(test.reading.feed))
      withheld.push({ test: index, why: 'Its current was read.' })
    else if (test.needsRunning && !runs) withheld.push({ test: index, why: 'It does not run yet.' })
    else if (price.barred !== null) withheld.push({ test: index, why: price.barred })
    else tests.add(index)
  }
  return { tests, withheld }
}

const onRails: ReadonlySet<string> = new Set(['track', 'dcc-track'])
/** What it does from the rails it does from every point nearer to the motor; and nobody rocks what runs. */
const nearer: ReadonlySet<string> = new Set(['track-rocked', 'wheels', 'pickups', 'motor-leads', 'decoder-bypassed'])

function feedOf({ test: { reading } }: BenchTest): string {
  return reading.kind === 'motion' ? reading.feed : ''
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

/** Told less than so many times what chance alone tells, it tells nothing. */
const BY_CHANCE = 2

function questionOf(worlds: Worlds, test: number): Question {
  const chances = worlds.chances(test)
  const count = chances.length / worlds.worlds.length
  const outcomes = new Array<number>(count).fill(0)
  const groups = worlds.costs.groups.length
  const there = new Float64Array(groups)
  const joint = new Float64Array(groups * count)
  for (const [world, present] of worlds.groups.entries()) {
    const weight = worlds.weights[world] as number
    for (let outcome = 0; outcome < count; outcome++) {
      const chance = weight * (chances[world * count + outcome] as number)
      outcomes[outcome] = (outcomes[outcome] as number) + chance
      for (const group of present) joint[group * count + outcome] = (joint[group * count + outcome] as number) + chance
    }
    for (const group of present) there[group] = (there[group] as number) + weight
  }
  const ofGroup = there.map((present, group) => {
    if (present <= 0 || present >= 1) return 0
    const told = outcomes.reduce((sum, whole, outcome) => {
      const both = Math.min(whole, joint[group * count + outcome] as number)
      const without = whole - both
      return (
        sum +
        (both > 0 ? both * Math.log(both / (whole * present)) : 0) +
        (without > 0 ? without * Math.log(without / (whole * (1 - present))) : 0)
      )
    }, 0)
    // So much two things that have nothing to do with each other seem to tell of one another in so few worlds.
    const byChance = (count - 1) / (2 * worlds.worlds.length)
    return told > BY_CHANCE * byChance ? told - byChance : 0
  })
  return { test, outcomes, ofGroup, says: ofGroup.reduce((sum, told) => sum + told, 0) }
}

/** Minutes left once it was noted, on the mean of all that may be noted. */
function expectedAfter(worlds: Worlds, asked: readonly Question[], off: ReadonlySet<string>): number {
  const bundles = asked.reduce((product, { outcomes }) => product * outcomes.length, 1)
  return bundles <= ALL_BUNDLES ? afterAny(worlds, asked, off, worlds.weights) : afterSome(worlds, asked, off)
}

/** Every bundle there is, by the weights it leaves. */
function afterAny(
  worlds: Worlds,
  [first, ...others]: readonly Question[],
  off: ReadonlySet<string>,
  weights: Float64Array,
): number {
  if (!first) return worlds.remaining(weights, off)
  const chances = worlds.chances(first.test)
  const count = first.outcomes.length
  return first.outcomes.reduce(
    (sum, _, outcome) =>
      sum +
      afterAny(
        worlds,
        others,
        off,
        weights.map((weight, at) => weight * (chances[at * count + outcome] as number)),
      ),
    0,
  )
}

function afterSome(worlds: Worlds, asked: readonly Question[], off: ReadonlySet<string>): number {
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
