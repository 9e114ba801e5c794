import { boolean, char, index, int, json, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core'
import type { PhoneAim, PhotographMark, PhotographSubject } from '../../../messages/photograph-entries'
import type { StationId } from '../../../messages/vocabulary'
import { bytesColumn, instant, uuidColumn, versionColumn } from '../column-types'
import { person } from './shop'
import { job } from './jobs'

/** Photographs and the phones that send them. */

export const photograph = mysqlTable(
  'photograph',
  {
    id: uuidColumn('id').primaryKey(),
    jobId: uuidColumn('job_id')
      .notNull()
      .references(() => job.id),
    station: varchar('station', { length: 20 }).$type<StationId>().notNull(),
    caption: varchar('caption', { length: 200 }).notNull(),
    mediaType: varchar('media_type', { length: 40 }).notNull(),
    width: int('width').notNull(),
    height: int('height').notNull(),
    size: int('size').notNull(),
    sha256: char('sha256', { length: 64 }).notNull(),
    /** What cameras write into a picture (place, device, owner) has been taken out of what is kept. */
    cleaned: boolean('cleaned').notNull().default(false),
    thumbnail: bytesColumn('thumbnail').notNull(),
    takenAt: instant('taken_at').notNull(),
    /** What it shows: a part's step or a finding; null where only its station is known. */
    about: json('about').$type<PhotographSubject>(),
    /** Rings and arrows; null is none. */
    marks: json('marks').$type<PhotographMark[]>(),
    version: versionColumn(),
  },
  (table) => [index('photograph_job').on(table.jobId)],
)

/** A photograph's bytes in rows of at most 1 MiB, so that no statement grows past the server's packet. */
export const photographBlock = mysqlTable(
  'photograph_block',
  {
    photographId: uuidColumn('photograph_id')
      .notNull()
      .references(() => photograph.id),
    ordinal: int('ordinal').notNull(),
    bytes: bytesColumn('bytes').notNull(),
  },
  (table) => [primaryKey({ columns: [table.photographId, table.ordinal] })],
)

/** A phone that may send photographs of one job for a while; the token itself is known to the phone alone. */
export const phoneAccess = mysqlTable(
  'phone_access',
  {
    id: uuidColumn('id').primaryKey(),
    tokenHash: char('token_hash', { length: 64 }).notNull().unique(),
    jobId: uuidColumn('job_id')
      .notNull()
      .references(() => job.id),
    personId: uuidColumn('person_id')
      .notNull()
      .references(() => person.id),
    aim: json('aim').$type<PhoneAim>().notNull(),
    expiresAt: instant('expires_at').notNull(),
  },
  (table) => [index('phone_access_expires').on(table.expiresAt)],
)
