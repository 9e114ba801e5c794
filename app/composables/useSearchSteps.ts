import type { FoundReport, SearchReport, SuspectReport } from '~~/core/diagnosis/report/search-report'
import type { JobBook } from '~~/messages/book'
import type { SearchEntry } from '~~/messages/search-entries'
import {
  believedNow,
  confirmWrite,
  mendWrite,
  outcomeWrites,
  stepWrite,
  strikeWrite,
  type Believed,
  type NotedOutcome,
  type SearchWrite,
} from '~~/work/search-writes'

/** Writes the steps of a search into the book: outcomes, what was seen, what was mended. */
export function useSearchSteps(book: ComputedRef<JobBook>, report: Ref<SearchReport | null>) {
  const outbox = useOutbox()

  const believed = (): Believed => believedNow(report.value)
  const send = ({ name, payload, from }: SearchWrite): Promise<void> => outbox.send(name, payload, from)
  const add = (entry: SearchEntry): Promise<void> => send(stepWrite(book.value.job.id, entry))

  async function noteOutcome(noted: NotedOutcome): Promise<void> {
    for (const write of outcomeWrites(book.value.job.id, noted, believed())) await send(write)
  }
  const confirm = (suspect: FoundReport): Promise<void> => send(confirmWrite(book.value.job.id, suspect, believed()))

  /** A finding noted by hand is one the search knows by name: from then on it counts there, and has its remedy. */
  const nameFinding = (findingId: string, suspect: { readonly id: string; readonly name: string }): Promise<void> =>
    add({ kind: 'confirmed', suspect: suspect.id, words: suspect.name, findingId, believed: believed() })

  const mend = (suspect: SuspectReport): Promise<void> => send(mendWrite(book.value, suspect, believed()))
  const ruleOut = (suspect: SuspectReport): Promise<void> =>
    add({ kind: 'ruled-out', suspect: suspect.id, words: suspect.words, believed: believed() })
  const couldNot = (test: { id: string; words: string }): Promise<void> =>
    add({ kind: 'could-not', test: test.id, words: test.words })
  const strike = useStriking(({ entryId, words }) => send(strikeWrite(book.value, entryId, words)))
  return { add, noteOutcome, confirm, nameFinding, mend, ruleOut, couldNot, strike }
}
