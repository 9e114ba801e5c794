import { v7 as newId } from 'uuid'
import type { FoundReport, SearchReport } from '../core/diagnosis/report/search-report'
import { atStart } from '../core/engine/name-in-sentence'
import type { FindingFields } from '../messages/bench-entries'
import type { FindingRow, JobBook } from '../messages/book'
import type { CommandPayload } from '../messages/commands'
import { cutText } from '../messages/cut-text'
import type { SearchEntry } from '../messages/search-entries'
import { mendedInSearch } from './mended-in-search'
import { standingRows } from './standing-rows'

/** What was believed when a step was made; kept with it. */
export type Believed = Extract<SearchEntry, { kind: 'outcome' }>['believed']

/** A write of the search: one of its steps, or a finding of the ledger with the step it comes from. */
export type SearchWrite =
  | { readonly name: 'search.add'; readonly payload: CommandPayload<'search.add'>; readonly from?: undefined }
  | { readonly name: 'finding.save'; readonly payload: CommandPayload<'finding.save'>; readonly from?: FindingRow }

/** The three likeliest of what is believed now. */
export const believedNow = (report: SearchReport | null): Believed =>
  (report?.suspects ?? []).slice(0, 3).map(({ id, words, chance }) => ({ suspect: id, words, chance }))

/** What was seen at an observation, and why it was looked at. */
export interface NotedOutcome {
  readonly test: { readonly id: string; readonly words: string; readonly why: string }
  readonly outcome: { readonly id: string; readonly words: string; readonly finds?: FoundReport | null }
  /** Parts that are off by then. */
  readonly off: readonly string[]
}

/** A step of the search alone. */
export const stepWrite = (jobId: string, entry: SearchEntry): SearchWrite => ({
  name: 'search.add',
  payload: { id: newId(), jobId, entry },
})

/** What was seen at an observation, and what is found with it. */
export function outcomeWrites(jobId: string, { test, outcome, off }: NotedOutcome, believed: Believed): SearchWrite[] {
  const noted = stepWrite(jobId, {
    kind: 'outcome',
    test: test.id,
    outcome: outcome.id,
    words: `${test.words}: ${outcome.words.toLowerCase()}`.slice(0, 300),
    why: test.why.slice(0, 600),
    off: [...off],
    believed,
  })
  return outcome.finds ? [noted, confirmWrite(jobId, outcome.finds, believed)] : [noted]
}

/** A suspect that was seen becomes a finding of the ledger, with where it comes from. */
export function confirmWrite(jobId: string, suspect: FoundReport, believed: Believed): SearchWrite {
  const findingId = newId()
  return {
    name: 'finding.save',
    payload: {
      id: findingId,
      jobId,
      fields: {
        what: atStart(suspect.words),
        place: '',
        state: 'confirmed',
        origin: suspect.area === 'assembly' ? 'here' : 'inside',
        remedy: suspect.remedy.words,
      },
      search: {
        id: newId(),
        entry: { kind: 'confirmed', suspect: suspect.id, words: suspect.words, findingId, believed },
      },
    },
  }
}

/** A finding changed; mended anywhere, it is mended for the search too, in the same write. */
export function findingWrite(
  { job, search }: Pick<JobBook, 'job' | 'search'>,
  finding: FindingRow,
  fields: FindingFields,
  believed: Believed = [],
): Extract<SearchWrite, { name: 'finding.save' }> {
  const entry = mendedInSearch(search, finding, fields, believed)
  return {
    name: 'finding.save',
    payload: { id: finding.id, jobId: job.id, fields, ...(entry ? { search: { id: newId(), entry } } : {}) },
    from: finding,
  }
}

/**
 * A step is struck out, and what it said of a finding of the ledger with it: what was mended by it is to be mended
 * again, what was seen by it was not so.
 */
export function strikeWrite(
  { job, search, findings }: Pick<JobBook, 'job' | 'search' | 'findings'>,
  entryId: string,
  words: string,
): SearchWrite {
  const entry = { kind: 'struck', entryId, words } as const
  const row = search.find(({ id }) => id === entryId)
  const struck = row?.entry
  if (struck?.kind !== 'repaired' && struck?.kind !== 'confirmed') return stepWrite(job.id, entry)
  // One noted by hand before, and only called by its name here, stands as it was noted.
  const finding = findings.find(
    ({ id, state, notedAt }) =>
      id === struck.findingId &&
      (struck.kind === 'repaired' ? state === 'mended' : state === 'confirmed' && notedAt === row?.capturedAt),
  )
  // Said once more since, it still stands.
  const again = standingRows(search).some(
    (row) => row.id !== entryId && row.entry.kind === struck.kind && row.entry.findingId === struck.findingId,
  )
  if (!finding || again) return stepWrite(job.id, entry)
  const { what, place, origin, remedy } = finding
  const state = struck.kind === 'repaired' ? 'confirmed' : 'ruled-out'
  return {
    name: 'finding.save',
    payload: {
      id: finding.id,
      jobId: job.id,
      fields: { what, place, origin, remedy, state },
      search: { id: newId(), entry },
    },
    from: finding,
  }
}

/** The remedy of a suspect is done: its finding is mended where it has one. */
export function mendWrite(
  book: Pick<JobBook, 'job' | 'search' | 'findings'>,
  suspect: { readonly id: string; readonly words: string; readonly remedy: { readonly words: string } },
  believed: Believed,
): SearchWrite {
  const confirmed = book.search.findLast(({ entry }) => entry.kind === 'confirmed' && entry.suspect === suspect.id)
  const findingId = confirmed?.entry.kind === 'confirmed' ? confirmed.entry.findingId : null
  const finding = book.findings.find((row) => row.id === findingId)
  if (finding && finding.state !== 'mended') {
    const { what, place, origin } = finding
    const remedy = finding.remedy || suspect.remedy.words
    return findingWrite(book, finding, { what, place, origin, state: 'mended', remedy }, believed)
  }
  return stepWrite(book.job.id, {
    kind: 'repaired',
    suspect: suspect.id,
    words: cutText(`${suspect.remedy.words}: ${suspect.words}`, 300),
    findingId: finding ? finding.id : null,
    believed,
  })
}
