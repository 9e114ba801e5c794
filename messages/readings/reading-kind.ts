import { Type, type Static, type TObject, type TProperties } from 'typebox'
import type { ReadQuantity, SheetReading, TimedRun } from '../../core/motor/sheet-reading'
import { closed, OneOf } from '../parts'
import { RecordedQuantity, type Quantities, type QuantityName } from './recorded-quantity'

/** How the speed of a running reading is told. */
export type SpeedBy = 'none' | 'rotation' | 'timed'

/** A box of the reading line: which quantity, and whether the line needs it. */
export interface ReadingBox {
  readonly name: QuantityName
  readonly needed: boolean
}

/** A line as the list shows it. */
export interface LineInWords {
  readonly words: string
  readonly values: readonly string[]
}

/**
 * One kind of reading: its fields, how it is typed, what cannot be so within it, its line in words, and what it says of
 * the motor, which is what the search hears of it.
 */
export interface ReadingKindModule<S extends TObject> {
  readonly name: string
  readonly schema: S
  /** On which sheets it is offered: read with a meter, or with eye, ear and a watch; none where nobody types it. */
  readonly offered: ReadonlyArray<'meter' | 'watch'>
  /** Its boxes, in the order they are typed; none where only an instrument writes it. */
  readonly boxes: (speedBy: SpeedBy) => readonly ReadingBox[]
  /** By the box that is likeliest wrong. */
  readonly contradictions: (quantities: Quantities) => Partial<Record<QuantityName, string>>
  readonly line: (fields: Static<S>) => LineInWords
  /** Null where it says nothing of the motor on its own. */
  readonly motor: (fields: Static<S>) => SheetReading | null
}

export const defineReading = <S extends TObject>(kind: ReadingKindModule<S>): ReadingKindModule<S> => kind

/**
 * Schema of a kind of reading.
 *
 * @param kind its literal
 * @param quantities by name, with whether the line can do without
 * @param more fields of its own
 */
export function readingSchema<const K extends string, const Q extends QuantityNeeds, const P extends TProperties>(
  kind: K,
  quantities: Q,
  more: P,
) {
  return Type.Object(
    {
      kind: Type.Literal(kind),
      ...more,
      quantities: Type.Unsafe<QuantitiesOf<Q>>(
        Type.Object(
          Object.fromEntries(
            Object.entries(quantities).map(([name, need]) => [
              name,
              need === 'needed' ? RecordedQuantity : Type.Optional(RecordedQuantity),
            ]),
          ),
          closed,
        ),
      ),
      /** True once the person has said that a doubtful value is right. */
      vouched: Type.Boolean(),
    },
    closed,
  )
}
type QuantityNeeds = Partial<Record<QuantityName, 'needed' | 'optional'>>
type QuantitiesOf<Q extends QuantityNeeds> = {
  [N in keyof Q as Q[N] extends 'needed' ? N : never]: RecordedQuantity
} & { [N in keyof Q as Q[N] extends 'optional' ? N : never]?: RecordedQuantity }

export const direction = { direction: OneOf(['forward', 'reverse'] as const) }

export const needed = (name: QuantityName): ReadingBox => ({ name, needed: true })
export const optional = (name: QuantityName): ReadingBox => ({ name, needed: false })

/** A quantity in the core's own form. */
export const read = (recorded: RecordedQuantity): ReadQuantity => ({
  value: recorded.value,
  resolution: recorded.resolution,
  meter: recorded.meter,
})

export function timedRun({ distance, duration }: Quantities): TimedRun | null {
  return distance && duration && distance.value > 0 && duration.value > 0
    ? { distance: read(distance), duration: read(duration) }
    : null
}
