import { Type, type Static, type TSchema } from 'typebox'
import { ComponentFields, EngineFields, EngineTypeFields, JobFields, OwnerFields } from './book-entries'
import {
  FindingFields,
  HandBackFields,
  InstrumentFields,
  JobMove,
  MeterFields,
  NoteFields,
  PartFields,
  Password,
  PersonFields,
  SheetFields,
  WorkshopFields,
} from './bench-entries'
import { ReadingFields } from './readings/reading-kinds'
import { ParcelFields } from './parcel-entries'
import { CareEntry, RunningFields, ShelfFields } from './care-entries'
import { ContinuityFields } from './continuity-entries'
import { ForgetFields, LearnFields, TypeKnowledgeFields } from './knowledge-entries'
import { PhotographFields } from './photograph-entries'
import { SearchEntry } from './search-entries'
import { StripEntry } from './strip-entries'
import { TimerFields } from './timer-entries'
import { EngineDescription } from '../core/engine/description-schema'
import { Differences } from '../core/engine/difference-schema'
import { closed, Id, Instant, Line, NeededLine, OrNull } from './parts'
import type { Role } from './vocabulary'

/**
 * Every write of the product: its name, the schema of its payload, and the least role that may send it.
 * A command that changes an existing row carries `expectedVersion` in its envelope; 0 means "a new one".
 */
const save = <T extends TSchema>(fields: T) => Type.Object({ id: Id, fields }, closed)
const saveInJob = <T extends TSchema>(fields: T) => Type.Object({ id: Id, jobId: Id, fields }, closed)

export const commandSchemas = {
  'owner.save': save(OwnerFields),
  'engine-type.save': save(EngineTypeFields),
  'engine.save': save(EngineFields),
  /** How this example departs from its type. */
  'engine.adapt': save(Type.Object({ adaptations: Differences }, closed)),
  /** How the type departs from its construction, and which construction of the shop's own it has, if any. */
  'engine-type.adapt': save(Type.Object({ templateId: OrNull(Id), adaptations: Differences }, closed)),
  'construction.save': save(Type.Object({ name: NeededLine(120), description: EngineDescription }, closed)),
  'component.save': Type.Object({ id: Id, engineId: Id, fields: ComponentFields }, closed),
  'job.take-in': Type.Object(
    {
      jobId: Id,
      owner: Type.Union([Type.Object({ existing: Id }, closed), Type.Object({ made: save(OwnerFields) }, closed)]),
      /** Null with an engine that is in the book already: it brings its own type. */
      type: OrNull(
        Type.Union([Type.Object({ existing: Id }, closed), Type.Object({ made: save(EngineTypeFields) }, closed)]),
      ),
      engine: Type.Union([
        Type.Object({ existing: Id }, closed),
        Type.Object({ made: save(Type.Omit(EngineFields, ['ownerId', 'typeId'], closed)) }, closed),
      ]),
      job: JobFields,
    },
    closed,
  ),
  'job.edit': save(JobFields),
  'job.move': save(JobMove),
  'job.hand-back': save(HandBackFields),
  /** With what it says to the search, or how it came up in taking apart: one write, so that neither stands without the other. */
  'finding.save': Type.Object(
    {
      id: Id,
      jobId: Id,
      fields: FindingFields,
      search: Type.Optional(Type.Object({ id: Id, entry: SearchEntry }, closed)),
      strip: Type.Optional(Type.Object({ id: Id, entry: StripEntry }, closed)),
    },
    closed,
  ),
  'note.add': saveInJob(NoteFields),
  'search.add': Type.Object({ id: Id, jobId: Id, entry: SearchEntry }, closed),
  'strip.add': Type.Object({ id: Id, jobId: Id, entry: StripEntry }, closed),
  'care.add': Type.Object({ id: Id, jobId: Id, entry: CareEntry }, closed),
  'shelf.save': save(ShelfFields),
  'parcel.save': save(ParcelFields),
  'running.book': save(RunningFields),
  /** Caption, subject and marks of one that is there: its bytes come on another way. */
  'photograph.save': saveInJob(PhotographFields),
  'timer.begin': save(TimerFields),
  /** Rung and seen to, or not wanted any more. */
  'timer.stop': Type.Object({ id: Id }, closed),
  'continuity.add': saveInJob(ContinuityFields),
  /** What the job taught; a later one of the same job counts instead. */
  'knowledge.learn': saveInJob(LearnFields),
  'knowledge.forget': save(ForgetFields),
  /** By the type's id. */
  'type-knowledge.save': save(TypeKnowledgeFields),
  'part.save': saveInJob(PartFields),
  'sheet.save': saveInJob(SheetFields),
  'reading.add': Type.Object(
    { id: Id, jobId: Id, sheetId: Id, supersedesId: OrNull(Id), fields: ReadingFields },
    closed,
  ),
  'reading.strike': Type.Object({ id: Id, jobId: Id, sheetId: Id, readingId: Id, reason: Line(200) }, closed),
  'meter.save': save(MeterFields),
  'instrument.save': save(InstrumentFields),
  'workshop.save': Type.Object({ fields: WorkshopFields }, closed),
  'person.save': Type.Object({ id: Id, fields: PersonFields, password: OrNull(Password) }, closed),
} as const

