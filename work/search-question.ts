import type { BenchNow } from '../core/diagnosis/advice/advice'
import type { SearchContext } from '../core/diagnosis/diagnosis'
import type { SearchHistory } from '../core/diagnosis/history'
import { equipment as allEquipment, type Knowledge } from '../core/knowledge/knowledge-schema'
import { learnedPriors, type LearnedPrior } from '../core/knowledge/learned-priors'
import { placesOf } from '../core/diagnosis/places/places-of'
import { suspectsOf } from '../core/diagnosis/places/suspects'
import type { EngineDescription } from '../core/engine/description-schema'
import type { JobBook, Practice } from '../messages/book'
import { gatheredFindings } from './gathered-findings'
import { knowledgeOf } from './practised-knowledge'
import { toldFindings } from './told-at-the-counter'
import { searchOf, type JobSearch } from './search-history'

/** Everything the judgement of a job is asked with; the screen’s worker and the server’s are asked the same. */
export interface SearchQuestion {
  readonly description: EngineDescription
  readonly practice: Practice
  readonly context: SearchContext
  readonly history: SearchHistory
  readonly bench: BenchNow
}

export interface AskedSearch {
  readonly knowledge: Knowledge
  readonly search: JobSearch
  /** What the shop’s closed jobs make of the chances. */
  readonly learned: readonly LearnedPrior[]
  readonly question: SearchQuestion
}

/**
 * @param book the job
 * @param description of its engine
 * @throws RangeError where the type’s copy of the knowledge does not hold together
 */
export function askedSearch(book: JobBook, description: EngineDescription): AskedSearch {
  const knowledge = knowledgeOf(book.practice, description)
  const suspects = new Set(
    suspectsOf(description, placesOf(description), knowledge, new Set(), {}).map((suspect) => suspect.id),
  )
  const search = searchOf(
    book,
    `${book.engine.history} ${book.job.complaint} ${book.job.conditionOnArrival}`,
    [...toldFindings(book, description, knowledge), ...gatheredFindings(book, description, knowledge)],
    suspects,
  )
  const learned = learnedPriors(description, knowledge, book.learned.construction, book.learned.type)
  return {
    knowledge,
    search,
    learned,
    question: {
      description,
      practice: book.practice,
      context: {
        learned: Object.fromEntries(learned.map((entry) => [entry.fault, entry.factor])),
        circumstances: search.circumstances,
        equipment: allEquipment.filter((piece) => !search.missing.includes(piece)),
      },
      history: search.history,
      bench: { off: search.off, refused: search.refused, leave: search.leave },
    },
  }
}

/**
 * The job as it stood when a step of its search was made: later steps, readings and states are left away.
 *
 * @returns null where there is no such step
 */
export function bookAtStep(book: JobBook, entryId: string): JobBook | null {
  const at = book.search.findIndex((row) => row.id === entryId)
  const step = book.search[at]
  if (!step) return null
  const before = (row: { readonly capturedAt: string }): boolean => row.capturedAt <= step.capturedAt
  return {
    ...book,
    engine: { ...book.engine, stateNumber: step.engineState },
    search: book.search.slice(0, at + 1),
    strip: book.strip.filter(before),
    continuity: book.continuity.filter(before),
    sheets: book.sheets
      .filter((sheet) => sheet.openedAt <= step.capturedAt)
      .map((sheet) => ({ ...sheet, readings: sheet.readings.filter(before) })),
  }
}
