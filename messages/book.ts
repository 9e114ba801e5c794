import type {
  ArrivalItem,
  ComponentFields,
  EngineFields,
  EngineTypeFields,
  JobFields,
  OwnerFields,
} from './book-entries'
import type {
  FindingFields,
  HandBackFields,
  InstrumentFields,
  MeterFields,
  NoteFields,
  PartFields,
  PersonFields,
  SheetFields,
  WorkshopFields,
} from './bench-entries'
import type { OwnCareRows } from '../core/knowledge/care/own-care-rows'
import type { KnowledgeChanges } from '../core/knowledge/knowledge-changes'
import type { ChosenSchools } from '../core/knowledge/schools-of-practice'
import type { Reckoned } from './reckoned'
import type { FaultTally } from '../core/knowledge/learned-priors'
import type { ReliabilityBand } from '../core/knowledge/reliability'
import type { OwnMinutes } from '../core/care/cleaning-card'
import type { TaughtMinutes } from '../core/strip/taught-minutes'
import type { EngineDescription } from '../core/engine/description-schema'
import type { Difference } from '../core/engine/difference-schema'
import type { CareEntry, ShelfFields } from './care-entries'
import type { ReadingFields } from './readings/reading-kinds'
import type { ParcelFields } from './parcel-entries'
import type { ContinuityFields } from './continuity-entries'
import type { PhotographFields } from './photograph-entries'
import type { SearchEntry } from './search-entries'
import type { StripEntry } from './strip-entries'
import type { TimerFields } from './timer-entries'
import type { JobState, StationId } from './vocabulary'

/** What the server answers: the book as it is read. Instants are ISO text. */

export interface Kept {
  readonly id: string
  readonly version: number
}
export type OwnerRow = OwnerFields & Kept
/** `adaptations` is how the type departs from its construction; `templateId` names a construction of the shop's own. */
export type EngineTypeRow = EngineTypeFields &
  Kept & { readonly templateId: string | null; readonly adaptations: readonly Difference[] }
export type EngineRow = EngineFields &
  Kept & { readonly stateNumber: number; readonly adaptations: readonly Difference[] }
/** A construction of the shop's own, without its description. */
export interface TemplateTag extends Kept {
  readonly name: string
  readonly power: 'dc' | 'ac' | 'dcc'
}
export type ComponentRow = ComponentFields & Kept & { readonly engineId: string }
export type MeterRow = MeterFields & Kept
export type InstrumentRow = InstrumentFields & Kept
export type PersonRow = PersonFields & Kept
export type FindingRow = FindingFields &
  Kept & { readonly jobId: string; readonly engineState: number; readonly notedAt: string }
export type PartRow = PartFields & Kept & { readonly jobId: string }
export type NoteRow = NoteFields & {
  readonly id: string
  readonly jobId: string
  readonly author: string
  readonly capturedAt: string
}

export interface SearchRow {
  readonly id: string
  readonly engineState: number
  readonly entry: SearchEntry
  /** What the server made of the search after this step; null while it waits for it. */
  readonly reckoned: Reckoned | null
  readonly author: string
  readonly capturedAt: string
}

/** One entry of taking apart and putting together. */
export interface StripRow {
  readonly id: string
  readonly jobId: string
  readonly entry: StripEntry
  readonly author: string
  readonly capturedAt: string
}

/** One entry of cleaning and oiling. */
export interface CareRow {
  readonly id: string
  readonly jobId: string
  readonly entry: CareEntry
  readonly author: string
  readonly capturedAt: string
}

/** When one kind of care falls due on an engine. */
export interface DueLine {
  readonly id: string
  readonly name: string
  /** Hours run since, and of how many. */
  readonly spent: number
  readonly every: number
  readonly state: 'due' | 'soon' | 'later'
  /** Days from today by the pace of the last months, with an 80 % interval; null while it does not run. */
  readonly inDays: number | null
  readonly earliest: number | null
  readonly latest: number | null
}

/** One engine of the care book. */
export interface CareLine {
  readonly engineId: string
  readonly ownerId: string
  readonly name: string
  readonly type: string
  readonly owner: string
  readonly lastRan: { readonly day: string; readonly hours: number; readonly show: string } | null
  readonly oiledOn: string | null
  /** It runs in a garden or on a carpet: every interval is shorter. */
  readonly shortened: boolean
  readonly due: readonly DueLine[]
}

export interface CareBook {
  readonly today: string
  /** The most pressing first. */
  readonly lines: readonly CareLine[]
  /** Calendars that may come back for it. */
  readonly feeds: ReadonlyArray<{ readonly id: string; readonly person: string; readonly madeAt: string }>
}

