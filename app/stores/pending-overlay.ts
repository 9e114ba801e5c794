import type { ContinuityRow, FindingRow, JobBook, NoteRow, PartRow, PhotographRow, ReadingRow, SearchRow, SheetRow } from '~~/shared/book'
import type { FindingFields, NoteFields, PartFields, ReadingFields, SheetFields } from '~~/shared/messages/bench-entries'
import type { ContinuityFields } from '~~/shared/messages/continuity-entries'
import type { LearnFields } from '~~/shared/messages/knowledge-entries'
import type { SearchEntry } from '~~/shared/messages/search-entries'
import type { QueuedCommand, QueuedEntry } from './outbox-storage'

/**
 * The job as it will stand once what waits has reached the server, so that the screen shows a reading the moment
 * it is typed. Pure: the book given is not changed.
 */
export function withPending(book: JobBook, pending: readonly QueuedEntry[]): JobBook {
  return pending.reduce((standing, entry) => (entry.state === 'refused' ? standing : overlay(standing, entry)), book)
}

function overlay(book: JobBook, entry: QueuedEntry): JobBook {
  if (entry.kind === 'photograph') {
    const photograph: PhotographRow = { id: entry.photographId, station: entry.station, caption: entry.caption, width: 0, height: 0, size: entry.bytes.size, takenAt: entry.capturedAt }
    return { ...book, photographs: upsert(book.photographs, photograph) }
  }
  const { payload } = entry
  const id = payload.id as string
  const fields = payload.fields as Record<string, unknown>
  switch (entry.name) {
    case 'job.edit':
    case 'job.move':
      return { ...book, job: { ...book.job, ...fields } }
    case 'job.hand-back':
      return { ...book, job: { ...book.job, handBack: fields as never, state: 'handed-back', station: 'hand-back', handedBackAt: book.job.handedBackAt ?? entry.capturedAt } }
    case 'finding.save': {
      const mends = (fields as FindingFields).state === 'mended' && book.findings.find((row) => row.id === id)?.state !== 'mended'
      return { ...book, engine: mends ? { ...book.engine, stateNumber: book.engine.stateNumber + 1 } : book.engine, findings: upsert(book.findings, { ...head(book.findings, id, entry), engineState: book.engine.stateNumber, notedAt: entry.capturedAt, ...fields as FindingFields } as FindingRow) }
    }
    case 'part.save':
      return { ...book, parts: upsert(book.parts, { ...head(book.parts, id, entry), ...fields as PartFields } as PartRow) }
    case 'note.add':
      return { ...book, notes: upsert(book.notes, { id, jobId: entry.lane, author: entry.authorName, capturedAt: entry.capturedAt, ...fields as NoteFields } as NoteRow) }
    case 'search.add': {
      const step = payload.entry as SearchEntry
      const engineState = book.engine.stateNumber + (step.kind === 'repaired' && step.findingId === null ? 1 : 0)
      const known = book.search.some((row) => row.id === id)
      const row: SearchRow = { id, engineState, entry: step, reckoned: null, author: entry.authorName, capturedAt: entry.capturedAt }
      return known ? book : { ...book, engine: { ...book.engine, stateNumber: engineState }, search: [...book.search, row] }
    }
    case 'continuity.add': {
      const row: ContinuityRow = { id, engineState: book.engine.stateNumber, ...fields as ContinuityFields, author: entry.authorName, capturedAt: entry.capturedAt }
      return book.continuity.some((known) => known.id === id) ? book : { ...book, continuity: [...book.continuity, row] }
    }
    case 'knowledge.learn': {
      const { suspects, withdrawn } = fields as LearnFields
      return { ...book, learned: { ...book.learned, own: { suspects, withdrawn, at: entry.capturedAt, author: entry.authorName } } }
    }
    case 'sheet.save':
      return { ...book, sheets: upsert(book.sheets, { engineState: book.engine.stateNumber, openedAt: entry.capturedAt, readings: [], ...head(book.sheets, id, entry), ...fields as SheetFields } as SheetRow) }
    case 'reading.add':
      return withReading(book, payload.sheetId as string, { ...fields as ReadingFields, ...readingHead(entry), supersedesId: payload.supersedesId as string | null, struck: false, strikeReason: '' })
    case 'reading.strike': {
      const line = book.sheets.flatMap((sheet) => sheet.readings).find((reading) => reading.id === payload.readingId)
      return line ? withReading(book, line.sheetId, { ...line, ...readingHead(entry), struck: !line.struck, strikeReason: payload.reason as string, supersedesId: line.id }) : book
    }
    default:
      return book
  }
}

function head<R extends { id: string; version: number }>(rows: readonly R[], id: string, entry: QueuedCommand): { id: string; jobId: string; version: number } {
  const known = rows.find((row) => row.id === id)
  return { ...known, id, jobId: entry.lane, version: known?.version ?? 0 }
}

function readingHead(entry: QueuedCommand): Pick<ReadingRow, 'id' | 'sheetId' | 'source' | 'author' | 'capturedAt'> {
  return { id: entry.payload.id as string, sheetId: entry.payload.sheetId as string, source: 'typed', author: entry.authorName, capturedAt: entry.capturedAt }
}

function withReading(book: JobBook, sheetId: string, reading: ReadingRow): JobBook {
  return { ...book, sheets: book.sheets.map((sheet) => (sheet.id === sheetId ? { ...sheet, readings: upsert(sheet.readings, reading) } : sheet)) }
}

function upsert<R extends { id: string }>(rows: readonly R[], row: R): R[] {
  return rows.some((other) => other.id === row.id) ? rows.map((other) => (other.id === row.id ? row : other)) : [...rows, row]
}
