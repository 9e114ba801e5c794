import { Type, type Static } from 'typebox'
import { continuityColumns } from '../core/continuity/expected-continuity'
import { RecordedQuantity } from './readings/recorded-quantity'
import { ByKind, closed, NeededLine, OneOf } from './parts'

/** What a meter said between a wheel and where it was held against; a later one of the same place counts instead. */
export const ContinuityFields = Type.Object(
  {
    /** Pickup point of the engine: driver-1.left. */
    point: NeededLine(90),
    column: OneOf(continuityColumns),
    reading: ByKind(
      Type.Union([
        Type.Object({ kind: Type.Literal('closed') }, closed),
        Type.Object({ kind: Type.Literal('open') }, closed),
        Type.Object({ kind: Type.Literal('ohms'), quantity: RecordedQuantity }, closed),
        /** The reading before it was wrong and there is none instead. */
        Type.Object({ kind: Type.Literal('struck') }, closed),
      ]),
    ),
    /** As the wheel and the place are called, for whoever reads the journal. */
    words: NeededLine(200),
  },
  closed,
)
export type ContinuityFields = Static<typeof ContinuityFields>
