import { sql } from 'drizzle-orm'
import { boolean, date, index, int, json, mysqlTable, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { Circumstance } from '../../../core/knowledge/knowledge-schema'
import type { ArrivalItem, ToldObservation } from '../../../messages/book-entries'
import type { JobState, StationId } from '../../../messages/vocabulary'
import { foldedTextColumn, instant, uuidColumn, versionColumn } from '../column-types'
import { engine } from './engines'
import { parcel } from './parcels'

/** The jobs. */

/** Named where a search asks for it. */
export const JOB_SEARCH_INDEX = 'job_search'

export const job = mysqlTable(
  'job',
  {
    id: uuidColumn('id').primaryKey(),
    number: int('number').notNull(),
    engineId: uuidColumn('engine_id')
      .notNull()
      .references(() => engine.id),
    state: varchar('state', { length: 20 }).$type<JobState>().notNull(),
    station: varchar('station', { length: 20 }).$type<StationId>().notNull(),
    waitingFor: varchar('waiting_for', { length: 200 }).notNull(),
    complaint: varchar('complaint', { length: 1000 }).notNull(),
    trial: varchar('trial', { length: 400 }).notNull(),
    trialAttempts: int('trial_attempts').notNull(),
    wanted: varchar('wanted', { length: 1000 }).notNull(),
    moneyLimit: int('money_limit'),
    sentimental: boolean('sentimental').notNull(),
    consent: varchar('consent', { length: 400 }).notNull(),
    conditionOnArrival: text('condition_on_arrival').notNull(),
    arrivals: json('arrivals').$type<ArrivalItem[]>().notNull(),
    parcelId: uuidColumn('parcel_id').references(() => parcel.id),
    told: json('told').$type<ToldObservation[]>(),
    past: json('past').$type<Circumstance[]>(),
    dueOn: date('due_on', { mode: 'string' }),
    estimateMinutes: int('estimate_minutes'),
    takenInAt: instant('taken_in_at').notNull(),
    handedBackAt: instant('handed_back_at'),
    handBack: json('hand_back').$type<{
      leftUndone: string
      lubricants: string
      dueAgain: string
      partsReturned: string
      price: number | null
    }>(),
    /** What the search looks through: number, complaint, engine, type and owner, kept in step by the writes that change them. */
    searchText: foldedTextColumn('search_text').notNull(),
    /** The due day with undated jobs last, so that the order can be read off an index. */
    dueOrder: date('due_order', { mode: 'string' }).generatedAlwaysAs(sql`ifnull(due_on, '9999-12-31')`, {
      mode: 'stored',
    }),
    version: versionColumn(),
  },
  (table) => [
    uniqueIndex('job_number').on(table.number),
    index('job_engine').on(table.engineId),
    index('job_parcel').on(table.parcelId),
    index('job_state_due').on(table.state, table.dueOrder, table.takenInAt),
    index('job_state_taken_in').on(table.state, table.takenInAt),
    index('job_state_handed_back').on(table.state, table.handedBackAt),
    index('job_station').on(table.station, table.state),
    index('job_due').on(table.dueOrder, table.takenInAt),
    index('job_taken_in').on(table.takenInAt),
    // A search reads this index from end to end instead of the whole rows; it holds all a list filters and orders by.
    index(JOB_SEARCH_INDEX).on(
      table.searchText,
      table.state,
      table.station,
      table.takenInAt,
      table.dueOrder,
      table.number,
    ),
  ],
)
