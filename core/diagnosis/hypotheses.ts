import type { CompiledEngine } from './compiled-engine'
import type { EngineEvent } from './history'
import type { Suspect } from './suspects'

/** One way in which a suspect can have been there: from when, until when. */
export interface Item {
  readonly suspect: number
  readonly variant: number
  /** First state it is present in. */
  readonly bornAt: number
  /** First state it is gone in. */
  readonly goneAt: number
  /** Against its absence; ways that exclude each other share the suspect's own odds. */
  readonly odds: number
  readonly because: 'from-the-start' | 'repair-failed' | 'born-at-refit'
}

/** Confirmed faults and when they were there: taken as given. */
export interface Given {
  readonly suspect: number
  readonly variant: number
  readonly bornAt: number
  readonly goneAt: number
}

export interface Hypotheses {
  readonly items: readonly Item[]
  readonly given: readonly Given[]
  /** Sets of up to three items: three item indices each, −1 where there is none. The first is the empty set. */
  readonly members: Int16Array
  /** Odds of each set against nothing hidden. */
  readonly odds: Float64Array
  /** Share of the belief before any finding that belongs to sets not looked at. */
  readonly leftOut: number
}

/** No hypothesis is ruled out by its prior alone. */
const LEAST_ODDS = 1e-7
const FOREVER = Number.POSITIVE_INFINITY
/** Sets beyond this many, the least likely before any finding, are not looked at; how much they weigh is said. */
const MOST_SETS = 60_000
/** Of a mistake of assembly in a machine of which nobody says it was ever taken apart. */
const UNTOUCHED_SHARE = 0.5

/**
 * Every set of up to three hidden faults besides those confirmed. A repair splits what it mends into “gone since
 * then” and “did not take”; taking apart and refitting adds mistakes born at that state.
 *
 * @throws RangeError naming a suspect this engine does not have
 */
export function hypothesesOf(engine: CompiledEngine, events: readonly EngineEvent[]): Hypotheses {
  for (const event of events) if (event.kind !== 'refitted') engine.indexOfSuspect(event.suspect)
  const { given, items: whole } = itemsOf(engine, events)
  const items = whole.flatMap((item) => engine.variants.flatMap((variant, index) => (variant.suspect === item.suspect ? [{ ...item, variant: index, odds: item.odds * variant.share }] : [])))
  const odds = Float64Array.from(items, (item) => item.odds)
  const threshold = thresholdFor(odds)
  const found: number[] = []
  const products: number[] = []
  let leftOut = 0
  const add = (first: number, second: number, third: number, product: number): void => {
    found.push(first, second, third)
    products.push(product)
  }
  add(-1, -1, -1, 1)
  for (let first = 0; first < items.length; first++) {
    const one = odds[first] as number
    add(first, -1, -1, one)
    for (let second = first + 1; second < items.length; second++) {
      if (sameSuspect(items, first, second)) continue
      const two = one * (odds[second] as number)
      add(first, second, -1, two)
      for (let third = second + 1; third < items.length; third++) {
        if (sameSuspect(items, first, third) || sameSuspect(items, second, third)) continue
        const three = two * (odds[third] as number)
        if (three >= threshold) add(first, second, third, three)
        else leftOut += three
      }
    }
  }
  const total = products.reduce((sum, value) => sum + value, 0)
  return { items, given, members: Int16Array.from(found), odds: Float64Array.from(products), leftOut: leftOut / (total + leftOut) }
}

/** Odds below which a set of three is left out, so that about so many sets remain; from an even sample. */
function thresholdFor(odds: Float64Array): number {
  const count = odds.length
  const triples = (count * (count - 1) * (count - 2)) / 6
  const wanted = MOST_SETS - 1 - count - (count * (count - 1)) / 2
  if (triples <= wanted) return 0
  const sample: number[] = []
  for (let first = 0; first < count; first++) for (let second = first + 1; second < count; second++) for (let third = second + 1 + ((first + second) % 7); third < count; third += 7) sample.push((odds[first] as number) * (odds[second] as number) * (odds[third] as number))
  sample.sort((one, other) => other - one)
  return sample[Math.min(sample.length - 1, Math.max(0, Math.floor((sample.length * wanted) / triples)))] ?? 0
}

