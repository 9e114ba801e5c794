import { boolean, date, double, index, int, json, mysqlTable, text, varchar } from 'drizzle-orm/mysql-core'
import type { EngineDescription } from '../../../core/engine/description-schema'
import type { Difference } from '../../../core/engine/difference-schema'
import type { OwnCareRows, PointAmount } from '../../../core/knowledge/care/own-care-rows'
import type { EngineUnit } from '../../../messages/book-entries'
import type { ComponentKind, Construction, MotorKind, Power } from '../../../messages/vocabulary'
import { uuidColumn, versionColumn } from '../column-types'

/** Owners, types, engines and what is fitted to them. */

export const owner = mysqlTable(
  'owner',
  {
    id: uuidColumn('id').primaryKey(),
    name: varchar('name', { length: 120 }).notNull(),
    email: varchar('email', { length: 160 }).notNull(),
    phone: varchar('phone', { length: 60 }).notNull(),
    address: varchar('address', { length: 400 }).notNull(),
    notes: text('notes').notNull(),
    /** The shop restores for itself too: it is then its own owner. */
    isShop: boolean('is_shop').notNull().default(false),
    version: versionColumn(),
  },
  (table) => [index('owner_name').on(table.name)],
)

/** A construction brought in or drawn up by the shop itself, whole. */
export const constructionTemplate = mysqlTable(
  'construction_template',
  {
    id: uuidColumn('id').primaryKey(),
    name: varchar('name', { length: 120 }).notNull(),
    description: json('description').$type<EngineDescription>().notNull(),
    version: versionColumn(),
  },
  (table) => [index('construction_template_name').on(table.name)],
)

export const engineType = mysqlTable(
  'engine_type',
  {
    id: uuidColumn('id').primaryKey(),
    maker: varchar('maker', { length: 80 }).notNull(),
    name: varchar('name', { length: 120 }).notNull(),
    variantMarks: varchar('variant_marks', { length: 200 }).notNull(),
    yearsMade: varchar('years_made', { length: 40 }).notNull(),
    gaugeMm: double('gauge_mm'),
    scaleId: varchar('scale_id', { length: 20 }),
    power: varchar('power', { length: 10 }).$type<Power>().notNull(),
    nominalVolts: double('nominal_volts').notNull(),
    construction: varchar('construction', { length: 40 }).$type<Construction>().notNull(),
    motorKind: varchar('motor_kind', { length: 20 }).$type<MotorKind>().notNull(),
    poles: int('poles'),
    gearRatio: double('gear_ratio'),
    wheelDiameterMm: double('wheel_diameter_mm'),
    pickupLayout: varchar('pickup_layout', { length: 300 }).notNull(),
    notes: text('notes').notNull(),
    /** A construction of the shop's own in place of one that ships. */
    templateId: uuidColumn('template_id').references(() => constructionTemplate.id),
    /** How the type departs from its construction. */
    adaptations: json('adaptations').$type<Difference[]>().notNull().default([]),
    makersAdvice: json('makers_advice').$type<PointAmount[]>(),
    careRows: json('care_rows').$type<OwnCareRows>(),
    version: versionColumn(),
  },
  (table) => [index('engine_type_name').on(table.maker, table.name)],
)

export const engine = mysqlTable(
  'engine',
  {
    id: uuidColumn('id').primaryKey(),
    ownerId: uuidColumn('owner_id')
      .notNull()
      .references(() => owner.id),
    typeId: uuidColumn('type_id')
      .notNull()
      .references(() => engineType.id),
    nickname: varchar('nickname', { length: 80 }).notNull(),
    runningNumber: varchar('running_number', { length: 40 }).notNull(),
    marks: varchar('marks', { length: 300 }).notNull(),
    condition: text('condition').notNull(),
    history: text('history').notNull(),
    differences: text('differences').notNull(),
    units: json('units').$type<EngineUnit[]>().notNull(),
    /** Counts repairs and refits: findings and sheets are judged on the state they were made in. */
    stateNumber: int('state_number').notNull().default(0),
    /** How this example departs from its type. */
    adaptations: json('adaptations').$type<Difference[]>().notNull().default([]),
    version: versionColumn(),
  },
  (table) => [index('engine_owner').on(table.ownerId), index('engine_type').on(table.typeId)],
)

export const component = mysqlTable(
  'component',
  {
    id: uuidColumn('id').primaryKey(),
    engineId: uuidColumn('engine_id')
      .notNull()
      .references(() => engine.id),
    kind: varchar('kind', { length: 20 }).$type<ComponentKind>().notNull(),
    description: varchar('description', { length: 200 }).notNull(),
    fittedOn: date('fitted_on', { mode: 'string' }),
    removedOn: date('removed_on', { mode: 'string' }),
    notes: varchar('notes', { length: 400 }).notNull(),
    version: versionColumn(),
  },
  (table) => [index('component_engine').on(table.engineId)],
)
