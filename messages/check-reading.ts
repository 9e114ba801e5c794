import { quantityKinds, type QuantityKindName } from '../core/measure/quantity-kinds'
import { readTypedQuantity } from '../core/measure/typed-quantity'
import { readingKinds, type ReadingFields, type RecordedQuantity } from './bench-entries'
import { readingContradictions } from './reading-line'
import type { FieldProblem } from './validate'

type QuantityName = keyof ReadingFields['quantities']

const kindOf: Readonly<Record<QuantityName, QuantityKindName>> = {
  voltage: 'voltage',
  current: 'current',
  rotation: 'rotation',
  distance: 'length',
  duration: 'duration',
  angle: 'angle',
  hold: 'count',
  stops: 'count',
  laps: 'count',
  failures: 'count',
  attempts: 'count',
}

/** What each kind of line cannot do without. */
const needed: Readonly<Record<ReadingFields['kind'], readonly QuantityName[]>> = {
  running: ['voltage', 'current'],
  locked: ['voltage', 'current'],
  timed: ['distance', 'duration'],
  creep: ['distance', 'duration'],
  stops: ['stops', 'laps'],
  trial: ['failures', 'attempts'],
  dead: [],
}

/** Between what a text says and the value that came with it: no more than the rounding of a computer. */
const ROUNDING = 1e-9

/** What no bench can have read, or what does not agree with itself; null for a sound line. */
export function readingProblem(fields: ReadingFields, source: 'typed' | 'measured'): FieldProblem | null {
  for (const name of needed[fields.kind]) {
    if (!fields.quantities[name])
      return {
        field: `fields.quantities.${name}`,
        message: `A line of kind “${readingKinds[fields.kind]}” needs its ${name}.`,
      }
  }
  for (const [name, quantity] of Object.entries(fields.quantities) as Array<[QuantityName, RecordedQuantity]>) {
    const message = quantityProblem(kindOf[name], quantity, source)
    if (message) return { field: `fields.quantities.${name}`, message }
  }
  const [contradiction] =
    source === 'typed' ? Object.entries(readingContradictions(fields.kind, fields.quantities)) : []
  return contradiction ? { field: `fields.quantities.${contradiction[0]}`, message: contradiction[1] } : null
}

/** A quantity beyond what a bench has, or a text that says something else than its value; null when it is sound. */
export function quantityProblem(
  kind: QuantityKindName,
  { typed, value, resolution }: RecordedQuantity,
  source: 'typed' | 'measured',
): string | null {
  const { name, largest } = quantityKinds[kind]
  if ((source === 'typed' && value < 0) || Math.abs(value) > largest)
    return `A ${name} like this is not to be had at a bench: check the digits and the unit.`
  if (resolution > largest) return `The last digit of a ${name} cannot be worth that much.`
  if (source === 'measured') return null
  const read = readTypedQuantity(kind, typed)
  if (!read.ok) return read.error.message
  return Math.abs(read.quantity.value - value) <= ROUNDING * Math.max(1, value)
    ? null
    : `“${typed}” does not say the value that came with it.`
}