export interface ShelfRow extends ShelfFields, Kept {}
export interface ParcelRow extends ParcelFields, Kept {}

/** A parcel in a list. */
export interface ParcelTag {
  readonly id: string
  readonly arrivedOn: string
  readonly came: string
  readonly sentBackOn: string | null
  readonly ownerName: string
  readonly engines: number
}

/** A parcel with whose it is and the jobs that came in it. */
export interface ParcelBook {
  readonly parcel: ParcelRow
  readonly owner: OwnerRow
  readonly jobs: readonly JobRow[]
  readonly tags: readonly JobTag[]
}

export type ContinuityRow = ContinuityFields & {
  readonly id: string
  readonly engineState: number
  readonly author: string
  readonly capturedAt: string
}

export type ReadingRow = ReadingFields & {
  readonly id: string
  readonly sheetId: string
  readonly source: 'typed' | 'measured'
  readonly struck: boolean
  readonly strikeReason: string
  readonly supersedesId: string | null
  readonly author: string
  readonly capturedAt: string
}

export interface SheetRow extends SheetFields, Kept {
  readonly jobId: string
  readonly engineState: number
  readonly openedAt: string
  /** Every line ever written, oldest first; `currentReadings` picks those that stand. */
  readonly readings: readonly ReadingRow[]
}

export interface PhotographRow extends PhotographFields, Kept {
  readonly station: StationId
  readonly width: number
  readonly height: number
  readonly size: number
  readonly takenAt: string
}

/** A wait that runs or rings; one that is stopped is only told of, and leaves the book. */
export interface TimerRow extends TimerFields {
  readonly id: string
  readonly stopped: boolean
}

/** Every timer of the shop, with the server's clock: a device's own may be wrong. */
export interface TimerBook {
  readonly timers: readonly TimerRow[]
  readonly now: string
}

/** A photograph of the same step from another job of this type: the best drawing there is. */
export interface SisterPhotograph extends PhotographRow {
  readonly jobNumber: number
  readonly engine: string
}

export interface JournalRow {
  readonly sequence: number
  readonly summary: string
  readonly person: string
  readonly subject: string
  readonly capturedAt: string
  readonly receivedAt: string
}

export interface JobRow extends JobFields, Kept {
  readonly number: number
  readonly engineId: string
  readonly state: JobState
  readonly station: StationId
  readonly waitingFor: string
  readonly arrivals: ArrivalItem[]
  readonly takenInAt: string
  readonly handedBackAt: string | null
  readonly handBack: HandBackFields | null
}

/** What the shop's closed jobs say of machines like this one. */
export interface LearnedHere {
  /** Machines of the same construction, but for this type. */
  readonly construction: FaultTally
  readonly type: FaultTally
  /** What this job itself added last; null while it has not. */
  readonly own: {
    readonly suspects: readonly string[]
    readonly withdrawn: boolean
    readonly at: string
    readonly author: string
  } | null
}

/** All that was learned, for the workshop's page. */
export interface LearnedBook {
  readonly constructions: ReadonlyArray<
    FaultTally & {
      readonly construction: string
      readonly types: ReadonlyArray<FaultTally & { readonly name: string }>
    }
  >
  /** Searches that are over. */
  readonly searches: number
  readonly reliability: readonly ReliabilityBand[]
}

/** What this shop makes of the knowledge that ships, for one type of engine. */
export interface Practice {
  /** The type's own copy, as it departs from what ships; null while it has none. */
  readonly changes: KnowledgeChanges | null
  /** Of the copy; 0 while there is none. */
  readonly version: number
  readonly schools: ChosenSchools
  /** What the shop does otherwise when it cleans and oils; null while nothing. */
  readonly careRows: OwnCareRows | null
}

/** What heads every screen of a job. */
export interface JobHead {
  readonly job: JobRow
  readonly engine: EngineRow
  readonly type: EngineTypeRow
  readonly owner: OwnerRow
  readonly components: readonly ComponentRow[]
}

