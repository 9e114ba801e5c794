import { bigint, boolean, double, index, int, json, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import type { InstrumentFields } from '../../../messages/bench-entries'
import type { ArrivalFate, Role } from '../../../messages/vocabulary'
import { instant, uuidColumn, versionColumn } from '../column-types'

/** The shop itself: people, sessions, settings, meters, instruments. */

export type { ArrivalFate }

export const person = mysqlTable(
  'person',
  {
    id: uuidColumn('id').primaryKey(),
    signInName: varchar('sign_in_name', { length: 40 }).notNull(),
    name: varchar('name', { length: 120 }).notNull(),
    role: varchar('role', { length: 20 }).$type<Role>().notNull(),
    active: boolean('active').notNull().default(true),
    passwordHash: varchar('password_hash', { length: 255 }).notNull(),
    version: versionColumn(),
  },
  (table) => [uniqueIndex('person_sign_in_name').on(table.signInName)],
)

/** Who is signed in where: a row a device, gone when it ends. The number travels in a sealed cookie. */
export const session = mysqlTable(
  'session',
  {
    id: uuidColumn('id').primaryKey(),
    personId: uuidColumn('person_id')
      .notNull()
      .references(() => person.id),
    startedAt: instant('started_at').notNull(),
    lastSeenAt: instant('last_seen_at').notNull(),
  },
  (table) => [index('session_person').on(table.personId)],
)

/** Tries to sign in, counted by the package that throttles them; here so that a restart forgets none. */
export const signInTry = mysqlTable('sign_in_try', {
  key: varchar('key', { length: 255 }).primaryKey(),
  points: int('points').notNull().default(0),
  expire: bigint('expire', { mode: 'number', unsigned: true }),
})

/** Workshop settings by key, each with its own version. */
export const setting = mysqlTable('setting', {
  key: varchar('key', { length: 60 }).primaryKey(),
  value: json('value').notNull(),
  version: versionColumn(),
})

/** Running numbers that have neither gaps nor twins: the row is locked until the write that took one is done. */
export const counter = mysqlTable('counter', {
  name: varchar('name', { length: 30 }).primaryKey(),
  value: int('value').notNull(),
})

export const meter = mysqlTable('meter', {
  id: uuidColumn('id').primaryKey(),
  name: varchar('name', { length: 120 }).notNull(),
  measures: varchar('measures', { length: 20 }).$type<'voltage' | 'current' | 'resistance'>().notNull(),
  rangeTop: double('range_top').notNull(),
  resolution: double('resolution').notNull(),
  percentOfReading: double('percent_of_reading').notNull(),
  digits: double('digits').notNull(),
  retired: boolean('retired').notNull().default(false),
  version: versionColumn(),
})

/** A bench supply with meter, simulated or on the shop's network. */
export const instrument = mysqlTable('instrument', {
  id: uuidColumn('id').primaryKey(),
  name: varchar('name', { length: 120 }).notNull(),
  kind: varchar('kind', { length: 20 }).$type<InstrumentFields['kind']>().notNull(),
  host: varchar('host', { length: 120 }).notNull(),
  port: int('port').notNull(),
  leadOhms: double('lead_ohms').notNull(),
  commands: json('commands').$type<InstrumentFields['commands']>().notNull(),
  voltage: json('voltage').$type<InstrumentFields['voltage']>().notNull(),
  current: json('current').$type<InstrumentFields['current']>().notNull(),
  retired: boolean('retired').notNull().default(false),
  version: versionColumn(),
})
