import { asc, desc, eq, type SQL } from 'drizzle-orm'
import type { WorkshopFields } from '../../messages/bench-entries'
import {
  shippedSettings,
  type CareRow,
  type ContinuityRow,
  type FindingRow,
  type JobRow,
  type JournalRow,
  type NoteRow,
  type PersonRow,
  type PhotographRow,
  type ReadingRow,
  type SearchRow,
  type SheetRow,
  type StripRow,
  type TimerRow,
  type Workshop,
} from '../../messages/book'

import type { Database, Transaction } from '../db/book'
import type { job } from '../db/schema'
import { readingOfColumns } from '../db/reading-columns'
import {
  careEntry,
  continuityReading,
  finding,
  journal,
  note,
  person,
  photograph,
  reading,
  searchEntry,
  searchReckoning,
  setting,
  sheet,
  stripEntry,
  timer,
} from '../db/schema'

/** Rows of the book as they are sent, by any condition: a job's slice, or what a write has changed. Oldest first. */

export type Reads = Database | Transaction
type InJob<R> = R & { readonly jobId: string }

/** What a workshop is until its settings are written. */
export const newWorkshop: Workshop = {
  name: 'The bench',
  address: '',
  currency: 'GBP',
  hourlyRate: 0,
  taxPercent: 0,
  taxName: 'VAT',
  handBackFooter: '',
  ...shippedSettings,
}

export function jobRow({ searchText: _searchText, dueOrder: _dueOrder, ...row }: typeof job.$inferSelect): JobRow {
  return { ...row, takenInAt: row.takenInAt.toISOString(), handedBackAt: row.handedBackAt?.toISOString() ?? null }
}

export async function findingRows(from: Reads, where: SQL): Promise<FindingRow[]> {
  const rows = await from.select().from(finding).where(where).orderBy(asc(finding.notedAt), asc(finding.id))
  return rows.map((row) => ({ ...row, notedAt: row.notedAt.toISOString() }))
}

export async function noteRows(from: Reads, where: SQL): Promise<NoteRow[]> {
  const rows = await from
    .select({ row: note, author: person.name })
    .from(note)
    .innerJoin(person, eq(note.authorId, person.id))
    .where(where)
    .orderBy(asc(note.capturedAt), asc(note.id))
  return rows.map(({ row: { id, jobId, station, text, minutes, supersedesId, capturedAt }, author }) => ({
    id,
    jobId,
    station,
    text,
    minutes,
    supersedesId,
    author,
    capturedAt: capturedAt.toISOString(),
  }))
}

export async function searchRows(from: Reads, where: SQL): Promise<InJob<SearchRow>[]> {
  const rows = await from
    .select({ row: searchEntry, author: person.name, reckoned: searchReckoning.reckoned })
    .from(searchEntry)
    .innerJoin(person, eq(searchEntry.authorId, person.id))
    .leftJoin(searchReckoning, eq(searchReckoning.id, searchEntry.id))
    .where(where)
    .orderBy(asc(searchEntry.receivedAt), asc(searchEntry.id))
  return rows.map(({ row: { id, jobId, engineState, entry, capturedAt }, author, reckoned }) => ({
    id,
    jobId,
    engineState,
    entry,
    author,
    reckoned: reckoned ?? null,
    capturedAt: capturedAt.toISOString(),
  }))
}

export async function continuityRows(from: Reads, where: SQL): Promise<InJob<ContinuityRow>[]> {
  const rows = await from
    .select({ row: continuityReading, author: person.name })
    .from(continuityReading)
    .innerJoin(person, eq(continuityReading.authorId, person.id))
    .where(where)
    .orderBy(asc(continuityReading.receivedAt), asc(continuityReading.id))
  return rows.map(({ row: { id, jobId, engineState, point, column, reading: read, words, capturedAt }, author }) => ({
    id,
    jobId,
    engineState,
    point,
    column,
    reading: read,
    words,
    author,
    capturedAt: capturedAt.toISOString(),
  }))
}

export async function stripRows(from: Reads, where: SQL): Promise<StripRow[]> {
  const rows = await from
    .select({ row: stripEntry, author: person.name })
    .from(stripEntry)
    .innerJoin(person, eq(stripEntry.authorId, person.id))
    .where(where)
    .orderBy(asc(stripEntry.receivedAt), asc(stripEntry.id))
  return rows.map(({ row: { id, jobId, entry, capturedAt }, author }) => ({
    id,
    jobId,
    entry,
    author,
    capturedAt: capturedAt.toISOString(),
  }))
}