/** What else a job's book holds, slice by slice: a screen asks for those it draws. */
export interface JobSlices {
  readonly findings: readonly FindingRow[]
  readonly notes: readonly NoteRow[]
  readonly parts: readonly PartRow[]
  /** Steps of the search for faults, oldest first. */
  readonly search: readonly SearchRow[]
  readonly learned: LearnedHere
  /** Every continuity reading ever taken in the job, oldest first; `continuitySheet` picks those that stand. */
  readonly continuity: readonly ContinuityRow[]
  /** Taking apart and putting together, oldest first; `stripState` says what is off. */
  readonly strip: readonly StripRow[]
  /** Cleaning and oiling, oldest first; `careState` says what is done. */
  readonly care: readonly CareRow[]
  /** What the shop's own cleaning took, soil by soil, in other jobs. */
  readonly cleaningMinutes: readonly OwnMinutes[]
  readonly sheets: readonly SheetRow[]
  readonly photographs: readonly PhotographRow[]
  readonly journal: readonly JournalRow[]
  /** What the knowledge is to this shop and this type. */
  readonly practice: Practice
  /** What each part took on engines of this type, in other jobs. */
  readonly stepMinutes: readonly TaughtMinutes[]
  /** Left or declined in earlier jobs of this engine and not mended since, latest first. */
  readonly earlier: readonly EarlierFinding[]
}
export type JobSlice = keyof JobSlices
export const jobSlices = [
  'findings',
  'notes',
  'parts',
  'search',
  'learned',
  'continuity',
  'strip',
  'care',
  'cleaningMinutes',
  'sheets',
  'photographs',
  'journal',
  'practice',
  'stepMinutes',
  'earlier',
] as const satisfies readonly JobSlice[]

/** Everything of one job. */
export interface JobBook extends JobHead, JobSlices {}
/** A job's book as far as it was asked for. */
export interface LoadedJob extends JobHead, Partial<JobSlices> {}

/** What an earlier job of the engine found and did not mend. */
export interface EarlierFinding {
  readonly findingId: string
  readonly jobId: string
  readonly jobNumber: number
  readonly handedBackAt: string
  readonly what: string
  readonly place: string
  readonly state: 'left' | 'declined'
  /** The suspect of the search it came from; null where it was noted by hand. */
  readonly suspect: string | null
}

/** A job as a tag on the bench or a line in the list. */
export interface JobTag {
  readonly id: string
  readonly number: number
  readonly state: JobState
  readonly station: StationId
  readonly waitingFor: string
  readonly complaint: string
  readonly dueOn: string | null
  readonly takenInAt: string
  readonly handedBackAt: string | null
  readonly engineName: string
  readonly typeName: string
  readonly ownerName: string
  readonly sentimental: boolean
  readonly minutesUsed: number
  readonly estimateMinutes: number | null
  readonly openFindings: number
  readonly photographId: string | null
}

/** `more`: there are others beyond the total, not counted. */
export interface Page<T> {
  readonly total: number
  readonly more?: boolean
  readonly rows: readonly T[]
}

export interface BenchToday {
  readonly onBench: readonly JobTag[]
  readonly waiting: readonly JobTag[]
  readonly handedBack: readonly JobTag[]
  readonly counts: {
    readonly onBench: number
    readonly waiting: number
    readonly overdue: number
    readonly handedBackThisMonth: number
  }
  readonly latest: ReadonlyArray<JournalRow & { readonly jobId: string | null; readonly jobNumber: number | null }>
}

/** What ships of the settings that were added later. */
export const shippedSettings = { idleHours: 10, nightlyBackups: 7 } as const

/** The settings as they count, what was never set as it ships. */
export type Workshop = WorkshopFields & Required<Pick<WorkshopFields, 'idleHours' | 'nightlyBackups'>>

export interface WorkshopBook {
  readonly workshop: Workshop
  readonly version: number
  readonly meters: readonly MeterRow[]
  readonly instruments: readonly InstrumentRow[]
  readonly people: readonly PersonRow[]
  readonly shelf: readonly ShelfRow[]
}

/** An engine in the list, with what is known of it at a glance. */
export interface EngineTag {
  readonly id: string
  readonly name: string
  readonly typeId: string
  readonly typeName: string
  readonly ownerId: string
  readonly ownerName: string
  readonly gaugeMm: number | null
  readonly scaleId: string | null
  readonly power: string
  readonly jobs: number
  readonly openJobId: string | null
  readonly lastJobAt: string | null
}

export interface EngineBook {
  readonly engine: EngineRow
  readonly type: EngineTypeRow
  readonly owner: OwnerRow
  readonly components: readonly ComponentRow[]
  readonly jobs: readonly JobTag[]
  /** The shop's own construction the type has; null where it is one that ships. */
  readonly template: EngineDescription | null
  readonly practice: Practice
}

export interface OwnerBook {
  readonly owner: OwnerRow
  readonly engines: readonly EngineTag[]
  readonly jobs: readonly JobTag[]
}