function sameSuspect(items: readonly Item[], first: number, second: number): boolean {
  return items[first]?.suspect === items[second]?.suspect
}

/** A confirmed fault that comes and goes has been seen to do so: it is taken as unsteady. */
function givenVariant(engine: CompiledEngine, suspect: number): number {
  return engine.variants.findIndex((variant) => variant.suspect === suspect && variant.mood !== 'dead')
}

function itemsOf(engine: CompiledEngine, unsorted: readonly EngineEvent[]): { given: Given[]; items: Array<Omit<Item, 'variant'>> } {
  const events = [...unsorted].sort((first, second) => first.state - second.state)
  const refits = [...new Set(events.filter((event) => event.kind === 'refitted').map((event) => event.state))]
  const given: Given[] = []
  const items: Array<Omit<Item, 'variant'>> = []
  for (const [index, suspect] of engine.suspects.entries()) {
    const confirmed = events.filter((event) => event.kind === 'confirmed' && event.suspect === suspect.id).map((event) => event.state)
    const ruledOut = events.filter((event) => event.kind === 'ruled-out' && event.suspect === suspect.id).map((event) => event.state)
    const repaired = events.filter((event) => event.kind === 'repaired' && mends(engine, event.suspect, suspect)).map((event) => event.state)
    const next = (states: readonly number[], from: number): number => states.find((state) => state > from) ?? FOREVER
    const isGiven = (state: number): boolean => given.some((entry) => entry.suspect === index && entry.bornAt <= state && state < entry.goneAt)

    for (const state of confirmed) {
      if (isGiven(state)) continue
      const since = given.filter((entry) => entry.suspect === index).reduce((latest, entry) => Math.max(latest, entry.goneAt), 0)
      // Seen now, there since the last time it was mended, or from the start.
      given.push({ suspect: index, variant: givenVariant(engine, index), bornAt: since, goneAt: next(repaired, state) })
    }
    const lastGiven = given.filter((entry) => entry.suspect === index).reduce((latest, entry) => Math.max(latest, entry.goneAt), -1)
    if (lastGiven === FOREVER) continue
    if (lastGiven >= 0) {
      // Confirmed and mended: it may not have taken.
      if (!ruledOut.some((state) => state >= lastGiven)) items.push(...untilMended(index, suspect, lastGiven, repaired.filter((state) => state > lastGiven), 1 - suspect.remedy.success, 'repair-failed'))
    } else if (ruledOut.length === 0) {
      const prior = suspect.fault.bornAtRefit && !suspect.fault.raisedBy.some(({ when }) => engine.circumstances.has(when)) ? suspect.prior * UNTOUCHED_SHARE : suspect.prior
      items.push(...untilMended(index, suspect, 0, repaired, prior, 'from-the-start'))
    }
    if (suspect.fault.bornAtRefit) {
      for (const state of refits) {
        if (!isGiven(state) && !ruledOut.some((later) => later >= state)) items.push(...untilMended(index, suspect, state, repaired.filter((later) => later > state), suspect.prior, 'born-at-refit'))
      }
    }
  }
  return { given, items }
}

/** There from a state on, and gone with the first repair that took; or still there because none did. */
function untilMended(index: number, suspect: Suspect, bornAt: number, repaired: readonly number[], prior: number, because: Item['because']): Array<Omit<Item, 'variant'>> {
  const failure = 1 - suspect.remedy.success
  const odds = prior / (1 - prior)
  const gone = repaired.map((goneAt, times) => ({ suspect: index, bornAt, goneAt, odds: odds * failure ** times * (1 - failure), because }))
  const there = { suspect: index, bornAt, goneAt: FOREVER, odds: Math.max(LEAST_ODDS, odds * failure ** repaired.length), because: repaired.length > 0 ? 'repair-failed' as const : because }
  return [...gone, there]
}

/** A remedy done at a place mends everything there that this remedy mends. */
function mends(engine: CompiledEngine, repairedId: string, suspect: Suspect): boolean {
  if (repairedId === suspect.id) return true
  const repaired = engine.suspects[engine.indexOfSuspect(repairedId)]
  return repaired !== undefined && repaired.mendedBy === suspect.mendedBy
}