export type CommandName = keyof typeof commandSchemas
export type CommandPayload<N extends CommandName> = Static<(typeof commandSchemas)[N]>
export const commandNames = Object.keys(commandSchemas) as CommandName[]

/**
 * Commands only the shop's owner may send; everything else is for bench hands too, and nothing for readers. An
 * instrument carries an address that the server goes to and what it says there: nobody else names one.
 */
const ownersOnly: ReadonlySet<CommandName> = new Set([
  'workshop.save',
  'person.save',
  'knowledge.forget',
  'instrument.save',
])

export function mayCommand(role: Role, name: CommandName): boolean {
  if (role === 'reader') return false
  return role === 'owner' || !ownersOnly.has(name)
}

const LARGEST_ENTRY_BYTES = 256 * 1024
const LARGEST_FILE_BYTES = 1024 * 1024
/** Commands that carry a whole file. */
const filed: ReadonlySet<CommandName> = new Set([
  'construction.save',
  'type-knowledge.save',
  'engine.adapt',
  'engine-type.adapt',
])

/** How large a command's message may be. */
export const largestMessage = (name: CommandName): number =>
  filed.has(name) ? LARGEST_FILE_BYTES : LARGEST_ENTRY_BYTES

/** The envelope of a write. `capturedAt` is when it was typed, which may be long before it arrives. */
export const Envelope = Type.Object(
  {
    commandId: Id,
    capturedAt: Instant,
    expectedVersion: Type.Optional(Type.Integer({ minimum: 0 })),
    payload: Type.Unknown(),
  },
  closed,
)
export type Envelope = Static<typeof Envelope>

export const MOST_BENCH_VOLTS = 24
/** What a live supply is told to do; what is left out stays. Its bounds are those of small bench supplies. */
export const BenchChange = Type.Partial(
  Type.Object(
    {
      volts: Type.Number({ minimum: 0, maximum: MOST_BENCH_VOLTS }),
      /** So much more or less than it is set to when this arrives: presses in quick succession all count. */
      voltsBy: Type.Number({ minimum: -MOST_BENCH_VOLTS, maximum: MOST_BENCH_VOLTS }),
      ampsLimit: Type.Number({ minimum: 0.01, maximum: 3 }),
      reversed: Type.Boolean(),
      on: Type.Boolean(),
    },
    closed,
  ),
  closed,
)
export type BenchChange = Static<typeof BenchChange>

export const SignIn = Type.Object({ signInName: Line(40), password: Line(200) }, closed)
export type SignIn = Static<typeof SignIn>

/** Somebody's own new password, with the one until now. */
export const NewPassword = Type.Object({ commandId: Id, old: Line(200), password: Password }, closed)
export type NewPassword = Static<typeof NewPassword>

export const FirstOwner = Type.Object(
  {
    code: Line(40),
    workshopName: Line(120),
    name: Line(120),
    signInName: PersonFields.properties.signInName,
    password: Password,
  },
  closed,
)
export type FirstOwner = Static<typeof FirstOwner>
