import { faultOfSuspect } from '../core/knowledge/suspect-id'
import { cleaningCard, type CleaningCard } from '../core/care/cleaning-card'
import { cleaningGroups, type CleaningGroup } from '../core/care/cleaning-groups'
import { lubricationCard, type LubricationCard } from '../core/care/lubrication-card'
import { suggestedSoils } from '../core/care/suggested-soils'
import type { EngineDescription } from '../core/engine/description-schema'
import { wayBack } from '../core/strip/way-back'
import type { JobBook, ShelfRow } from '../messages/book'
import { careKnowledgeOf, ownAmountsOf } from './care-practice'
import { careState, type CareState } from './care-state'
import { openSuspects } from './open-suspects'
import { shelfClasses } from './shelf-classes'
import { standingRows } from './standing-rows'
import { stripState } from './strip-state'

/** Cleaning, for one job. */
export interface JobCleaning {
  readonly state: CareState
  readonly groups: readonly CleaningGroup[]
  /** Of groups nobody has spoken of yet, what they are likely to be dirty with. */
  readonly suggested: ReadonlyMap<string, readonly string[]>
  /** By group what it is taken to be dirty with: what was said. */
  readonly card: CleaningCard
}

type CareBook = Pick<JobBook, 'type' | 'care' | 'cleaningMinutes' | 'search' | 'strip' | 'practice'>

/** The cleaning of a job: what is dirty with what, and how each is cleaned with what this shop has and holds with. */
export function cleaningOfJob(book: CareBook, description: EngineDescription, shelf: readonly ShelfRow[]): JobCleaning {
  const state = careState(book.care)
  const groups = cleaningGroups(description)
  const known = new Set(groups.map((group) => group.id))
  const soils = [...state.soils].flatMap(([group, list]) =>
    known.has(group) ? list.map((soil) => ({ group, soil })) : [],
  )
  const off = stripState(book.strip, book.search).off
  const suggested = new Map([...suggestedSoils(groups, signsOf(book))].filter(([group]) => !state.soils.has(group)))
  const card = cleaningCard(description, soils, {
    shelf: shelfClasses(shelf),
    chosen: book.practice.schools,
    ways: [...state.ways.values()],
    own: book.cleaningMinutes,
    off: new Set(off.keys()),
    knowledge: careKnowledgeOf(book),
  })
  return { state, groups, suggested, card }
}

/** What is confirmed of it, what is known of its life, what its strip showed. */
function signsOf(book: CareBook): string[] {
  const { known, confirmed } = signsInSearch(book)
  const strip = stripState(book.strip, book.search).notAsPlanned.map((entry) => entry.what)
  return [...known, ...confirmed, ...strip]
}

/** Circumstances as last said, and the faults that are confirmed and not repaired since: what was cleaned away accuses nobody. */
function signsInSearch({ search }: CareBook): { known: readonly string[]; confirmed: readonly string[] } {
  const known = standingRows(search).flatMap(({ entry }) => (entry.kind === 'known' ? [entry.circumstances] : []))
  const confirmed = [...openSuspects(search)].map(faultOfSuspect)
  return { known: known.at(-1) ?? [], confirmed }
}

/** Oiling, for one job: with the last accesses of the way back, and what was found worn. */
export function lubricationOfJob(
  book: CareBook,
  description: EngineDescription,
  shelf: readonly ShelfRow[],
): { readonly state: CareState; readonly card: LubricationCard } {
  const state = careState(book.care)
  const off = [...stripState(book.strip, book.search).off.keys()]
  const lastAccess = new Map(
    wayBack(description, off).flatMap((step) =>
      step.kind === 'lubricate' && step.lastAccessBefore !== null ? [[step.point, step.lastAccessBefore] as const] : [],
    ),
  )
  const { confirmed } = signsInSearch(book)
  const worn = new Set(
    confirmed.includes('bearing-worn')
      ? description.carePoints.filter((point) => point.kind === 'axle-bearing-live').map((point) => point.id)
      : [],
  )
  const card = lubricationCard(description, {
    chosen: book.practice.schools,
    advice: book.type.makersAdvice ?? [],
    amounts: ownAmountsOf(book),
    shelf: shelfClasses(shelf),
    worn,
    lastAccess,
  })
  return { state, card }
}
