import type { CompiledEngine } from '../compiled-engine'
import type { EngineEvent } from '../history'
import type { Suspect } from '../places/suspects'

/** One way in which a suspect can have been there: how bad, from when, until when. */
export interface Option {
  readonly suspect: number
  /** −1: so slight that circuit and drive show nothing of it. */
  readonly variant: number
  /** First state it is present in. */
  readonly bornAt: number
  /** First state it is gone in. */
  readonly goneAt: number
  /** Odds against its absence; of what was seen, its share among the ways it can be. */
  readonly weight: number
}

/** One suspect with all the ways it can be, which exclude each other. */
export interface Slot {
  readonly suspect: number
  /** Seen beyond doubt: one of the ways it is; otherwise it may be absent as well. */
  readonly given: boolean
  readonly options: readonly Option[]
}

export interface Slots {
  readonly slots: readonly Slot[]
  /** Factor on the weight of everything in which the machine arrived with nothing wrong. */
  readonly soundOnArrival: number
}

const FOREVER = Number.POSITIVE_INFINITY
/** No way is ruled out by its prior alone. */
const LEAST_ODDS = 1e-7
/** How much more seldom somebody complains of a machine with nothing wrong than of one with something; judged. */
const GROUNDLESS = 0.1
/** Of a mistake of assembly in a machine of which nobody says it was ever taken apart; judged. */
const UNTOUCHED_SHARE = 0.5
/** Of a mistake of assembly after one repair, against a machine apart altogether; judged. */
const AFTER_ONE_REPAIR = 0.3
/** So many of the latest repairs are held able to have brought in a mistake: an older one would have shown since. */
const REPAIRS_SUSPECTED = 2
/** What was seen and comes and goes is so often too slight to show in the running; judged. */
const SEEN_SLIGHT = 0.35

/**
 * The book says of each fault how often it is met on a machine that came with a complaint; that all of them come
 * together as if by chance would be too many. Of the odds so much is left for what nobody has seen; judged.
 */
const UNSEEN_SHARE = 0.75

/** When parts were off and on again, and what was touched then. */
interface Refit {
  readonly state: number
  readonly share: number
  readonly touches: (suspect: Suspect) => boolean
}

/**
 * Every way in which every suspect can be. What was seen is there in one of its ways; a repair splits what it mends
 * into “gone since then” and “did not take”; what was opened and closed may hold a mistake born at that state.
 *
 * @param engine compiled
 * @param events of the history, what was seen at a look among the confirmed
 * @throws RangeError naming a suspect this engine does not have
 */
export function slotsOf(engine: CompiledEngine, events: readonly EngineEvent[]): Slots {
  for (const event of events) if (event.kind !== 'refitted') engine.indexOfSuspect(event.suspect)
  const sorted = [...events].sort((first, second) => first.state - second.state)
  const refits = refitsOf(engine, sorted)
  const slots = engine.suspects.flatMap((suspect, index): Slot[] => {
    const slot = slotOf(engine, index, suspect, sorted, refits)
    return slot.options.length > 0 ? [slot] : []
  })
  // A complaint that something known explains says nothing of what is hidden.
  const explained = slots.some(({ given, options }) => given && options.some(({ bornAt }) => bornAt === 0))
  return { slots, soundOnArrival: engine.circumstances.has('complained-of') && !explained ? GROUNDLESS : 1 }
}

function refitsOf(engine: CompiledEngine, events: readonly EngineEvent[]): Refit[] {
  const repairs = events.flatMap((event) => (event.kind === 'repaired' ? [event] : [])).slice(-REPAIRS_SUSPECTED)
  return [
    ...events.flatMap((event): Refit[] => {
      if (event.kind !== 'refitted') return []
      const touched = event.touched === undefined ? null : new Set(event.touched)
      return [
        {
          state: event.state,
          share: 1,
          touches: (suspect) =>
            touched === null ||
            suspect.goal.flat().some((part) => touched.has(part)) ||
            touched.has(suspect.place.part ?? ''),
        },
      ]
    }),
    ...repairs.map(({ suspect: id, state }): Refit => {
      const repaired = engine.suspects[engine.indexOfSuspect(id)] as Suspect
      const taken = new Set(repaired.goal.flat())
      return {
        state,
        share: AFTER_ONE_REPAIR,
        touches: ({ place, goal }) =>
          taken.size > 0 &&
          (place.id === repaired.place.id ||
            place.role === 'turnable' ||
            place.role === 'engine' ||
            goal.flat().some((part) => taken.has(part))),
      }
    }),
  ]
}

