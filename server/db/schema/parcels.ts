import { date, index, json, mysqlTable, text, varchar } from 'drizzle-orm/mysql-core'
import type { ParcelItem } from '../../../messages/parcel-entries'
import { uuidColumn, versionColumn } from '../column-types'
import { owner } from './engines'

/** A parcel with several engines, and what lay loose in it. */
export const parcel = mysqlTable(
  'parcel',
  {
    id: uuidColumn('id').primaryKey(),
    ownerId: uuidColumn('owner_id')
      .notNull()
      .references(() => owner.id),
    arrivedOn: date('arrived_on', { mode: 'string' }).notNull(),
    came: varchar('came', { length: 200 }).notNull(),
    condition: text('condition_on_arrival').notNull(),
    items: json('items').$type<ParcelItem[]>().notNull(),
    packed: json('packed').$type<string[]>().notNull(),
    sentBackOn: date('sent_back_on', { mode: 'string' }),
    remarks: varchar('remarks', { length: 400 }).notNull(),
    version: versionColumn(),
  },
  (table) => [index('parcel_owner').on(table.ownerId), index('parcel_here').on(table.sentBackOn, table.arrivedOn)],
)
