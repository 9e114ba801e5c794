import type {
  CareRow,
  ComponentRow,
  ContinuityRow,
  EngineBook,
  EngineRow,
  EngineTypeRow,
  FindingRow,
  InstrumentRow,
  JobRow,
  JournalRow,
  LearnedHere,
  LoadedJob,
  MeterRow,
  NoteRow,
  OwnerBook,
  OwnerRow,
  PartRow,
  ParcelBook,
  ParcelRow,
  PersonRow,
  PhotographRow,
  Practice,
  ReadingRow,
  SearchRow,
  SheetRow,
  ShelfRow,
  StripRow,
  TimerRow,
  WorkshopBook,
} from './book'

/** Of a job's book, what hangs on the job. */
type InJob<R> = R & { readonly jobId: string }

/**
 * The rows a write leaves changed, by kind: what a receipt brings back, what the others at the same book are told,
 * and what the screen lays over the book while an entry waits. A row stands in it whole, as it is afterwards.
 */
export interface Changes {
  readonly jobs?: readonly JobRow[]
  readonly engines?: readonly EngineRow[]
  readonly types?: readonly EngineTypeRow[]
  readonly owners?: readonly OwnerRow[]
  readonly components?: readonly ComponentRow[]
  readonly findings?: readonly FindingRow[]
  readonly notes?: readonly NoteRow[]
  readonly parts?: readonly PartRow[]
  readonly search?: ReadonlyArray<InJob<SearchRow>>
  readonly strip?: readonly StripRow[]
  readonly care?: readonly CareRow[]
  readonly continuity?: ReadonlyArray<InJob<ContinuityRow>>
  /** Without their readings, which are rows of their own. */
  readonly sheets?: ReadonlyArray<Omit<SheetRow, 'readings'>>
  readonly readings?: ReadonlyArray<InJob<ReadingRow>>
  readonly photographs?: ReadonlyArray<InJob<PhotographRow>>
  readonly learned?: ReadonlyArray<InJob<NonNullable<LearnedHere['own']>>>
  /** A type's own copy of the knowledge. */
  readonly practice?: ReadonlyArray<{ readonly typeId: string } & Pick<Practice, 'changes' | 'version'>>
  readonly journal?: ReadonlyArray<JournalRow & { readonly jobId: string | null }>
  readonly meters?: readonly MeterRow[]
  readonly instruments?: readonly InstrumentRow[]
  readonly people?: readonly PersonRow[]
  readonly shelf?: readonly ShelfRow[]
  readonly parcels?: readonly ParcelRow[]
  /** Of no single book: every screen shows them. */
  readonly timers?: readonly TimerRow[]
  readonly workshop?: ReadonlyArray<Pick<WorkshopBook, 'workshop' | 'version'>>
}

/** Whose book it is: what a row must hang on to be part of it. */
export interface Whose {
  readonly jobId?: string
  readonly engineId?: string
  readonly typeId?: string
  readonly ownerId?: string
}

/** Puts changed rows into the book of a job, as far as they belong to it and their slice is loaded. Pure. */
export function jobBookWith(book: LoadedJob, changes: Changes): LoadedJob {
  const jobId = book.job.id
  const mine = <R extends { readonly jobId: string | null }>(rows: readonly R[] | undefined): readonly R[] =>
    (rows ?? []).filter((row) => row.jobId === jobId)
  const job = latest(book.job, changes.jobs)
  const type = latest(book.type, changes.types)
  return {
    ...book,
    job,
    engine: latest(book.engine, changes.engines),
    type,
    owner: latest(book.owner, changes.owners),
    components:
      withRows(
        book.components,
        changes.components?.filter((row) => row.engineId === book.engine.id),
      ) ?? [],
    ...slice('findings', withRows(book.findings, mine(changes.findings))),
    ...slice('notes', withRows(book.notes, mine(changes.notes))),
    ...slice('parts', withRows(book.parts, mine(changes.parts))),
    ...slice('search', withRows(book.search, mine(changes.search))),
    ...slice('strip', withRows(book.strip, mine(changes.strip))),
    ...slice('care', withRows(book.care, mine(changes.care))),
    ...slice('continuity', withRows(book.continuity, mine(changes.continuity))),
    ...slice('photographs', withRows(book.photographs, mine(changes.photographs))),
    ...slice('sheets', withSheets(book.sheets, mine(changes.sheets), mine(changes.readings))),
    ...slice('learned', learnedWith(book.learned, mine(changes.learned).at(-1))),
    ...slice('practice', book.practice && practiceWith(book.practice, type.id, changes)),
    ...slice('journal', withJournal(book.journal, mine(changes.journal))),
  }
}

/** The same for an engine's page. */
export function engineBookWith(book: EngineBook, changes: Changes): EngineBook {
  const type = latest(book.type, changes.types)
  return {
    ...book,
    type,
    engine: latest(book.engine, changes.engines),
    owner: latest(book.owner, changes.owners),
    components:
      withRows(
        book.components,
        changes.components?.filter((row) => row.engineId === book.engine.id),
      ) ?? [],
    practice: practiceWith(book.practice, type.id, changes),
  }
}

/** The same for an owner's page. */
export function ownerBookWith(book: OwnerBook, changes: Changes): OwnerBook {
  return { ...book, owner: latest(book.owner, changes.owners) }
}

