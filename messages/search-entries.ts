import { Type, type Static } from 'typebox'
import { circumstances, equipment } from '../core/knowledge/knowledge-schema'
import { ByKind, closed, Id, Line, NeededLine, OneOf, OrNull } from './parts'

/** What is kept of a search for faults: only ever added to, one entry after the other. */

const SuspectId = NeededLine(160)
/** What was believed when it was done, the likeliest first: so that the reasoning can be read again later. */
const Believed = Type.Array(
  Type.Object({ suspect: SuspectId, words: NeededLine(240), chance: Type.Number({ minimum: 0, maximum: 1 }) }, closed),
  { maxItems: 5 },
)

const Hours = OrNull(Type.Number({ minimum: 0, maximum: 20_000 }))
/** Running hours, shows and years since it was cared for; null where nobody knows. */
const Running = Type.Object({ hoursSinceOil: Hours, hoursSinceWipe: Hours, shows: Hours, yearsIdle: Hours }, closed)

/** Parts that are off the engine. */
const Off = Type.Array(NeededLine(120), { maxItems: 400 })

export const SearchEntry = ByKind(
  Type.Union([
    Type.Object(
      {
        kind: Type.Literal('outcome'),
        test: NeededLine(160),
        outcome: NeededLine(60),
        words: NeededLine(300),
        why: Line(600),
        off: Off,
        believed: Believed,
      },
      closed,
    ),
    Type.Object({ kind: Type.Literal('could-not'), test: NeededLine(160), words: NeededLine(300) }, closed),
    /** `findingId` is the finding in the ledger that was made of it. */
    Type.Object(
      {
        kind: Type.Literal('confirmed'),
        suspect: SuspectId,
        words: NeededLine(300),
        findingId: Id,
        believed: Believed,
      },
      closed,
    ),
    Type.Object(
      { kind: Type.Literal('ruled-out'), suspect: SuspectId, words: NeededLine(300), believed: Believed },
      closed,
    ),
    /** Without a finding in the ledger it was mended untested. */
    Type.Object(
      {
        kind: Type.Literal('repaired'),
        suspect: SuspectId,
        words: NeededLine(300),
        findingId: OrNull(Id),
        believed: Believed,
      },
      closed,
    ),
    /** What is known of its past, what is off it, and what there is not on the bench: the latest counts. */
    Type.Object(
      {
        kind: Type.Literal('known'),
        circumstances: Type.Array(OneOf(circumstances), { maxItems: 40 }),
        off: Off,
        missing: Type.Array(OneOf(equipment), { maxItems: 20 }),
        /** Added later. */ running: Type.Optional(Running),
      },
      closed,
    ),
    Type.Object({ kind: Type.Literal('struck'), entryId: Id, words: NeededLine(300) }, closed),
  ]),
)
export type SearchEntry = Static<typeof SearchEntry>
