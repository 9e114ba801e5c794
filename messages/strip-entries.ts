import { Type, type Static } from 'typebox'
import { ByKind, closed, Id, Line, NeededLine, OneOf, OrNull } from './parts'

/** What is kept of taking an engine apart and putting it together: only ever added to, one entry after the other. */

const PartId = NeededLine(120)
const GoalId = NeededLine(140)

/** Where a thing lies; rows and columns from 1. */
export const TrayCell = Type.Object(
  { tray: Id, row: Type.Integer({ minimum: 1, maximum: 26 }), column: Type.Integer({ minimum: 1, maximum: 26 }) },
  closed,
)
export type TrayCell = Static<typeof TrayCell>

/** How the engine was, where it was not as planned. */
export const deviations = {
  'other-fasteners': 'Other number or kind of fasteners',
  hidden: 'Hidden under a detail',
  glued: 'Glued',
  riveted: 'Riveted',
  absent: 'Absent when opened',
  loose: 'Found loose',
  misassembled: 'Wrongly put together',
  'owners-change': 'An owner’s change',
  'came-off': 'Came off by itself',
  broke: 'Broke here',
  'left-on': 'Left on',
  'would-not': 'Would not come',
} as const
export type Deviation = keyof typeof deviations

/** What became of a thing on the way back. */
export const fates = {
  placed: 'Back in its place',
  replaced: 'Replaced',
  returned: 'Given back to the owner',
  lost: 'Lost',
  'left-off': 'Left off',
} as const
export type Fate = keyof typeof fates

export const StripEntry = ByKind(
  Type.Union([
    /** What it is opened for, and what is to stay on: the latest counts. */
    Type.Object(
      {
        kind: Type.Literal('goals'),
        goals: Type.Array(GoalId, { maxItems: 60 }),
        leaveOn: Type.Array(PartId, { maxItems: 60 }),
        overruled: Type.Array(PartId, { maxItems: 60 }),
        /** Parts in the order somebody wants them off. Added later. */
        order: Type.Optional(Type.Array(PartId, { maxItems: 400 })),
      },
      closed,
    ),
    /** The trays this engine lies in: the latest counts. */
    Type.Object({ kind: Type.Literal('trays'), trays: Type.Array(Id, { maxItems: 6 }) }, closed),
    Type.Object(
      {
        kind: Type.Literal('off'),
        part: PartId,
        words: NeededLine(200),
        cell: OrNull(TrayCell),
        /** Which way round it was. */
        way: Line(200),
        count: Type.Integer({ minimum: 1, maximum: 99 }),
        minutes: OrNull(Type.Number({ minimum: 0, maximum: 600 })),
      },
      closed,
    ),
    Type.Object(
      {
        kind: Type.Literal('not-as-planned'),
        part: PartId,
        words: NeededLine(200),
        what: OneOf(deviations),
        remark: Line(300),
        /** The finding in the ledger that was made of it. */
        findingId: OrNull(Id),
      },
      closed,
    ),
    Type.Object({ kind: Type.Literal('moved'), part: PartId, words: NeededLine(200), cell: OrNull(TrayCell) }, closed),
    Type.Object(
      { kind: Type.Literal('back'), part: PartId, words: NeededLine(200), fate: OneOf(fates), remark: Line(300) },
      closed,
    ),
    /** A check or an oiling of the way back that was done. */
    Type.Object(
      { kind: Type.Literal('done'), step: NeededLine(160), part: OrNull(PartId), words: NeededLine(300) },
      closed,
    ),
    /** Clip leads, trial glue, a temporary wire: listed until they are gone. */
    Type.Object({ kind: Type.Literal('provisional'), thing: Id, words: NeededLine(200), gone: Type.Boolean() }, closed),
    /** Handed on although something lies in the tray or is provisional: what that was, and why. */
    Type.Object(
      {
        kind: Type.Literal('signed-off'),
        words: NeededLine(300),
        open: Type.Array(NeededLine(200), { minItems: 1, maxItems: 200 }),
      },
      closed,
    ),
    Type.Object({ kind: Type.Literal('struck'), entryId: Id, words: NeededLine(300) }, closed),
  ]),
)
export type StripEntry = Static<typeof StripEntry>

/** One of the shop's trays. */
export const TrayFields = Type.Object(
  {
    id: Id,
    name: NeededLine(60),
    rows: Type.Integer({ minimum: 1, maximum: 26 }),
    columns: Type.Integer({ minimum: 1, maximum: 26 }),
    magnetic: Type.Boolean(),
    lid: Type.Boolean(),
  },
  closed,
)
export type TrayFields = Static<typeof TrayFields>
