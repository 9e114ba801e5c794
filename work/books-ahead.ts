import type { ActReport, ObservationReport, SearchReport, SuspectReport } from '../core/diagnosis/report/search-report'
import type { JobBook } from '../messages/book'
import { jobBookWith } from '../messages/changes'
import { effectOf } from '../messages/effects'
import { rowsOfAct } from './rows-of-act'
import { believedNow, mendWrite, outcomeWrites, type SearchWrite } from './search-writes'

/** Where a search stands: the card, or what is mended at one go; what was noted in this state; what is off. */
export interface SearchStand {
  readonly card: ActReport | null
  readonly repairs: readonly SuspectReport[]
  readonly noted: ReadonlyMap<string, string>
  readonly off: readonly string[]
}

/** So many ways on are thought ahead. Judged: hands are back before more is worked out. */
const MOST_AHEAD = 8

/**
 * The book as it will stand after each of the keys somebody is likely to press next, likeliest first: the rest as it
 * should, an outcome of the marked row, something odd in the rows after it; or everything mended. Made by the writes
 * and effects those keys have.
 *
 * @param book the job now
 * @param report what is believed of it
 * @param stand where its search stands
 */
export function booksAhead(book: JobBook, report: SearchReport, stand: SearchStand): Array<() => JobBook> {
  const { card, repairs } = stand
  if (!card) return repairs.length > 0 ? [() => mended(book, report, repairs)] : []
  const { left } = rowsOfAct(card, stand.noted)
  const [marked, ...later] = left
  if (!marked) return []
  const noting = (rows: ReadonlyArray<readonly [ObservationReport, number]>) => () =>
    rows.reduce((before, [row, outcome]) => noted(before, report, stand, row, outcome), book)
  const likeliest = (rows: readonly ObservationReport[], from: number) =>
    rows
      .flatMap((row) => row.outcomes.flatMap(({ chance }, at) => (at < from ? [] : [{ chance, row, at }])))
      .sort((one, other) => other.chance - one.chance)
  // With one row left the rest is its first outcome.
  const singles = [...likeliest([marked], later.length === 0 ? 1 : 0), ...likeliest(later, 1)]
  return [noting(left.map((row) => [row, 0])), ...singles.map(({ row, at }) => noting([[row, at]]))].slice(
    0,
    MOST_AHEAD,
  )
}

function noted(
  book: JobBook,
  report: SearchReport,
  { card, off }: SearchStand,
  row: ObservationReport,
  index: number,
): JobBook {
  const outcome = row.outcomes[index]
  if (!outcome || !card) return book
  return written(
    book,
    outcomeWrites(
      book.job.id,
      { test: { id: row.id, words: row.words, why: card.why }, outcome, off: offAt(card, off) },
      believedNow(report),
    ),
  )
}

const mended = (book: JobBook, report: SearchReport, repairs: readonly SuspectReport[]): JobBook =>
  repairs.reduce((before, suspect) => written(before, [mendWrite(before, suspect, believedNow(report))]), book)

/** Parts that are off when something of an act is noted. */
export const offAt = (act: ActReport | null, off: readonly string[]): string[] => [
  ...new Set([...off, ...(act?.takesOff ?? [])]),
]

function written(book: JobBook, writes: readonly SearchWrite[]): JobBook {
  const capturedAt = new Date().toISOString()
  // What the screen has not read is not there to be changed.
  return writes.reduce<JobBook>(
    (before, { name, payload }) =>
      ({
        ...before,
        ...jobBookWith({ ...before }, effectOf(name, before, { payload, author: '', capturedAt })),
      }) as JobBook,
    { ...book },
  )
}
