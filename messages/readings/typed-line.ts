import { readTypedQuantity } from '../../core/measure/typed-quantity'
import type { MeterRow } from '../book'
import type { ReadingBox, SpeedBy } from './reading-kind'
import { readingKinds, type ReadingFields, type TypedKind } from './reading-kinds'
import { lineQuantities, type Quantities, type QuantityName } from './recorded-quantity'

export type { SpeedBy } from './reading-kind'

export interface ReadingLine {
  kind: TypedKind
  direction: 'forward' | 'reverse'
  typed: Partial<Record<QuantityName, string>>
}

export interface Understood {
  readonly quantities: Quantities
  /** A sentence per box that is wrong (not: merely empty). */
  readonly errors: Partial<Record<QuantityName, string>>
  /** The first box that is needed and empty. */
  readonly missing: QuantityName | null
}

interface Meters {
  readonly voltage: MeterRow | null
  readonly current: MeterRow | null
}

/**
 * Understands boxes as typed: every one with its unit, resolution and the meter as it stands now.
 *
 * @param meters the meters in use, by quantity
 */
export function understandBoxes(
  typed: ReadingLine['typed'],
  boxes: readonly ReadingBox[],
  contradictions: (quantities: Quantities) => Understood['errors'],
  meters: Meters,
): Understood {
  const quantities: Quantities = {}
  const errors: Understood['errors'] = {}
  let missing: QuantityName | null = null
  for (const { name, needed } of boxes) {
    const found = readTypedQuantity(lineQuantities[name].kind, typed[name] ?? '')
    if (found.ok) {
      const meter = name === 'voltage' || name === 'current' ? meters[name] : null
      quantities[name] = {
        typed: found.quantity.typed.trim(),
        value: found.quantity.value,
        resolution: meter ? Math.max(found.quantity.resolution, meter.resolution) : found.quantity.resolution,
        meter: meter && {
          id: meter.id,
          name: meter.name,
          percentOfReading: meter.percentOfReading,
          digits: meter.digits,
        },
      }
    } else if (found.error.code !== 'empty') {
      errors[name] = found.error.message
    } else if (needed) {
      missing ??= name
    }
  }
  return { quantities, errors: { ...errors, ...contradictions(quantities) }, missing }
}

/** A line of the pad as typed; `fields` is what to send, null while something needed is missing or wrong. */
export function understandLine(
  { kind, direction, typed }: ReadingLine,
  speedBy: SpeedBy,
  meters: Meters,
): Understood & { readonly fields: ReadingFields | null } {
  const { schema, boxes, contradictions } = readingKinds[kind]
  const understood = understandBoxes(typed, boxes(speedBy), contradictions, meters)
  const sound = understood.missing === null && Object.keys(understood.errors).length === 0
  const way = 'direction' in schema.properties ? { direction } : {}
  // Every box that is needed is there, so the line is one of its kind.
  const fields = { kind, ...way, quantities: understood.quantities, vouched: false } as ReadingFields
  return { ...understood, fields: sound ? fields : null }
}

/** Whether a kind is read forward or in reverse. */
export const isDirected = (kind: TypedKind): boolean => 'direction' in readingKinds[kind].schema.properties
