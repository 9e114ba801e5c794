import { boolean, char, date, double, index, mysqlTable, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { ShelfFields } from '../../../messages/care-entries'
import { instant, uuidColumn, versionColumn } from '../column-types'
import { engine } from './engines'
import { person } from './shop'

/** The shelf, running hours, and the feed of what is due. */

export const shelfProduct = mysqlTable('shelf_product', {
  id: uuidColumn('id').primaryKey(),
  name: varchar('name', { length: 80 }).notNull(),
  product: varchar('product', { length: 60 }).notNull(),
  labelled: varchar('labelled', { length: 20 }).$type<ShelfFields['labelled']>().notNull(),
  left: varchar('left_over', { length: 10 }).$type<ShelfFields['left']>().notNull(),
  openedOn: date('opened_on', { mode: 'string' }),
  notes: text('notes').notNull(),
  version: versionColumn(),
})

/** Hours an engine ran: only ever added to. One booking may hold many engines, each of them once. */
export const runningEntry = mysqlTable(
  'running_entry',
  {
    id: uuidColumn('id').primaryKey(),
    bookingId: uuidColumn('booking_id').notNull(),
    engineId: uuidColumn('engine_id')
      .notNull()
      .references(() => engine.id),
    day: date('day', { mode: 'string' }).notNull(),
    hours: double('hours').notNull(),
    /** What its hour meter showed; null without one. */
    meter: double('meter'),
    show: varchar('show_name', { length: 120 }).notNull(),
    authorId: uuidColumn('author_id')
      .notNull()
      .references(() => person.id),
    capturedAt: instant('captured_at').notNull(),
  },
  (table) => [
    // All the due list reads of it, so that twenty thousand rows are not looked up one by one.
    index('running_entry_ran').on(table.engineId, table.day, table.hours, table.show),
    uniqueIndex('running_entry_once').on(table.bookingId, table.engineId),
  ],
)

/** Secret addresses a calendar may fetch what is due from; the address itself is known to the calendar alone. */
export const calendarFeed = mysqlTable('calendar_feed', {
  id: uuidColumn('id').primaryKey(),
  tokenHash: char('token_hash', { length: 64 }).notNull().unique(),
  personId: uuidColumn('person_id')
    .notNull()
    .references(() => person.id),
  madeAt: instant('made_at').notNull(),
  revoked: boolean('revoked').notNull().default(false),
})
