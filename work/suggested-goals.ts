import { dueCare } from '../core/care/due-list'
import { asksFor } from '../core/knowledge/asks-for'
import wishRows from '../core/knowledge/wish-goals.json'
import type { StripGoal } from '../core/strip/strip-goals'
import type { JobBook } from '../messages/book'
import { standingRows } from './standing-rows'

/** Something the job itself asks to be opened for, and where it says so. */
export interface SuggestedGoal {
  readonly goal: string
  readonly why: string
}

interface WishRow {
  readonly id: string
  readonly words: readonly string[]
  readonly goal: string
  readonly source: string
}
export const wishGoals = wishRows as readonly WishRow[]
/** What care that is due is done at. */
const goalOfCare: Readonly<Record<string, string>> = {
  wipe: 'usual.contacts',
  oil: 'usual.gears',
  tyres: 'usual.tyres',
}

/**
 * What else a job wants its engine opened for: the owner’s wishes, parts that lie ready, care that is due. Only what
 * this engine has.
 *
 * @param goals everything the engine can be opened for
 */
export function suggestedGoals(
  book: Pick<JobBook, 'job' | 'parts' | 'search'>,
  goals: readonly StripGoal[],
): SuggestedGoal[] {
  const running = standingRows(book.search)
    .flatMap(({ entry }) => (entry.kind === 'known' ? [entry] : []))
    .at(-1)
  const found: SuggestedGoal[] = [
    ...goalsIn(book.job.wanted).map((goal) => ({ goal, why: `wanted: ${book.job.wanted.trim()}` })),
    ...book.parts
      .filter((part) => part.state === 'here')
      .flatMap((part) => goalsIn(part.what).map((goal) => ({ goal, why: `here to be fitted: ${part.what}` }))),
    ...(running?.running
      ? dueCare(running.running, running.circumstances).flatMap(({ id, name, words }) =>
          goalOfCare[id] ? [{ goal: goalOfCare[id], why: `due: ${name.toLowerCase()}, ${words}` }] : [],
        )
      : []),
  ]
  const known = new Set(goals.map((goal) => goal.id))
  return found.filter(
    (entry, place) => known.has(entry.goal) && found.findIndex(({ goal }) => goal === entry.goal) === place,
  )
}

const goalsIn = (text: string): string[] =>
  wishGoals.filter(({ words }) => asksFor(text, words)).map(({ goal }) => goal)
