import { Type, type Static } from 'typebox'
import { ByKind, closed, Day, Id, Line, NeededLine, OneOf, OrNull, Prose } from './parts'

/** What is kept of cleaning and oiling an engine: only ever added to, one entry after the other. */

const Word = NeededLine(60)
const Group = NeededLine(120)
const Step = NeededLine(180)
const MinutesTaken = OrNull(Type.Number({ minimum: 0, maximum: 600 }))

export const CareEntry = ByKind(
  Type.Union([
    /** What a group is dirty with: the latest of a group counts; none is clean. */
    Type.Object(
      { kind: Type.Literal('soil'), group: Group, soils: Type.Array(Word, { maxItems: 12 }), words: NeededLine(200) },
      closed,
    ),
    /** A way taken instead of the one advised; with a word where a rule forbids it. */
    Type.Object(
      {
        kind: Type.Literal('way'),
        step: Step,
        agent: OrNull(Word),
        method: Word,
        word: Line(300),
        words: NeededLine(300),
      },
      closed,
    ),
    Type.Object(
      {
        kind: Type.Literal('cleaned'),
        step: Step,
        subject: Word,
        soil: Word,
        agent: OrNull(Word),
        method: Word,
        pieces: Type.Integer({ minimum: 1, maximum: 400 }),
        minutes: MinutesTaken,
        /** Until power may be put on. */
        driesMinutes: Type.Integer({ minimum: 0, maximum: 10_000 }),
        words: NeededLine(300),
      },
      closed,
    ),
    Type.Object(
      {
        kind: Type.Literal('oiled'),
        point: Group,
        product: Word,
        quarters: Type.Integer({ minimum: 0, maximum: 400 }),
        words: NeededLine(300),
      },
      closed,
    ),
    /** Too much was here before: soaked off. */
    Type.Object({ kind: Type.Literal('soaked-off'), point: Group, words: NeededLine(300) }, closed),
    /** Finish and detail: asked for, or not any more; with a word where something stands against it. */
    Type.Object(
      { kind: Type.Literal('finish'), task: Word, wanted: Type.Boolean(), word: Line(300), words: NeededLine(300) },
      closed,
    ),
    /** A step of it is done, the first is 1. */
    Type.Object(
      {
        kind: Type.Literal('finished'),
        task: Word,
        step: Type.Integer({ minimum: 1, maximum: 20 }),
        words: NeededLine(300),
      },
      closed,
    ),
    /** As new, or nearly: what is done to its outside is little. */
    Type.Object({ kind: Type.Literal('near-mint'), so: Type.Boolean(), words: NeededLine(300) }, closed),
    /** Not done, and why. */
    Type.Object({ kind: Type.Literal('left'), step: Step, words: NeededLine(300) }, closed),
    Type.Object({ kind: Type.Literal('struck'), entryId: Id, words: NeededLine(300) }, closed),
  ]),
)
export type CareEntry = Static<typeof CareEntry>

export const labels = {
  'plastic-safe': 'safe for plastic',
  'not-said': 'says nothing',
  'off-plastic': 'keep off plastic',
} as const
export const fillings = { full: 'full', half: 'half', low: 'running out', empty: 'empty' } as const

/** A bottle, a tube or a bath, as the shop calls it. */
export const ShelfFields = Type.Object(
  {
    name: NeededLine(80),
    /** Class of agent or lubricant it belongs to. */
    product: Word,
    labelled: OneOf(labels),
    left: OneOf(fillings),
    openedOn: OrNull(Day),
    notes: Prose,
  },
  closed,
)
export type ShelfFields = Static<typeof ShelfFields>

/** Running hours of one engine or of a whole roster: typed, by a show, or by an hour meter. */
export const RunningFields = Type.Object(
  {
    day: Day,
    /** The show it was, if it was one. */
    show: Line(120),
    engines: Type.Array(
      Type.Object(
        {
          engineId: Id,
          hours: OrNull(Type.Number({ minimum: 0, maximum: 2000 })),
          /** What its hour meter shows; the hours are reckoned from the reading before. */
          meter: OrNull(Type.Number({ minimum: 0, maximum: 1_000_000 })),
          /** The meter is another one than last time. */
          meterReplaced: Type.Boolean(),
        },
        closed,
      ),
      { minItems: 1, maxItems: 300 },
    ),
  },
  closed,
)
export type RunningFields = Static<typeof RunningFields>
