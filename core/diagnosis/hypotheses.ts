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
  /** Factor on the odds of every set in which the machine arrived with nothing. */
  readonly soundOnArrival: number
}

/** No hypothesis is ruled out by its prior alone. */
const LEAST_ODDS = 1e-7
const FOREVER = Number.POSITIVE_INFINITY
/** How much more seldom somebody complains of a machine with nothing wrong than of one with something; judged. */
const GROUNDLESS = 0.1
/** Of a mistake of assembly in a machine of which nobody says it was ever taken apart. */
const UNTOUCHED_SHARE = 0.5

/**
 * Every way in which something may be hidden besides what is confirmed. A repair splits what it mends into “gone since
 * then” and “did not take”; taking apart and refitting adds mistakes born at that state.
 *
 * @throws RangeError naming a suspect this engine does not have
 */
export function hypothesesOf(engine: CompiledEngine, events: readonly EngineEvent[]): Hypotheses {
  for (const event of events) if (event.kind !== 'refitted') engine.indexOfSuspect(event.suspect)
  const { given, items } = itemsOf(engine, events)
  // A complaint that something known explains says nothing of what is hidden.
  const soundOnArrival =
    engine.circumstances.has('complained-of') && !given.some(({ bornAt }) => bornAt === 0) ? GROUNDLESS : 1
  return {
    given,
    soundOnArrival,
    items: items.flatMap((item) =>
      engine.variants.flatMap((variant, index) =>
        variant.suspect === item.suspect ? [{ ...item, variant: index, odds: item.odds * variant.share }] : [],
      ),
    ),
  }
}

/** A confirmed fault that comes and goes has been seen to do so: it is taken as unsteady. */
function givenVariant(engine: CompiledEngine, suspect: number): number {
  return engine.variants.findIndex((variant) => variant.suspect === suspect && variant.mood !== 'dead')
}

function itemsOf(
  engine: CompiledEngine,
  unsorted: readonly EngineEvent[],
): { given: Given[]; items: Array<Omit<Item, 'variant'>> } {
  const events = [...unsorted].sort((first, second) => first.state - second.state)
  const refits = [...new Set(events.filter((event) => event.kind === 'refitted').map((event) => event.state))]
  const given: Given[] = []
  const items: Array<Omit<Item, 'variant'>> = []
  for (const [index, suspect] of engine.suspects.entries()) {
    const confirmed = events
      .filter((event) => event.kind === 'confirmed' && event.suspect === suspect.id)
      .map((event) => event.state)
    const ruledOut = events
      .filter((event) => event.kind === 'ruled-out' && event.suspect === suspect.id)
      .map((event) => event.state)
    const repaired = events
      .filter((event) => event.kind === 'repaired' && mends(engine, event.suspect, suspect))
      .map((event) => event.state)
    const next = (states: readonly number[], from: number): number => states.find((state) => state > from) ?? FOREVER
    const isGiven = (state: number): boolean =>
      given.some((entry) => entry.suspect === index && entry.bornAt <= state && state < entry.goneAt)

    for (const state of confirmed) {
      if (isGiven(state)) continue
      const since = given
        .filter((entry) => entry.suspect === index)
        .reduce((latest, entry) => Math.max(latest, entry.goneAt), 0)
      // Seen now, there since the last time it was mended, or from the start.
      given.push({ suspect: index, variant: givenVariant(engine, index), bornAt: since, goneAt: next(repaired, state) })
    }
    const lastGiven = given
      .filter((entry) => entry.suspect === index)
      .reduce((latest, entry) => Math.max(latest, entry.goneAt), -1)
    if (lastGiven === FOREVER) continue
    if (lastGiven >= 0) {
      // Confirmed and mended: it may not have taken.
      if (!ruledOut.some((state) => state >= lastGiven))
        items.push(
          ...untilMended(
            index,
            suspect,
            lastGiven,
            repaired.filter((state) => state > lastGiven),
            1 - suspect.remedy.success,
            'repair-failed',
          ),
        )
    } else if (ruledOut.length === 0) {
      const prior =
        suspect.fault.bornAtRefit && !suspect.fault.raisedBy.some(({ when }) => engine.circumstances.has(when))
          ? suspect.prior * UNTOUCHED_SHARE
          : suspect.prior
      items.push(...untilMended(index, suspect, 0, repaired, prior, 'from-the-start'))
    }
    if (suspect.fault.bornAtRefit) {
      for (const state of refits) {
        if (!isGiven(state) && !ruledOut.some((later) => later >= state))
          items.push(
            ...untilMended(
              index,
              suspect,
              state,
              repaired.filter((later) => later > state),
              suspect.prior,
              'born-at-refit',
            ),
          )
      }
    }
  }
  return { given, items }
}

/** There from a state on, and gone with the first repair that took; or still there because none did. */
function untilMended(
  index: number,
  suspect: Suspect,
  bornAt: number,
  repaired: readonly number[],
  prior: number,
  because: Item['because'],
): Array<Omit<Item, 'variant'>> {
  const failure = 1 - suspect.remedy.success
  const odds = prior / (1 - prior)
  const gone = repaired.map((goneAt, times) => ({
    suspect: index,
    bornAt,
    goneAt,
    odds: odds * failure ** times * (1 - failure),
    because,
  }))
  const there = {
    suspect: index,
    bornAt,
    goneAt: FOREVER,
    odds: Math.max(LEAST_ODDS, odds * failure ** repaired.length),
    because: repaired.length > 0 ? ('repair-failed' as const) : because,
  }
  return [...gone, there]
}

/** A remedy done at a place mends everything there that this remedy mends. */
function mends(engine: CompiledEngine, repairedId: string, suspect: Suspect): boolean {
  if (repairedId === suspect.id) return true
  const repaired = engine.suspects[engine.indexOfSuspect(repairedId)]
  return repaired !== undefined && repaired.mendedBy === suspect.mendedBy
}
