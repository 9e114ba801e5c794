import { atStart } from '~~/core/engine/name-in-sentence'
import { cutText } from '~~/messages/cut-text'
import { v7 as newId } from 'uuid'
import type { FoundReport, SearchReport, SuspectReport } from '~~/core/diagnosis/report/search-report'
import type { JobBook } from '~~/messages/book'
import type { SearchEntry } from '~~/messages/search-entries'

type Believed = Extract<SearchEntry, { kind: 'outcome' }>['believed']

/** Writes the steps of a search into the book: outcomes, what was seen, what was mended. */
export function useSearchSteps(book: ComputedRef<JobBook>, report: Ref<SearchReport | null>) {
  const outbox = useOutbox()
  const findings = useFindingState(book)

  const believed = (): Believed =>
    (report.value?.suspects ?? []).slice(0, 3).map(({ id, words, chance }) => ({ suspect: id, words, chance }))

  function add(entry: SearchEntry): Promise<void> {
    const { id: jobId } = book.value.job
    const id = newId()
    return outbox.send('search.add', { id, jobId, entry })
  }

  function noteOutcome(
    test: { id: string; words: string; why: string },
    outcome: { id: string; words: string },
    off: readonly string[],
  ): Promise<void> {
    return add({
      kind: 'outcome',
      test: test.id,
      outcome: outcome.id,
      words: `${test.words}: ${outcome.words.toLowerCase()}`.slice(0, 300),
      why: test.why.slice(0, 600),
      off: [...off],
      believed: believed(),
    })
  }

  /** A suspect that was seen becomes a finding of the ledger, with where it comes from. */
  async function confirm(suspect: FoundReport): Promise<void> {
    const { id: jobId } = book.value.job
    const findingId = newId()
    const born = suspect.area === 'assembly' ? ('here' as const) : ('inside' as const)
    await outbox.send('finding.save', {
      id: findingId,
      jobId,
      fields: {
        what: atStart(suspect.words),
        place: '',
        state: 'confirmed',
        origin: born,
        remedy: suspect.remedy.words,
      },
      search: {
        id: newId(),
        entry: { kind: 'confirmed', suspect: suspect.id, words: suspect.words, findingId, believed: believed() },
      },
    })
  }

  /** A finding noted by hand is one the search knows by name: from then on it counts there, and has its remedy. */
  const nameFinding = (findingId: string, suspect: { readonly id: string; readonly name: string }): Promise<void> =>
    add({ kind: 'confirmed', suspect: suspect.id, words: suspect.name, findingId, believed: believed() })

  function mend(suspect: SuspectReport): Promise<void> {
    const confirmed = book.value.search.findLast(
      (row) => row.entry.kind === 'confirmed' && row.entry.suspect === suspect.id,
    )
    const findingId = confirmed?.entry.kind === 'confirmed' ? confirmed.entry.findingId : null
    const finding = book.value.findings.find((row) => row.id === findingId)
    if (finding && finding.state !== 'mended')
      return findings.setState(finding, 'mended', finding.remedy || suspect.remedy.words, believed())
    return add({
      kind: 'repaired',
      suspect: suspect.id,
      words: cutText(`${suspect.remedy.words}: ${suspect.words}`, 300),
      findingId: finding ? finding.id : null,
      believed: believed(),
    })
  }

  const ruleOut = (suspect: SuspectReport): Promise<void> =>
    add({ kind: 'ruled-out', suspect: suspect.id, words: suspect.words, believed: believed() })
  const couldNot = (test: { id: string; words: string }): Promise<void> =>
    add({ kind: 'could-not', test: test.id, words: test.words })
  const strike = useStriking(add)
  return { add, noteOutcome, confirm, nameFinding, mend, ruleOut, couldNot, strike }
}