function slotOf(
  engine: CompiledEngine,
  index: number,
  suspect: Suspect,
  events: readonly EngineEvent[],
  refits: readonly Refit[],
): Slot {
  const statesOf = (kind: 'confirmed' | 'ruled-out'): number[] =>
    events.flatMap((event) => (event.kind === kind && event.suspect === suspect.id ? [event.state] : []))
  const [confirmed, ruledOut] = [statesOf('confirmed'), statesOf('ruled-out')]
  const repaired = events.flatMap((event) =>
    event.kind === 'repaired' && mends(engine, event.suspect, suspect) ? [event.state] : [],
  )
  // Each stay begins with the machine, or with a refit, and ends with the repair that takes.
  const { bornAtRefit, bornOf, raisedBy, alike } = suspect.fault
  const unseen = (UNSEEN_SHARE * suspect.prior) / (1 - suspect.prior)
  // Two trucks ran through the same years: where one is seen to be dirty the other hardly is clean.
  const odds = alike && seenElsewhere(engine, suspect, events) ? Math.max(unseen, alike / (1 - alike)) : unseen
  const untouched = bornAtRefit && !raisedBy.some(({ when }) => engine.circumstances.has(when)) ? UNTOUCHED_SHARE : 1
  const births = [
    { bornAt: 0, odds: odds * untouched },
    ...(bornAtRefit
      ? refits
          .filter((refit) => refit.state > 0 && refit.touches(suspect))
          .map((refit) => ({ bornAt: refit.state, odds: refitOdds(engine, suspect) * refit.share }))
      : []),
    ...events.flatMap((event) => {
      if (!bornOf || event.kind !== 'repaired') return []
      const repaired = engine.suspects[engine.indexOfSuspect(event.suspect)] as Suspect
      return repaired.remedy.id === bornOf.remedy && repaired.place.motor === suspect.place.motor
        ? [{ bornAt: event.state, odds: bornOf.chance / (1 - bornOf.chance) }]
        : []
    }),
  ]
  const stays = births.flatMap((birth) =>
    staysOf(
      birth.bornAt,
      repaired.filter((state) => state > birth.bornAt),
      birth.odds,
      1 - suspect.remedy.success,
    ),
  )
  const there = ({ bornAt, goneAt }: Stay, state: number): boolean => bornAt <= state && state < goneAt
  const possible = stays.filter(
    (stay) =>
      !ruledOut.some((state) => there(stay, state) && !confirmed.includes(state)) &&
      confirmed.every((state) => there(stay, state) || repaired.some((gone) => gone > stay.bornAt && gone <= state)),
  )
  const given = confirmed.length > 0
  // Seen in one state at least: a stay that covers none of them is no explanation.
  const fitting = given ? possible.filter((stay) => confirmed.some((state) => there(stay, state))) : possible
  const variants = waysOf(engine, index, given)
  const whole = given ? fitting.reduce((sum, stay) => sum + stay.odds, 0) : 1
  const options = fitting.flatMap((stay) =>
    variants.map(({ variant, share }): Option => ({
      suspect: index,
      variant,
      bornAt: stay.bornAt,
      goneAt: stay.goneAt,
      weight: Math.max(LEAST_ODDS, (stay.odds / whole) * share),
    })),
  )
  return { suspect: index, given: given && options.length > 0, options }
}

/** Whether another place of the same kind was seen to have the same. */
function seenElsewhere(engine: CompiledEngine, { fault, place }: Suspect, events: readonly EngineEvent[]): boolean {
  return events.some((event) => {
    if (event.kind !== 'confirmed') return false
    const other = engine.suspects[engine.indexOfSuspect(event.suspect)] as Suspect
    return other.fault.id === fault.id && other.place.id !== place.id
  })
}

/** As the machine may be: the ways of a suspect, and of one that was seen, that it is too slight to show. */
function waysOf(
  engine: CompiledEngine,
  index: number,
  given: boolean,
): ReadonlyArray<{ readonly variant: number; readonly share: number }> {
  const ways = engine.variants.flatMap(({ suspect, share }, variant) => (suspect === index ? [{ variant, share }] : []))
  const { effect } = (engine.suspects[index] as Suspect).fault
  if (!given || effect.kind !== 'component' || effect.shows === 'always') return ways
  return [
    ...ways.map(({ variant, share }) => ({ variant, share: share * (1 - SEEN_SLIGHT) })),
    { variant: -1, share: SEEN_SLIGHT },
  ]
}

function refitOdds(engine: CompiledEngine, { fault, prior }: Suspect): number {
  const known = engine.circumstances.has('just-refitted')
  const times = known ? 1 : (fault.raisedBy.find(({ when }) => when === 'just-refitted')?.times ?? 1)
  return (prior / (1 - prior)) * times
}

interface Stay {
  readonly bornAt: number
  readonly goneAt: number
  readonly odds: number
}

/** There from a state on, and gone with the first repair that took; or still there because none did. */
function staysOf(bornAt: number, repaired: readonly number[], odds: number, failure: number): Stay[] {
  return [
    ...repaired.map((goneAt, times) => ({ bornAt, goneAt, odds: odds * failure ** times * (1 - failure) })),
    { bornAt, goneAt: FOREVER, odds: odds * failure ** repaired.length },
  ]
}

/** A remedy done at a place mends everything there that this remedy mends. */
function mends(engine: CompiledEngine, repairedId: string, suspect: Suspect): boolean {
  if (repairedId === suspect.id) return true
  const repaired = engine.suspects[engine.indexOfSuspect(repairedId)]
  return repaired !== undefined && repaired.mendedBy === suspect.mendedBy
}
