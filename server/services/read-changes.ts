import { eq, inArray } from 'drizzle-orm'
import type { Changes } from '../../messages/changes'
import type { JournalEntry } from '../commands/write'
import {
  careEntry,
  component,
  continuityReading,
  engine,
  engineType,
  finding,
  instrument,
  job,
  journal,
  learned,
  meter,
  note,
  owner,
  parcel,
  partWanted,
  person,
  photograph,
  reading,
  searchEntry,
  sheet,
  shelfProduct,
  stripEntry,
  timer,
  typeKnowledge,
} from '../db/schema'
import {
  careRows,
  continuityRows,
  findingRows,
  journalRows,
  jobRow,
  noteRows,
  personRows,
  photographRows,
  readingRows,
  searchRows,
  sheetRows,
  stripRows,
  timerRows,
  workshopSettings,
  type Reads,
} from './book-rows'
import { copyInTodaysForm } from './read-practice'

/** What a write entered in the journal, as far as it tells which rows to read again. */
export type Touched = Pick<JournalEntry, 'subject' | 'subjectId'> & { readonly jobId?: string | null | undefined }

/**
 * The rows a command has changed, as they are now: of its journal's subjects, of the engine whose state they may have
 * stepped, and the journal's own lines. A repeated command gets its rows as they have become since.
 */
export async function readChanges(from: Reads, commandId: string, touched: readonly Touched[]): Promise<Changes> {
  const idsOf = (subject: Touched['subject']): string[] => [
    ...new Set(touched.filter((entry) => entry.subject === subject).map((entry) => entry.subjectId)),
  ]
  const read = async <R>(
    subject: Touched['subject'],
    rows: (ids: string[]) => Promise<R[]>,
  ): Promise<R[] | undefined> => {
    const ids = idsOf(subject)
    return ids.length === 0 ? undefined : rows(ids)
  }
  // One after the other: they share one connection.
  const changes = {
    jobs: await read('job', async (ids) => (await from.select().from(job).where(inArray(job.id, ids))).map(jobRow)),
    types: await read('engine-type', (ids) => from.select().from(engineType).where(inArray(engineType.id, ids))),
    owners: await read('owner', (ids) => from.select().from(owner).where(inArray(owner.id, ids))),
    components: await read('component', (ids) => from.select().from(component).where(inArray(component.id, ids))),
    findings: await read('finding', (ids) => findingRows(from, inArray(finding.id, ids))),
    notes: await read('note', (ids) => noteRows(from, inArray(note.id, ids))),
    parts: await read('part', (ids) => from.select().from(partWanted).where(inArray(partWanted.id, ids))),
    search: await read('search', (ids) => searchRows(from, inArray(searchEntry.id, ids))),
    strip: await read('strip', (ids) => stripRows(from, inArray(stripEntry.id, ids))),
    care: await read('care', (ids) => careRows(from, inArray(careEntry.id, ids))),
    shelf: await read('shelf', (ids) => from.select().from(shelfProduct).where(inArray(shelfProduct.id, ids))),
    parcels: await read('parcel', (ids) => from.select().from(parcel).where(inArray(parcel.id, ids))),
    continuity: await read('continuity', (ids) => continuityRows(from, inArray(continuityReading.id, ids))),
    sheets: await read('sheet', (ids) => sheetRows(from, inArray(sheet.id, ids))),
    readings: await read('reading', (ids) => readingRows(from, inArray(reading.id, ids))),
    photographs: await read('photograph', (ids) => photographRows(from, inArray(photograph.id, ids))),
    learned: await read('knowledge', (ids) => learnedRows(from, ids)),
    practice: await read('knowledge', (ids) => practiceRows(from, ids)),
    meters: await read('meter', (ids) => from.select().from(meter).where(inArray(meter.id, ids))),
    instruments: await read('instrument', (ids) => from.select().from(instrument).where(inArray(instrument.id, ids))),
    people: await read('person', (ids) => personRows(from, inArray(person.id, ids))),
    timers: await read('timer', (ids) => timerRows(from, inArray(timer.id, ids))),
    workshop: await read('setting', async () => [await workshopSettings(from)]),
    engines: await steppedEngines(from, touched),
    journal: await journalRows(from, eq(journal.commandId, commandId), MOST_LINES),
  }
  return Object.fromEntries(
    Object.entries(changes).filter(([, rows]) => rows !== undefined && rows.length > 0),
  ) as Changes
}

/** Engines named, and those whose state a finding, a repair or a component may have stepped. */
async function steppedEngines(from: Reads, touched: readonly Touched[]) {
  const ids = new Set(touched.filter((entry) => entry.subject === 'engine').map((entry) => entry.subjectId))
  const jobIds = touched.flatMap((entry) =>
    (entry.subject === 'finding' || entry.subject === 'search') && entry.jobId ? [entry.jobId] : [],
  )
  if (jobIds.length > 0)
    for (const row of await from.select({ id: job.engineId }).from(job).where(inArray(job.id, jobIds))) ids.add(row.id)
  const componentIds = touched.flatMap((entry) => (entry.subject === 'component' ? [entry.subjectId] : []))
  if (componentIds.length > 0)
    for (const row of await from
      .select({ id: component.engineId })
      .from(component)
      .where(inArray(component.id, componentIds)))
      ids.add(row.id)
  return ids.size === 0
    ? undefined
    : from
        .select()
        .from(engine)
        .where(inArray(engine.id, [...ids]))
}

async function learnedRows(from: Reads, ids: string[]) {
  const rows = await from
    .select({ row: learned, author: person.name })
    .from(learned)
    .innerJoin(person, eq(learned.authorId, person.id))
    .where(inArray(learned.id, ids))
  return rows.flatMap(({ row, author }) =>
    row.jobId === null
      ? []
      : [
          {
            jobId: row.jobId,
            suspects: row.suspects,
            withdrawn: row.withdrawn,
            at: row.capturedAt.toISOString(),
            author,
          },
        ],
  )
}

async function practiceRows(from: Reads, typeIds: string[]) {
  const rows = await from.select().from(typeKnowledge).where(inArray(typeKnowledge.id, typeIds))
  return rows.map((row) => ({ typeId: row.id, changes: copyInTodaysForm(row.changes), version: row.version }))
}

/** A command leaves few lines. */
const MOST_LINES = 50
