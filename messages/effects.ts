import { shippedSettings, type Kept, type LoadedJob, type ParcelBook, type TimerBook, type WorkshopBook } from './book'
import type { Changes } from './changes'
import type { CommandName, CommandPayload } from './commands'

/** A write as it was sent: what it says, who says it, when it was said. */
export interface Sent<N extends CommandName> {
  readonly payload: CommandPayload<N>
  readonly author: string
  /** ISO text. */
  readonly capturedAt: string
}

/** The rows as they stand before, as far as whoever asks has them: a row that is not among them is taken for new. */
export type Standing = Partial<LoadedJob> &
  Partial<Pick<WorkshopBook, 'meters' | 'instruments' | 'people' | 'shelf' | 'version'>> &
  Partial<Pick<TimerBook, 'timers'>> &
  Partial<Pick<ParcelBook, 'parcel'>>

export type Effect<N extends CommandName> = (standing: Standing, sent: Sent<N>) => Changes

/**
 * What each write does to the book, as rows afterwards: the screen lays it over the book while the entry waits, and
 * the server's handlers take from it what they do not refuse. Pure; versions are given by the server.
 */
export const effects: { readonly [N in CommandName]: Effect<N> } = {
  'owner.save': ({ owner }, { payload: { id, fields } }) => ({
    owners: [{ ...known(owner && [owner], id), ...fields }],
  }),
  'engine-type.save': ({ type }, { payload: { id, fields } }) => ({
    types: [{ templateId: null, adaptations: [], ...known(type && [type], id), ...fields }],
  }),
  'engine.save': ({ engine }, { payload: { id, fields } }) => ({
    engines: [{ stateNumber: 0, adaptations: [], ...known(engine && [engine], id), ...fields }],
  }),
  'engine.adapt': ({ engine }, { payload: { id, fields } }) =>
    engine?.id === id ? { engines: [{ ...engine, adaptations: fields.adaptations }] } : {},
  'engine-type.adapt': ({ type }, { payload: { id, fields } }) =>
    type?.id === id ? { types: [{ ...type, ...fields }] } : {},
  // Constructions stand on no screen of their own until a type names one.
  'construction.save': () => ({}),
  'component.save': ({ engine, components }, { payload: { id, engineId, fields } }) => {
    const before = components?.find((row) => row.id === id)
    return {
      components: [{ ...known(components, id), engineId, ...fields }],
      ...(engine && refits(before, fields) ? { engines: [nextState(engine)] } : {}),
    }
  },
  'job.take-in': (_standing, { payload: { owner, type, engine } }) => ({
    ...('made' in owner ? { owners: [{ ...known(undefined, owner.made.id), ...owner.made.fields }] } : {}),
    ...(type && 'made' in type
      ? { types: [{ ...known(undefined, type.made.id), templateId: null, adaptations: [], ...type.made.fields }] }
      : {}),
    ...('made' in engine && type && 'made' in owner
      ? {
          engines: [
            {
              ...known(undefined, engine.made.id),
              ...engine.made.fields,
              stateNumber: 0,
              adaptations: [],
              ownerId: owner.made.id,
              typeId: 'made' in type ? type.made.id : type.existing,
            },
          ],
        }
      : {}),
  }),
  'job.edit': ({ job }, { payload: { id, fields } }) => (job?.id === id ? { jobs: [{ ...job, ...fields }] } : {}),
  'job.move': ({ job }, { payload: { id, fields } }) => (job?.id === id ? { jobs: [{ ...job, ...fields }] } : {}),
  'job.hand-back': ({ job }, { payload: { id, fields }, capturedAt }) =>
    job?.id === id
      ? {
          jobs: [{ ...job, ...handedBack(fields), handedBackAt: job.handedBackAt ?? capturedAt }],
        }
      : {},
  /** A finding belongs to the engine's state it was made in; mending one begins the next state, told to the search in it. */
  'finding.save': ({ engine, findings }, { payload: { id, jobId, fields, search, strip }, author, capturedAt }) => {
    const next =
      engine &&
      mends(
        findings?.find((row) => row.id === id),
        fields,
      )
        ? nextState(engine)
        : null
    const machine = next ?? engine
    return {
      findings: [
        { engineState: engine?.stateNumber ?? 0, notedAt: capturedAt, ...known(findings, id), jobId, ...fields },
      ],
      ...(next ? { engines: [next] } : {}),
      ...(search
        ? effects['search.add'](machine ? { engine: machine } : {}, {
            payload: { jobId, ...search },
            author,
            capturedAt,
          })
        : {}),
      ...(strip ? { strip: [{ jobId, ...strip, author, capturedAt }] } : {}),
    }
  },
  'note.add': (_standing, { payload: { id, jobId, fields }, author, capturedAt }) => ({
    notes: [{ id, jobId, author, capturedAt, ...fields }],
  }),
  /** A step of the search stands on the engine's state; a repair without a finding of the ledger begins the next. */
  'search.add': ({ engine }, { payload: { id, jobId, entry }, author, capturedAt }) => {
    const after = engine && repairsUntested(entry) ? nextState(engine) : engine
    return {
      search: [{ id, jobId, engineState: after?.stateNumber ?? 0, entry, reckoned: null, author, capturedAt }],
      ...(after && repairsUntested(entry) ? { engines: [after] } : {}),
    }
  },
  'strip.add': (_standing, { payload, author, capturedAt }) => ({ strip: [{ ...payload, author, capturedAt }] }),
  'care.add': (_standing, { payload, author, capturedAt }) => ({ care: [{ ...payload, author, capturedAt }] }),
  'shelf.save': ({ shelf }, { payload: { id, fields } }) => ({ shelf: [{ ...known(shelf, id), ...fields }] }),
  'parcel.save': ({ parcel }, { payload: { id, fields } }) => ({
    parcels: [{ ...known(parcel && [parcel], id), ...fields }],
  }),
  // Hours show on the care book, which is reckoned from all engines at once.
  'running.book': () => ({}),
  'photograph.save': ({ photographs }, { payload: { id, jobId, fields } }) => {
    const before = photographs?.find((row) => row.id === id)
    return before ? { photographs: [{ ...before, jobId, ...fields }] } : {}
  },
  'timer.begin': (_standing, { payload: { id, fields } }) => ({ timers: [{ id, ...fields, stopped: false }] }),
  'timer.stop': ({ timers }, { payload: { id } }) => {
    const before = timers?.find((row) => row.id === id)
    return before ? { timers: [{ ...before, stopped: true }] } : {}
  },
  'continuity.add': ({ engine }, { payload: { id, jobId, fields }, author, capturedAt }) => ({
    continuity: [{ id, jobId, engineState: engine?.stateNumber ?? 0, ...fields, author, capturedAt }],
  }),
  'knowledge.learn': ({ type }, { payload: { jobId, fields }, author, capturedAt }) => {
    const { suspects, withdrawn, typeNote } = fields
    return {
      learned: [{ jobId, suspects, withdrawn, at: capturedAt, author }],
      ...(type && typeNote.trim() !== '' ? { types: [{ ...type, notes: notesWith(type.notes, typeNote) }] } : {}),
    }
  },
  // What is forgotten shows on the page of what was learned, which is reckoned from all jobs at once.
  'knowledge.forget': () => ({}),
  'type-knowledge.save': ({ practice }, { payload: { id, fields } }) => ({
    practice: [{ typeId: id, changes: fields.changes, version: practice?.version ?? 0 }],
  }),
  'part.save': ({ parts }, { payload: { id, jobId, fields } }) => ({
    parts: [{ ...known(parts, id), jobId, ...fields }],
  }),
  'sheet.save': ({ engine, sheets }, { payload: { id, jobId, fields }, capturedAt }) => {
    const { readings: _lines, ...before } = sheets?.find((row) => row.id === id) ?? { readings: [] }
    return {
      sheets: [
        { engineState: engine?.stateNumber ?? 0, openedAt: capturedAt, version: 0, ...before, id, jobId, ...fields },
      ],
    }
  },
  'reading.add': (_standing, { payload: { id, jobId, sheetId, supersedesId, fields }, author, capturedAt }) => ({
    readings: [
      {
        id,
        jobId,
        sheetId,
        supersedesId,
        source: 'typed',
        struck: false,
        strikeReason: '',
        author,
        capturedAt,
        ...fields,
      },
    ],
  }),
  /** Striking a line that is struck brings it back the same way: by a later line. */
  'reading.strike': ({ sheets }, { payload: { id, jobId, sheetId, readingId, reason }, author, capturedAt }) => {
    const line = sheets?.find((row) => row.id === sheetId)?.readings.find((row) => row.id === readingId)
    return line ? { readings: [{ ...line, id, jobId, author, capturedAt, ...struckOrBack(line, reason) }] } : {}
  },
  'meter.save': ({ meters }, { payload: { id, fields } }) => ({ meters: [{ ...known(meters, id), ...fields }] }),
  'instrument.save': ({ instruments }, { payload: { id, fields } }) => ({
    instruments: [{ ...known(instruments, id), ...fields }],
  }),
  'workshop.save': ({ version }, { payload: { fields } }) => ({
    workshop: [{ workshop: { ...shippedSettings, ...fields }, version: version ?? 0 }],
  }),
  'person.save': ({ people }, { payload: { id, fields } }) => ({ people: [{ ...known(people, id), ...fields }] }),
}

