import { boolean, double, index, int, json, mysqlTable, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { KnowledgeChanges } from '../../../core/knowledge/knowledge-changes'
import type { Reckoned } from '../../../messages/reckoned'
import type { SheetStation } from '../../../messages/bench-entries'
import type { ReadingFields } from '../../../messages/readings/reading-kinds'
import type { CareEntry } from '../../../messages/care-entries'
import type { ContinuityFields } from '../../../messages/continuity-entries'
import type { SearchEntry } from '../../../messages/search-entries'
import type { StripEntry } from '../../../messages/strip-entries'
import type { FindingOrigin, FindingState, PartState, StationId, Supply } from '../../../messages/vocabulary'
import { instant, uuidColumn, versionColumn } from '../column-types'
import { person, meter } from './shop'
import { engineType } from './engines'
import { job } from './jobs'

/** What is found, measured and done in a job. */

export const finding = mysqlTable(
  'finding',
  {
    id: uuidColumn('id').primaryKey(),
    jobId: uuidColumn('job_id')
      .notNull()
      .references(() => job.id),
    engineState: int('engine_state').notNull(),
    what: varchar('what', { length: 300 }).notNull(),
    place: varchar('place', { length: 120 }).notNull(),
    state: varchar('state', { length: 20 }).$type<FindingState>().notNull(),
    origin: varchar('origin', { length: 20 }).$type<FindingOrigin>().notNull(),
    remedy: varchar('remedy', { length: 600 }).notNull(),
    notedAt: instant('noted_at').notNull(),
    version: versionColumn(),
  },
  (table) => [index('finding_job').on(table.jobId)],
)

/** Steps of the search for faults: only ever added to. */
export const searchEntry = mysqlTable(
  'search_entry',
  {
    id: uuidColumn('id').primaryKey(),
    jobId: uuidColumn('job_id')
      .notNull()
      .references(() => job.id),
    engineState: int('engine_state').notNull(),
    entry: json('entry').$type<SearchEntry>().notNull(),
    authorId: uuidColumn('author_id')
      .notNull()
      .references(() => person.id),
    capturedAt: instant('captured_at').notNull(),
    receivedAt: instant('received_at').notNull(),
  },
  (table) => [index('search_entry_job').on(table.jobId)],
)

/** Continuity, wheel by wheel: only ever added to; the latest of a place in a state counts. */
export const continuityReading = mysqlTable(
  'continuity_reading',
  {
    id: uuidColumn('id').primaryKey(),
    jobId: uuidColumn('job_id')
      .notNull()
      .references(() => job.id),
    engineState: int('engine_state').notNull(),
    point: varchar('point', { length: 90 }).notNull(),
    column: varchar('place', { length: 10 }).$type<ContinuityFields['column']>().notNull(),
    reading: json('reading').$type<ContinuityFields['reading']>().notNull(),
    words: varchar('words', { length: 200 }).notNull(),
    authorId: uuidColumn('author_id')
      .notNull()
      .references(() => person.id),
    capturedAt: instant('captured_at').notNull(),
    receivedAt: instant('received_at').notNull(),
  },
  (table) => [index('continuity_reading_job').on(table.jobId)],
)

/** What closed jobs taught, and when it was forgotten: only ever added to; the latest of a job counts. */
export const learned = mysqlTable(
  'learned',
  {
    id: uuidColumn('id').primaryKey(),
    /** Null where it says that what came before is forgotten. */
    jobId: uuidColumn('job_id').references(() => job.id),
    typeId: uuidColumn('type_id').references(() => engineType.id),
    /** Of the engine; null with what is forgotten of every construction. */
    construction: varchar('construction', { length: 60 }),
    suspects: json('suspects').$type<string[]>().notNull(),
    withdrawn: boolean('withdrawn').notNull(),
    authorId: uuidColumn('author_id')
      .notNull()
      .references(() => person.id),
    capturedAt: instant('captured_at').notNull(),
    receivedAt: instant('received_at').notNull(),
  },
  (table) => [
    index('learned_construction').on(table.construction, table.receivedAt),
    index('learned_job').on(table.jobId),
  ],
)

/** A type's own copy of the knowledge, as it departs from what ships; by the type's id. */
export const typeKnowledge = mysqlTable('type_knowledge', {
  id: uuidColumn('id')
    .primaryKey()
    .references(() => engineType.id),
  changes: json('changes').$type<KnowledgeChanges>().notNull(),
  version: versionColumn(),
})

/** What the server made of a job's search after a step, by the same reckoning as the screen's; null while it is waiting for it. */
export const searchReckoning = mysqlTable(
  'search_reckoning',
  {
    id: uuidColumn('id')
      .primaryKey()
      .references(() => searchEntry.id),
    jobId: uuidColumn('job_id')
      .notNull()
      .references(() => job.id),
    reckoned: json('reckoned').$type<Reckoned>(),
    reckonedAt: instant('reckoned_at'),
  },
  (table) => [index('search_reckoning_job').on(table.jobId)],
)

/** Taking apart and putting together: only ever added to. */
export const stripEntry = mysqlTable(
  'strip_entry',
  {
    id: uuidColumn('id').primaryKey(),
    jobId: uuidColumn('job_id')
      .notNull()
      .references(() => job.id),
    entry: json('entry').$type<StripEntry>().notNull(),
    authorId: uuidColumn('author_id')
      .notNull()
      .references(() => person.id),
    capturedAt: instant('captured_at').notNull(),
    receivedAt: instant('received_at').notNull(),
  },
  (table) => [index('strip_entry_job').on(table.jobId)],
)

/** Cleaning and oiling: only ever added to. */
export const careEntry = mysqlTable(
  'care_entry',
  {
    id: uuidColumn('id').primaryKey(),
    jobId: uuidColumn('job_id')
      .notNull()
      .references(() => job.id),
    entry: json('entry').$type<CareEntry>().notNull(),
    authorId: uuidColumn('author_id')
      .notNull()
      .references(() => person.id),
    capturedAt: instant('captured_at').notNull(),
    receivedAt: instant('received_at').notNull(),
  },
  (table) => [index('care_entry_job').on(table.jobId)],
)

/** Notes and minutes at a station: only ever added to. */
export const note = mysqlTable(
  'note',
  {
    id: uuidColumn('id').primaryKey(),
    jobId: uuidColumn('job_id')
      .notNull()
      .references(() => job.id),
    station: varchar('station', { length: 20 }).$type<StationId>().notNull(),
    text: text('text').notNull(),
    minutes: int('minutes').notNull(),
    authorId: uuidColumn('author_id')
      .notNull()
      .references(() => person.id),
    capturedAt: instant('captured_at').notNull(),
    receivedAt: instant('received_at').notNull(),
    supersedesId: uuidColumn('supersedes_id'),
  },
  (table) => [index('note_job').on(table.jobId)],
)

export const partWanted = mysqlTable(
  'part_wanted',
  {
    id: uuidColumn('id').primaryKey(),
    jobId: uuidColumn('job_id')
      .notNull()
      .references(() => job.id),
    what: varchar('what', { length: 200 }).notNull(),
    quantity: int('quantity').notNull(),
    state: varchar('state', { length: 20 }).$type<PartState>().notNull(),
    price: int('price'),
    version: versionColumn(),
  },
  (table) => [index('part_wanted_job').on(table.jobId)],
)

export const sheet = mysqlTable(
  'sheet',
  {
    id: uuidColumn('id').primaryKey(),
    jobId: uuidColumn('job_id')
      .notNull()
      .references(() => job.id),
    engineState: int('engine_state').notNull(),
    station: varchar('station', { length: 20 }).$type<SheetStation>().notNull(),
    withMeter: boolean('with_meter').notNull(),
    roomCelsius: double('room_celsius'),
    warmedUp: boolean('warmed_up').notNull(),
    supply: varchar('supply', { length: 20 }).$type<Supply>().notNull(),
    voltageMeterId: uuidColumn('voltage_meter_id').references(() => meter.id),
    currentMeterId: uuidColumn('current_meter_id').references(() => meter.id),
    remarks: varchar('remarks', { length: 1000 }).notNull(),
    openedAt: instant('opened_at').notNull(),
    version: versionColumn(),
  },
  (table) => [index('sheet_job').on(table.jobId)],
)

/** One line of a sheet. Never changed or deleted: a later row that supersedes it corrects it or strikes it out. */
export const reading = mysqlTable(
  'reading',
  {
    id: uuidColumn('id').primaryKey(),
    sheetId: uuidColumn('sheet_id')
      .notNull()
      .references(() => sheet.id),
    kind: varchar('kind', { length: 20 }).$type<ReadingFields['kind']>().notNull(),
    direction: varchar('direction', { length: 10 }).$type<'forward' | 'reverse'>(),
    quantities: json('quantities').$type<ReadingFields['quantities']>().notNull(),
    vouched: boolean('vouched').notNull(),
    source: varchar('source', { length: 10 }).$type<'typed' | 'measured'>().notNull(),
    struck: boolean('struck').notNull(),
    strikeReason: varchar('strike_reason', { length: 200 }).notNull(),
    supersedesId: uuidColumn('supersedes_id'),
    /** What only this kind of reading says: the step it was taken after, where a switch stood. */
    detail: json('detail').$type<Record<string, unknown>>(),
    authorId: uuidColumn('author_id')
      .notNull()
      .references(() => person.id),
    capturedAt: instant('captured_at').notNull(),
    receivedAt: instant('received_at').notNull(),
  },
  (table) => [index('reading_sheet').on(table.sheetId), uniqueIndex('reading_supersedes').on(table.supersedesId)],
)
