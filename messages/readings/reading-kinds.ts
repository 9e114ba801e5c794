import { Type, type Static, type TObject } from 'typebox'
import type { SheetReading } from '../../core/motor/sheet-reading'
import { ByKind } from '../parts'
import type { FieldProblem } from '../problem-sentences'
import { afterStep } from './after-step'
import { stops, trial } from './counted'
import { dead } from './dead'
import { held } from './held'
import type { LineInWords, ReadingKindModule } from './reading-kind'
import { quantityProblem, lineQuantities, type QuantityName, type RecordedQuantity } from './recorded-quantity'
import { relay } from './relay'
import { running } from './running'
import { sequence, sequenceCount } from './sequence'
import { creep, timed } from './timed-distance'

/** Every kind of reading a sheet can have, each in a module of its own. */
export const readingKinds = {
  running,
  locked: held,
  timed,
  creep,
  stops,
  trial,
  dead,
  step: afterStep,
  relay,
  sequence,
  'sequence-count': sequenceCount,
} as const
export type ReadingKind = keyof typeof readingKinds
/** The kinds somebody types on a sheet; the others are written by an instrument or at a step of the rebuild. */
export const typedKinds = ['running', 'locked', 'timed', 'creep', 'stops', 'trial', 'dead'] as const
export type TypedKind = (typeof typedKinds)[number]

type FieldsOf<K extends ReadingKind> = Static<(typeof readingKinds)[K]['schema']>
export type ReadingFields = { [K in ReadingKind]: FieldsOf<K> }[ReadingKind]
export const ReadingFields = Type.Unsafe<ReadingFields>(
  ByKind(Type.Union(Object.values(readingKinds).map(({ schema }) => schema))),
)

/** The module of a line, for whoever does not know its kind beforehand. */
function moduleOf(kind: ReadingKind): ReadingKindModule<TObject> {
  return readingKinds[kind] as unknown as ReadingKindModule<TObject>
}

/** The line in words, with its values in the units of the bench. */
export const lineInWords = (fields: ReadingFields): LineInWords => moduleOf(fields.kind).line(fields)

/** What a line says of the motor, in the core's own form; null where it says nothing by itself. */
export const motorReading = (fields: ReadingFields): SheetReading | null => moduleOf(fields.kind).motor(fields)

/** What no bench can have read, or what does not agree with itself; null for a sound line. */
export function readingProblem(fields: ReadingFields, source: 'typed' | 'measured'): FieldProblem | null {
  for (const [name, quantity] of Object.entries(fields.quantities) as Array<[QuantityName, RecordedQuantity]>) {
    const message = quantityProblem(lineQuantities[name].kind, quantity, source)
    if (message) return { field: `fields.quantities.${name}`, message }
  }
  if (source === 'measured') return null
  const { boxes, contradictions } = moduleOf(fields.kind)
  if (boxes('none').length === 0)
    return { field: 'fields.kind', message: 'A line of this kind is written by an instrument, not typed.' }
  const [contradiction] = Object.entries(contradictions(fields.quantities))
  return contradiction ? { field: `fields.quantities.${contradiction[0]}`, message: contradiction[1] } : null
}

/** The fields alone of a line that carries more, as a correction of it is sent. */
export function fieldsOfReading(line: ReadingFields): ReadingFields {
  const known = Object.keys(readingKinds[line.kind].schema.properties)
  return Object.fromEntries(Object.entries(line).filter(([field]) => known.includes(field))) as ReadingFields
}
