import { asc, desc, eq } from 'drizzle-orm'
import type { JobBook, JournalRow } from '../../shared/book'
import type { Database } from '../db/book'
import { component, continuityReading, engine, engineType, finding, job, journal, note, owner, partWanted, person, photograph, reading, searchEntry, searchReckoning, sheet } from '../db/schema'
import { notInTheBook } from '../problems'
import { earlierFindings } from './earlier-findings'
import { readPractice } from './read-practice'
import { readLearned } from './read-learned'

/** Everything of one job, for its screen and its hand-back sheet. */
export async function readJob(database: Database, id: string): Promise<JobBook> {
  const [head] = await database.select({ job, engine, type: engineType, owner }).from(job)
    .innerJoin(engine, eq(job.engineId, engine.id)).innerJoin(engineType, eq(engine.typeId, engineType.id)).innerJoin(owner, eq(engine.ownerId, owner.id))
    .where(eq(job.id, id))
  if (!head) throw notInTheBook('job')
  const [components, findings, notes, parts, sheets, readings, photographs, search, continuity, entries] = await Promise.all([
    database.select().from(component).where(eq(component.engineId, head.engine.id)).orderBy(asc(component.fittedOn)),
    database.select().from(finding).where(eq(finding.jobId, id)).orderBy(asc(finding.notedAt), asc(finding.id)),
    database.select({ note, author: person.name }).from(note).innerJoin(person, eq(note.authorId, person.id)).where(eq(note.jobId, id)).orderBy(asc(note.capturedAt), asc(note.id)),
    database.select().from(partWanted).where(eq(partWanted.jobId, id)).orderBy(asc(partWanted.id)),
    database.select().from(sheet).where(eq(sheet.jobId, id)).orderBy(asc(sheet.openedAt), asc(sheet.id)),
    database.select({ reading, author: person.name }).from(reading).innerJoin(sheet, eq(reading.sheetId, sheet.id)).innerJoin(person, eq(reading.authorId, person.id))
      .where(eq(sheet.jobId, id)).orderBy(asc(reading.capturedAt), asc(reading.id)),
    database.select({ id: photograph.id, station: photograph.station, caption: photograph.caption, width: photograph.width, height: photograph.height, size: photograph.size, takenAt: photograph.takenAt })
      .from(photograph).where(eq(photograph.jobId, id)).orderBy(asc(photograph.takenAt)),
    database.select({ row: searchEntry, author: person.name, reckoned: searchReckoning.reckoned }).from(searchEntry).innerJoin(person, eq(searchEntry.authorId, person.id)).leftJoin(searchReckoning, eq(searchReckoning.id, searchEntry.id)).where(eq(searchEntry.jobId, id)).orderBy(asc(searchEntry.receivedAt), asc(searchEntry.id)),
    database.select({ row: continuityReading, author: person.name }).from(continuityReading).innerJoin(person, eq(continuityReading.authorId, person.id)).where(eq(continuityReading.jobId, id)).orderBy(asc(continuityReading.receivedAt), asc(continuityReading.id)),
    journalOfJob(database, id),
  ])
  const learned = await readLearned(database, { construction: head.type.templateId ?? head.type.construction, typeId: head.type.id, jobId: id })
  const practice = await readPractice(database, head.type.id)
  const earlier = await earlierFindings(database, head.job)
  const { searchText: _searchText, dueOrder: _dueOrder, ...jobRow } = head.job
  return {
    job: { ...jobRow, takenInAt: jobRow.takenInAt.toISOString(), handedBackAt: jobRow.handedBackAt?.toISOString() ?? null },
    engine: head.engine,
    type: head.type,
    owner: head.owner,
    components,
    learned,
    findings: findings.map((row) => ({ ...row, notedAt: row.notedAt.toISOString() })),
    notes: notes.map((row) => ({ ...row.note, author: row.author, capturedAt: row.note.capturedAt.toISOString() })),
    parts,
    search: search.map(({ row, author, reckoned }) => ({ id: row.id, engineState: row.engineState, entry: row.entry, author, reckoned: reckoned ?? null, capturedAt: row.capturedAt.toISOString() })),
    continuity: continuity.map(({ row, author }) => ({ id: row.id, engineState: row.engineState, point: row.point, column: row.column, reading: row.reading, words: row.words, author, capturedAt: row.capturedAt.toISOString() })),
    sheets: sheets.map((row) => ({
      ...row,
      openedAt: row.openedAt.toISOString(),
      readings: readings.filter((line) => line.reading.sheetId === row.id)
        .map((line) => ({ ...line.reading, author: line.author, capturedAt: line.reading.capturedAt.toISOString() })),
    })),
    photographs: photographs.map((row) => ({ ...row, takenAt: row.takenAt.toISOString() })),
    journal: entries,
    practice,
    earlier,
  }
}

/** The job's last hundred journal entries, newest first. */
async function journalOfJob(database: Database, id: string): Promise<JournalRow[]> {
  const rows = await database.select({ sequence: journal.sequence, summary: journal.summary, person: person.name, subject: journal.subject, capturedAt: journal.capturedAt, receivedAt: journal.receivedAt })
    .from(journal).innerJoin(person, eq(journal.personId, person.id)).where(eq(journal.jobId, id)).orderBy(desc(journal.sequence)).limit(100)
  return rows.map((row) => ({ ...row, capturedAt: row.capturedAt.toISOString(), receivedAt: row.receivedAt.toISOString() }))
}