/** The same for a parcel’s page. */
export function parcelBookWith(book: ParcelBook, changes: Changes): ParcelBook {
  return { ...book, owner: latest(book.owner, changes.owners), parcel: latest(book.parcel, changes.parcels) }
}

/** The same for the workshop's settings. */
export function workshopBookWith(book: WorkshopBook, changes: Changes): WorkshopBook {
  const settings = changes.workshop?.findLast((row) => row.version >= book.version)
  return {
    ...book,
    ...(settings ? { workshop: { ...book.workshop, ...settings.workshop }, version: settings.version } : {}),
    meters: withRows(book.meters, changes.meters) ?? [],
    instruments: withRows(book.instruments, changes.instruments) ?? [],
    people: withRows(book.people, changes.people) ?? [],
    shelf: withRows(book.shelf, changes.shelf) ?? [],
  }
}

/** The timers that run or ring, with what was begun or stopped. */
export function timersWith(timers: readonly TimerRow[], changes: Changes): readonly TimerRow[] {
  return (withRows(timers, changes.timers) ?? []).filter((timer) => !timer.stopped)
}

/** Whether somebody who looks at this book has anything to learn from these changes. */
export function concerns(changes: Changes, whose: Whose): boolean {
  const inJob = [
    changes.findings,
    changes.notes,
    changes.parts,
    changes.search,
    changes.strip,
    changes.care,
    changes.continuity,
    changes.sheets,
    changes.readings,
    changes.photographs,
    changes.learned,
    changes.journal,
  ]
  return (
    inJob.some((rows) => rows?.some((row) => row.jobId !== null && row.jobId === whose.jobId)) ||
    names(changes.jobs, whose.jobId) ||
    names(changes.engines, whose.engineId) ||
    names(changes.types, whose.typeId) ||
    names(changes.owners, whose.ownerId) ||
    (changes.components ?? []).some((row) => row.engineId === whose.engineId) ||
    (changes.practice ?? []).some((row) => row.typeId === whose.typeId) ||
    changes.workshop !== undefined
  )
}

const names = (rows: ReadonlyArray<{ readonly id: string }> | undefined, id: string | undefined): boolean =>
  (rows ?? []).some((row) => row.id === id)

/** A slice that is not loaded stays so. */
function slice<K extends keyof LoadedJob>(name: K, value: LoadedJob[K] | undefined): Partial<Pick<LoadedJob, K>> {
  return value === undefined ? {} : ({ [name]: value } as Partial<Pick<LoadedJob, K>>)
}

interface Versioned {
  readonly id: string
  readonly version?: number
  /** Counts on within one version. */
  readonly stateNumber?: number
}

/** What was read later, or is laid over it, counts; what comes late with an older version does not. */
function isOlder(row: Versioned, than: Versioned): boolean {
  const [mine, theirs] = [row.version ?? 0, than.version ?? 0]
  return mine < theirs || (mine === theirs && (row.stateNumber ?? 0) < (than.stateNumber ?? 0))
}

function latest<R extends Versioned>(row: R, changed: readonly R[] | undefined): R {
  const found = changed?.findLast((other) => other.id === row.id)
  return found && !isOlder(found, row) ? found : row
}

function withRows<R extends Versioned>(
  rows: readonly R[] | undefined,
  changed: readonly R[] | undefined,
): readonly R[] | undefined {
  if (!rows || !changed || changed.length === 0) return rows
  const added = changed.filter(
    (row, index) =>
      !rows.some((other) => other.id === row.id) && !changed.slice(index + 1).some((other) => other.id === row.id),
  )
  return [...rows.map((row) => latest(row, changed)), ...added]
}

function withSheets(
  sheets: readonly SheetRow[] | undefined,
  heads: ReadonlyArray<Omit<SheetRow, 'readings'>>,
  readings: readonly ReadingRow[],
): readonly SheetRow[] | undefined {
  if (!sheets || (heads.length === 0 && readings.length === 0)) return sheets
  const before = new Map(sheets.map((sheet) => [sheet.id, sheet.readings]))
  const whole = heads.map((head) => ({ ...head, readings: before.get(head.id) ?? [] }))
  return (withRows(sheets, whole) ?? []).map((sheet) => ({
    ...sheet,
    readings:
      withRows(
        sheet.readings,
        readings.filter((line) => line.sheetId === sheet.id),
      ) ?? [],
  }))
}

function learnedWith(learned: LearnedHere | undefined, own: NonNullable<Changes['learned']>[number] | undefined) {
  if (!learned || !own) return learned
  const { jobId: _job, ...row } = own
  return { ...learned, own: row }
}

function practiceWith(practice: Practice, typeId: string, { practice: copies, workshop }: Changes): Practice {
  const copy = copies?.findLast((row) => row.typeId === typeId && row.version >= practice.version)
  const schools = workshop?.at(-1)?.workshop.schools
  return {
    ...practice,
    ...(copy ? { changes: copy.changes, version: copy.version } : {}),
    ...(schools ? { schools } : {}),
  }
}

/** Newest first, as it is read. */
function withJournal(
  journal: readonly JournalRow[] | undefined,
  added: NonNullable<Changes['journal']>,
): readonly JournalRow[] | undefined {
  if (!journal || added.length === 0) return journal
  const known = new Set(journal.map((row) => row.sequence))
  const fresh = added.filter((row) => !known.has(row.sequence)).map(({ jobId: _job, ...row }) => row)
  return [...fresh, ...journal].toSorted((one, other) => other.sequence - one.sequence)
}
