import { asc, eq } from 'drizzle-orm'
import {
  jobSlices,
  type JobBook,
  type JobHead,
  type JobSlice,
  type JobSlices,
  type JournalRow,
  type LoadedJob,
} from '../../messages/book'
import type { Database } from '../db/book'
import {
  careEntry,
  component,
  continuityReading,
  engine,
  engineType,
  finding,
  job,
  journal,
  note,
  owner,
  partWanted,
  photograph,
  searchEntry,
  sheet,
  stripEntry,
} from '../db/schema'
import { notInTheBook } from '../problems'
import {
  careRows,
  continuityRows,
  findingRows,
  journalRows,
  jobRow,
  noteRows,
  photographRows,
  readingRows,
  searchRows,
  sheetRows,
  stripRows,
} from './book-rows'
import { earlierFindings } from './earlier-findings'
import { readLearned } from './read-learned'
import { readCleaningMinutes } from './cleaning-minutes'
import { readStepMinutes } from './step-minutes'
import { readPractice } from './read-practice'

/** Everything of one job, for its hand-back sheet and its search. */
export async function readJob(database: Database, id: string): Promise<JobBook> {
  return (await readJobSlices(database, id, jobSlices)) as JobBook
}

/** The head of a job's book, and the slices asked for. */
export async function readJobSlices(database: Database, id: string, slices: readonly JobSlice[]): Promise<LoadedJob> {
  const head = await readHead(database, id)
  const entries = await Promise.all(
    [...new Set(slices)].map(async (slice) => [slice, await sliceReaders[slice](database, head)] as const),
  )
  return { ...head, ...(Object.fromEntries(entries) as Partial<JobSlices>) }
}

async function readHead(database: Database, id: string): Promise<JobHead> {
  const [head] = await database
    .select({ job, engine, type: engineType, owner })
    .from(job)
    .innerJoin(engine, eq(job.engineId, engine.id))
    .innerJoin(engineType, eq(engine.typeId, engineType.id))
    .innerJoin(owner, eq(engine.ownerId, owner.id))
    .where(eq(job.id, id))
  if (!head) throw notInTheBook('job')
  const components = await database
    .select()
    .from(component)
    .where(eq(component.engineId, head.engine.id))
    .orderBy(asc(component.fittedOn))
  return { ...head, job: jobRow(head.job), components }
}

const sliceReaders: { readonly [S in JobSlice]: (database: Database, head: JobHead) => Promise<JobSlices[S]> } = {
  findings: (database, head) => findingRows(database, eq(finding.jobId, head.job.id)),
  notes: (database, head) => noteRows(database, eq(note.jobId, head.job.id)),
  parts: (database, head) =>
    database.select().from(partWanted).where(eq(partWanted.jobId, head.job.id)).orderBy(asc(partWanted.id)),
  search: (database, head) => searchRows(database, eq(searchEntry.jobId, head.job.id)),
  continuity: (database, head) => continuityRows(database, eq(continuityReading.jobId, head.job.id)),
  strip: (database, head) => stripRows(database, eq(stripEntry.jobId, head.job.id)),
  photographs: (database, head) => photographRows(database, eq(photograph.jobId, head.job.id)),
  sheets: async (database, head) => {
    const [sheets, readings] = await Promise.all([
      sheetRows(database, eq(sheet.jobId, head.job.id)),
      readingRows(database, eq(sheet.jobId, head.job.id)),
    ])
    return sheets.map((row) => ({ ...row, readings: readings.filter((line) => line.sheetId === row.id) }))
  },
  learned: (database, { job: { id }, type }) =>
    readLearned(database, { construction: type.templateId ?? type.construction, typeId: type.id, jobId: id }),
  practice: (database, head) => readPractice(database, head.type.id),
  care: (database, head) => careRows(database, eq(careEntry.jobId, head.job.id)),
  cleaningMinutes: (database, head) => readCleaningMinutes(database, head.job.id),
  stepMinutes: (database, head) => readStepMinutes(database, head.type.id, head.job.id),
  earlier: (database, head) => earlierFindings(database, { ...head.job, takenInAt: new Date(head.job.takenInAt) }),
  journal: (database, head) => lastOfJournal(database, head.job.id),
}

const LINES_SHOWN = 100

/** The job's latest journal entries; that they are this job's goes without saying. */
async function lastOfJournal(database: Database, id: string): Promise<JournalRow[]> {
  return (await journalRows(database, eq(journal.jobId, id), LINES_SHOWN)).map(({ jobId: _job, ...row }) => row)
}
