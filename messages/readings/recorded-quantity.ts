import { Type, type Static } from 'typebox'
import { quantityKinds, type QuantityKindName } from '../../core/measure/quantity-kinds'
import { readTypedQuantity } from '../../core/measure/typed-quantity'
import { closed, Id, Line, OrNull } from '../parts'

/** One quantity of a reading: the text typed, what it was understood as, and the meter as it stood then. */
export const RecordedQuantity = Type.Object(
  {
    typed: Line(40),
    /** SI; what a bench can have is checked by kind. */
    value: Type.Number({ minimum: -1e9, maximum: 1e9 }),
    resolution: Type.Number({ minimum: 0, maximum: 1e9 }),
    meter: OrNull(
      Type.Object(
        {
          id: Id,
          name: Line(120),
          percentOfReading: Type.Number({ minimum: 0, maximum: 50 }),
          digits: Type.Number({ minimum: 0, maximum: 1000 }),
        },
        closed,
      ),
    ),
  },
  closed,
)
export type RecordedQuantity = Static<typeof RecordedQuantity>

interface QuantityRow {
  readonly kind: QuantityKindName
  /** What its box is called. */
  readonly label: string
  /** The unit it is typed and shown in, and how many of them make one of SI's. */
  readonly unit: string
  readonly perSi: number
}

/** Every quantity a line of a sheet can have. */
export const lineQuantities = {
  voltage: { kind: 'voltage', label: 'Volts', unit: 'V', perSi: 1 },
  current: { kind: 'current', label: 'Current', unit: 'mA', perSi: 1000 },
  rotation: { kind: 'rotation', label: 'Motor speed', unit: 'rpm', perSi: 60 / (2 * Math.PI) },
  distance: { kind: 'length', label: 'Distance', unit: 'mm', perSi: 1000 },
  duration: { kind: 'duration', label: 'Time', unit: 's', perSi: 1 },
  angle: { kind: 'angle', label: 'Armature at', unit: '°', perSi: 180 / Math.PI },
  /** The how-manieth hold of the armature, where an instrument read several voltages at one. */
  hold: { kind: 'count', label: 'Hold', unit: '×', perSi: 1 },
  stops: { kind: 'count', label: 'Stops', unit: '×', perSi: 1 },
  laps: { kind: 'count', label: 'in laps', unit: '×', perSi: 1 },
  failures: { kind: 'count', label: 'Failed', unit: '×', perSi: 1 },
  attempts: { kind: 'count', label: 'of attempts', unit: '×', perSi: 1 },
} as const satisfies Record<string, QuantityRow>

export type QuantityName = keyof typeof lineQuantities
export type Quantities = Partial<Record<QuantityName, RecordedQuantity>>

/** A written quantity as the line shows it: the value in the box's own unit, as exact as it was typed. */
export function showQuantity(name: QuantityName, quantity: RecordedQuantity | undefined): string {
  if (!quantity) return ''
  const { kind, unit, perSi }: QuantityRow = lineQuantities[name]
  // What an instrument measured has no text of its own: its last digit says how exact it is.
  const typed = quantity.typed === '' ? null : readTypedQuantity(kind, quantity.typed)
  if (typed && !typed.ok) return quantity.typed
  const shown = quantity.value * perSi
  const exact = Math.max(0, Math.round(-Math.log10((typed ? typed.quantity.resolution : quantity.resolution) * perSi)))
  // An instrument's last digits are noise to the eye: four figures are enough on the line.
  const decimals = typed
    ? Math.min(exact, 4)
    : Math.min(exact, Math.max(0, 3 - Math.floor(Math.log10(Math.max(Math.abs(shown), 1)))))
  return `${shown.toFixed(decimals)}${kind === 'count' ? '' : ` ${unit}`}`
}

/** Between what a text says and the value that came with it: no more than the rounding of a computer. */
const ROUNDING = 1e-9

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