/** Sheets without their readings. */
export async function sheetRows(from: Reads, where: SQL): Promise<Omit<SheetRow, 'readings'>[]> {
  const rows = await from.select().from(sheet).where(where).orderBy(asc(sheet.openedAt), asc(sheet.id))
  return rows.map((row) => ({ ...row, openedAt: row.openedAt.toISOString() }))
}

export async function readingRows(from: Reads, where: SQL): Promise<InJob<ReadingRow>[]> {
  const rows = await from
    .select({ row: reading, jobId: sheet.jobId, author: person.name })
    .from(reading)
    .innerJoin(sheet, eq(reading.sheetId, sheet.id))
    .innerJoin(person, eq(reading.authorId, person.id))
    .where(where)
    .orderBy(asc(reading.capturedAt), asc(reading.id))
  return rows.map(({ row, jobId, author }) => ({
    id: row.id,
    jobId,
    sheetId: row.sheetId,
    source: row.source,
    struck: row.struck,
    strikeReason: row.strikeReason,
    supersedesId: row.supersedesId,
    author,
    capturedAt: row.capturedAt.toISOString(),
    ...readingOfColumns(row),
  }))
}

/** Photographs without their bytes. */
export async function photographRows(from: Reads, where: SQL): Promise<InJob<PhotographRow>[]> {
  const { id, jobId, station, caption, width, height, size, takenAt, about, marks, version } = photograph
  const rows = await from
    .select({ id, jobId, station, caption, width, height, size, takenAt, about, marks, version })
    .from(photograph)
    .where(where)
    .orderBy(asc(photograph.takenAt), asc(photograph.id))
  return rows.map((row) => ({ ...row, marks: row.marks ?? [], takenAt: row.takenAt.toISOString() }))
}

/** Cleaning and oiling, oldest first. */
export async function careRows(from: Reads, where: SQL): Promise<CareRow[]> {
  const rows = await from
    .select({ row: careEntry, author: person.name })
    .from(careEntry)
    .innerJoin(person, eq(careEntry.authorId, person.id))
    .where(where)
    .orderBy(asc(careEntry.capturedAt), asc(careEntry.id))
  return rows.map(({ row: { id, jobId, entry, capturedAt }, author }) => ({
    id,
    jobId,
    entry,
    author,
    capturedAt: capturedAt.toISOString(),
  }))
}

/** Timers by any condition, the next to ring first. */
export async function timerRows(from: Reads, where: SQL): Promise<TimerRow[]> {
  const rows = await from.select().from(timer).where(where).orderBy(asc(timer.endsAt), asc(timer.id))
  return rows.map((row) => ({ ...row, endsAt: row.endsAt.toISOString() }))
}

/** Lines of the journal, newest first. */
export async function journalRows(
  from: Reads,
  where: SQL,
  most: number,
): Promise<Array<JournalRow & { jobId: string | null }>> {
  const { sequence, summary, subject, jobId, capturedAt, receivedAt } = journal
  const rows = await from
    .select({ sequence, summary, person: person.name, subject, jobId, capturedAt, receivedAt })
    .from(journal)
    .innerJoin(person, eq(journal.personId, person.id))
    .where(where)
    .orderBy(desc(sequence))
    .limit(most)
  return rows.map((row) => ({
    ...row,
    capturedAt: row.capturedAt.toISOString(),
    receivedAt: row.receivedAt.toISOString(),
  }))
}

/** People without what their passwords are checked by. */
export async function personRows(from: Reads, where?: SQL): Promise<PersonRow[]> {
  const { id, signInName, name, role, active, version } = person
  return from
    .select({ id, signInName, name, role, active, version })
    .from(person)
    .where(where)
    .orderBy(asc(person.name))
}

/** The settings, what was never written as it ships. */
export async function workshopSettings(from: Reads): Promise<{ workshop: Workshop; version: number }> {
  const [row] = await from.select().from(setting).where(eq(setting.key, 'workshop'))
  return { workshop: { ...newWorkshop, ...(row?.value as WorkshopFields | undefined) }, version: row?.version ?? 0 }
}
