import { sql } from 'drizzle-orm'
import { boolean, char, index, int, json, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { StationId } from '../../../messages/vocabulary'
import { instant, uuidColumn } from '../column-types'
import { person } from './shop'
import { job } from './jobs'

/** Waits, and the journal of every write. */

/** Waits of the shop; stopped ones stay for the journal's sake. */
export const timer = mysqlTable(
  'timer',
  {
    id: uuidColumn('id').primaryKey(),
    jobId: uuidColumn('job_id').references(() => job.id),
    station: varchar('station', { length: 20 }).$type<StationId>(),
    label: varchar('label', { length: 120 }).notNull(),
    endsAt: instant('ends_at').notNull(),
    stopped: boolean('stopped').notNull().default(false),
  },
  (table) => [index('timer_stopped').on(table.stopped)],
)

/**
 * Who did what, when, to which subject, with the row before and after. Written in the transaction of the write
 * itself. Ordinal 0 of a command carries its body's hash and the stored result, which answers a repeat.
 */
export const journal = mysqlTable(
  'journal',
  {
    sequence: int('sequence', { unsigned: true }).autoincrement().primaryKey(),
    commandId: uuidColumn('command_id').notNull(),
    ordinal: int('ordinal').notNull(),
    command: varchar('command', { length: 40 }).notNull(),
    bodyHash: char('body_hash', { length: 64 }).notNull(),
    result: json('result'),
    personId: uuidColumn('person_id')
      .notNull()
      .references(() => person.id),
    subject: varchar('subject', { length: 30 }).notNull(),
    subjectId: varchar('subject_id', { length: 60 }).notNull(),
    jobId: uuidColumn('job_id'),
    summary: varchar('summary', { length: 400 }).notNull(),
    before: json('before'),
    after: json('after'),
    capturedAt: instant('captured_at').notNull(),
    receivedAt: instant('received_at')
      .notNull()
      .default(sql`current_timestamp(3)`),
  },
  (table) => [
    uniqueIndex('journal_command').on(table.commandId, table.ordinal),
    index('journal_subject').on(table.subject, table.subjectId),
    index('journal_job').on(table.jobId),
  ],
)
