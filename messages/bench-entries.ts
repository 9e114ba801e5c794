import { Type, type Static } from 'typebox'
import {
  currencies,
  findingOrigins,
  findingStates,
  jobStates,
  partStates,
  roles,
  stationIds,
  supplies,
} from './vocabulary'
import { tools } from '../core/engine/description-schema'
import { OwnCareRows } from '../core/knowledge/care/own-care-rows'
import { TrayFields } from './strip-entries'
import { closed, Id, Line, Minutes, Money, NeededLine, OneOf, OrNull, Prose } from './parts'

/** What is written down at the bench: findings, notes, parts, sheets and readings; and the workshop's settings. */

export const FindingFields = Type.Object(
  {
    what: NeededLine(300),
    place: Line(120),
    state: OneOf(findingStates),
    origin: OneOf(findingOrigins),
    remedy: Line(600),
  },
  closed,
)
export type FindingFields = Static<typeof FindingFields>

export const NoteFields = Type.Object(
  {
    station: OneOf(stationIds),
    text: Line(4000),
    minutes: Minutes,
    supersedesId: OrNull(Id),
  },
  closed,
)
export type NoteFields = Static<typeof NoteFields>

export const PartFields = Type.Object(
  {
    what: NeededLine(200),
    quantity: Type.Integer({ minimum: 1, maximum: 999 }),
    state: OneOf(partStates),
    price: OrNull(Money),
  },
  closed,
)
export type PartFields = Static<typeof PartFields>

/** Where readings are taken: before the work, at each step back together, and after it. */
export const sheetStations = ['first-run', 'rebuild', 'prove'] as const
export type SheetStation = (typeof sheetStations)[number]

export const SheetFields = Type.Object(
  {
    station: OneOf(sheetStations),
    withMeter: Type.Boolean(),
    roomCelsius: OrNull(Type.Number({ minimum: -20, maximum: 60 })),
    warmedUp: Type.Boolean(),
    supply: OneOf(supplies),
    voltageMeterId: OrNull(Id),
    currentMeterId: OrNull(Id),
    remarks: Line(1000),
  },
  closed,
)
export type SheetFields = Static<typeof SheetFields>

export const MeterFields = Type.Object(
  {
    name: NeededLine(120),
    measures: OneOf(['voltage', 'current', 'resistance'] as const),
    rangeTop: Type.Number({ exclusiveMinimum: 0, maximum: 1e9 }),
    resolution: Type.Number({ exclusiveMinimum: 0, maximum: 1e6 }),
    percentOfReading: Type.Number({ minimum: 0, maximum: 50 }),
    digits: Type.Number({ minimum: 0, maximum: 1000 }),
    retired: Type.Boolean(),
  },
  closed,
)
export type MeterFields = Static<typeof MeterFields>

const Accuracy = Type.Object(
  {
    percentOfReading: Type.Number({ minimum: 0, maximum: 50 }),
    digits: Type.Number({ minimum: 0, maximum: 1000 }),
    resolution: Type.Number({ exclusiveMinimum: 0, maximum: 1000 }),
  },
  closed,
)
/** One printable line: a supply is told one thing at a time. */
const Command = Type.String({ maxLength: 120, pattern: '^[\\x20-\\x7e]*$' })

/** A bench supply with meter: the simulated one that ships, or one on the shop's network. */
export const InstrumentFields = Type.Object(
  {
    name: NeededLine(120),
    kind: OneOf(['simulated', 'network'] as const),
    /** A name or number in the shop's own network; empty for the simulated one. */
    host: Type.String({ maxLength: 120, pattern: '^[A-Za-z0-9.:-]*$' }),
    port: Type.Integer({ minimum: 1, maximum: 65_535 }),
    /** Ω of both test leads together, taken off every voltage. */
    leadOhms: Type.Number({ minimum: 0, maximum: 100 }),
    commands: Type.Object(
      {
        identify: Command,
        setVolts: Command,
        setAmpsLimit: Command,
        outputOn: Command,
        outputOff: Command,
        polarityNormal: Command,
        polarityReversed: Command,
        measureVolts: Command,
        measureAmps: Command,
        nextError: Command,
        watchdog: Command,
        record: Command,
        recorded: Command,
        recordRate: Command,
        /** Added later: an instrument entered before has none and gives DC only. */
        frequency: Type.Optional(Command),
      },
      closed,
    ),
    voltage: Accuracy,
    current: Accuracy,
    retired: Type.Boolean(),
  },
  closed,
)
export type InstrumentFields = Static<typeof InstrumentFields>

export const WorkshopFields = Type.Object(
  {
    name: NeededLine(120),
    address: Line(400),
    currency: OneOf(currencies),
    hourlyRate: Money,
    taxPercent: Type.Number({ minimum: 0, maximum: 100 }),
    taxName: Line(20),
    handBackFooter: Prose,
    /** Added later: hours without a touch after which a device is signed out, and backups kept of the nights. */
    idleHours: Type.Optional(Type.Integer({ minimum: 1, maximum: 168 })),
    nightlyBackups: Type.Optional(Type.Integer({ minimum: 0, maximum: 60 })),
    /** The shop's trays, and tools it has not. Added later. */
    trays: Type.Optional(Type.Array(TrayFields, { maxItems: 40 })),
    missingTools: Type.Optional(Type.Array(OneOf(tools), { maxItems: 20 })),
    /** Where practitioners disagree, what this shop holds with: option by school. Added later; what is not named is as it ships. */
    schools: Type.Optional(
      Type.Record(Type.String({ pattern: '^[a-z][a-z-]{1,39}$' }), Type.String({ pattern: '^[a-z][a-z-]{1,39}$' }), {
        maxProperties: 30,
      }),
    ),
    /** What this shop does otherwise when it cleans and oils. Added later. */
    careRows: Type.Optional(OwnCareRows),
  },
  closed,
)
export type WorkshopFields = Static<typeof WorkshopFields>

export const PersonFields = Type.Object(
  {
    signInName: Type.String({ minLength: 2, maxLength: 40, pattern: '^[a-z0-9][a-z0-9._-]*$' }),
    name: NeededLine(120),
    role: OneOf(roles),
    active: Type.Boolean(),
  },
  closed,
)
export type PersonFields = Static<typeof PersonFields>

export const Password = Type.String({ minLength: 12, maxLength: 200 })

export const HandBackFields = Type.Object(
  {
    leftUndone: Prose,
    lubricants: Line(600),
    dueAgain: Line(120),
    partsReturned: Line(600),
    price: OrNull(Money),
  },
  closed,
)
export type HandBackFields = Static<typeof HandBackFields>

export const JobMove = Type.Object(
  {
    station: OneOf(stationIds),
    state: OneOf(jobStates),
    waitingFor: Line(200),
  },
  closed,
)
export type JobMove = Static<typeof JobMove>