/** The effect of any write, its name not known beforehand. */
export function effectOf<N extends CommandName>(name: N, standing: Standing, sent: Sent<N>): Changes {
  return effects[name](standing, sent)
}

function known<R extends Kept>(rows: readonly R[] | undefined, id: string): Partial<R> & Kept {
  return rows?.find((row) => row.id === id) ?? ({ id, version: 0 } as Partial<R> & Kept)
}

const nextState = <E extends { readonly stateNumber: number }>(engine: E): E => ({
  ...engine,
  stateNumber: engine.stateNumber + 1,
})

/** A finding that is mended now, and was not before, begins the engine's next state. */
export const mends = (
  before: { readonly state: string } | null | undefined,
  fields: { readonly state: string },
): boolean => fields.state === 'mended' && before?.state !== 'mended'

/** With a finding in the ledger, mending that one has begun the new state already. */
export const repairsUntested = (entry: CommandPayload<'search.add'>['entry']): boolean =>
  entry.kind === 'repaired' && entry.findingId === null

type FittedDates = Pick<CommandPayload<'component.save'>['fields'], 'fittedOn' | 'removedOn'>
/** Fitting or removing a motor or decoder is a new state of the engine; another word about it is none. */
export const refits = (before: FittedDates | null | undefined, fields: FittedDates): boolean =>
  !before || before.removedOn !== fields.removedOn || before.fittedOn !== fields.fittedOn

/** What handing back makes of a job. */
export const handedBack = (handBack: CommandPayload<'job.hand-back'>['fields']) =>
  ({ handBack, state: 'handed-back', station: 'hand-back', waitingFor: '' }) as const

/** A type's notes with one more, each on a line of its own. */
export const notesWith = (notes: string, added: string): string =>
  [notes, added.trim()].filter((note) => note !== '').join('\n')

/** What a line says of the one it strikes out, or brings back where that one was struck. */
export const struckOrBack = (line: { readonly id: string; readonly struck: boolean }, reason: string) => ({
  struck: !line.struck,
  strikeReason: line.struck ? '' : reason,
  supersedesId: line.id,
})
