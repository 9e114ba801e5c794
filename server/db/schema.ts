import { sql } from 'drizzle-orm'
import {
  bigint,
  boolean,
  char,
  date,
  double,
  index,
  int,
  json,
  mysqlTable,
  primaryKey,
  text,
  uniqueIndex,
  varchar,
} from 'drizzle-orm/mysql-core'
import type { EngineDescription } from '../../core/engine/description-schema'
import type { KnowledgeChanges } from '../../core/knowledge/knowledge-changes'
import type { Difference } from '../../core/engine/difference-schema'
import type { Reckoned } from '../../messages/reckoned'
import type { ArrivalItem, EngineUnit } from '../../messages/book-entries'
import type { InstrumentFields, ReadingFields, SheetStation } from '../../messages/bench-entries'
import type { ContinuityFields } from '../../messages/continuity-entries'
import type { SearchEntry } from '../../messages/search-entries'
import type { StripEntry } from '../../messages/strip-entries'
import type {
  ArrivalFate,
  ComponentKind,
  Construction,
  FindingOrigin,
  FindingState,
  JobState,
  MotorKind,
  PartState,
  Power,
  Role,
  StationId,
  Supply,
} from '../../messages/vocabulary'
import { bytesColumn, foldedTextColumn, instant, uuidColumn, versionColumn } from './column-types'

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
    index('job_state_due').on(table.state, table.dueOrder, table.takenInAt),
    index('job_state_taken_in').on(table.state, table.takenInAt),
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
    step: varchar('step', { length: 120 }).notNull().default(''),
    authorId: uuidColumn('author_id')
      .notNull()
      .references(() => person.id),
    capturedAt: instant('captured_at').notNull(),
    receivedAt: instant('received_at').notNull(),
  },
  (table) => [index('reading_sheet').on(table.sheetId), uniqueIndex('reading_supersedes').on(table.supersedesId)],
)

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
