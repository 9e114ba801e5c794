import { readTypedQuantity } from '../core/measure/typed-quantity'
import type { QuantityKindName } from '../core/measure/quantity-kinds'
import type { MeterRow } from './book'
import type { ReadingFields, ReadingKind, RecordedQuantity } from './bench-entries'

type QuantityName = keyof ReadingFields['quantities']

/** A box of the reading line: which quantity, how it is labelled, and whether the line needs it. */
export interface ReadingBox {
  readonly name: QuantityName
  readonly kind: QuantityKindName
  readonly label: string
  readonly unit: string
  readonly needed: boolean
}

const box = (name: QuantityName, kind: QuantityKindName, label: string, unit: string, needed = true): ReadingBox => ({
  name,
  kind,
  label,
  unit,
  needed,
})
const VOLTS = box('voltage', 'voltage', 'Volts', 'V')
const MILLIAMPS = box('current', 'current', 'Current', 'mA')
const DISTANCE = box('distance', 'length', 'Distance', 'mm')
const SECONDS = box('duration', 'duration', 'Time', 's')

/** How the speed of a running reading is told. */
export type SpeedBy = 'none' | 'rotation' | 'timed'

/** The boxes of a line of each kind. */
export function boxesOf(kind: ReadingKind, speedBy: SpeedBy): ReadingBox[] {
  switch (kind) {
    case 'running':
      return [
        VOLTS,
        MILLIAMPS,
        ...(speedBy === 'rotation'
          ? [box('rotation', 'rotation', 'Motor speed', 'rpm', false)]
          : speedBy === 'timed'
            ? [
                { ...DISTANCE, needed: false },
                { ...SECONDS, needed: false },
              ]
            : []),
      ]
    case 'locked':
      return [VOLTS, MILLIAMPS, box('angle', 'angle', 'Armature at', '°', false)]
    case 'timed':
    case 'creep':
      return [DISTANCE, SECONDS]
    case 'stops':
      return [box('stops', 'count', 'Stops', '×'), box('laps', 'count', 'in laps', '×')]
    case 'trial':
      return [box('failures', 'count', 'Failed', '×'), box('attempts', 'count', 'of attempts', '×')]
    case 'dead':
      return [{ ...VOLTS, needed: false }]
  }
}

export interface ReadingLine {
  kind: ReadingKind
  direction: 'forward' | 'reverse'
  typed: Partial<Record<QuantityName, string>>
}

export interface UnderstoodLine {
  /** What to send; null while something needed is missing or wrong. */
  readonly fields: ReadingFields | null
  /** A sentence per box that is wrong (not: merely empty). */
  readonly errors: Partial<Record<QuantityName, string>>
  /** The first box that is needed and empty. */
  readonly missing: QuantityName | null
}

/**
 * Understands a line as typed: every box with its unit, resolution and the meter as it stands now.
 *
 * @param meters the meters in use, by quantity
 */
export function understandLine(
  line: ReadingLine,
  boxes: readonly ReadingBox[],
  meters: { voltage: MeterRow | null; current: MeterRow | null },
): UnderstoodLine {
  const quantities: ReadingFields['quantities'] = {}
  const errors: UnderstoodLine['errors'] = {}
  let missing: QuantityName | null = null
  for (const { name, kind, needed } of boxes) {
    const read = readTypedQuantity(kind, line.typed[name] ?? '')
    if (read.ok) {
      const meter = name === 'voltage' || name === 'current' ? meters[name] : null
      quantities[name] = {
        typed: read.quantity.typed.trim(),
        value: read.quantity.value,
        resolution: meter ? Math.max(read.quantity.resolution, meter.resolution) : read.quantity.resolution,
        meter: meter && {
          id: meter.id,
          name: meter.name,
          percentOfReading: meter.percentOfReading,
          digits: meter.digits,
        },
      } satisfies RecordedQuantity
    } else if (read.error.code !== 'empty') {
      errors[name] = read.error.message
    } else if (needed) {
      missing ??= name
    }
  }
  Object.assign(errors, readingContradictions(line.kind, quantities))
  const sound = missing === null && Object.keys(errors).length === 0
  const direction = ['stops', 'trial', 'dead'].includes(line.kind) ? null : line.direction
  return { fields: sound ? { kind: line.kind, direction, quantities, vouched: false } : null, errors, missing }
}

/** What cannot be so within one line, by the box that is likeliest wrong. */
export function readingContradictions(
  kind: ReadingKind,
  { voltage, current, failures, attempts, laps, distance, duration }: ReadingFields['quantities'],
): UnderstoodLine['errors'] {
  if (kind === 'trial' && failures && attempts && failures.value > attempts.value)
    return { failures: 'It cannot fail more often than it was tried.' }
  if (kind === 'trial' && attempts?.value === 0) return { attempts: 'At least one attempt.' }
  if (kind === 'stops' && laps?.value === 0) return { laps: 'At least one lap.' }
  if ((kind === 'timed' || kind === 'creep') && distance?.value === 0) return { distance: 'A distance above zero.' }
  if ((kind === 'timed' || kind === 'creep') && duration?.value === 0) return { duration: 'A time above zero.' }
  if ((kind === 'running' || kind === 'locked') && voltage?.value === 0)
    return { voltage: 'A reading at 0 V tells nothing about the motor.' }
  if (kind === 'locked' && current?.value === 0)
    return { current: 'No current although held: an open circuit is a finding (F), not a reading.' }
  if (kind === 'running' && current?.value === 0)
    return { current: 'Running without current cannot be: on the track with 0 mA it is Dead.' }
  return {}
}

/** A written quantity as the line shows it: the value in the box's own unit, as exact as it was typed. */
export function showQuantity(name: QuantityName, quantity: RecordedQuantity | undefined): string {
  if (!quantity) return ''
  const [factor, unit] = shownUnits[name] ?? [1, '']
  // What an instrument measured has no text of its own: its last digit says how exact it is.
  const typed = quantity.typed === '' ? null : readTypedQuantity(kindOf(name), quantity.typed)
  if (typed && !typed.ok) return quantity.typed
  const shown = quantity.value * factor
  const exact = Math.max(0, Math.round(-Math.log10((typed ? typed.quantity.resolution : quantity.resolution) * factor)))
  // An instrument's last digits are noise to the eye: four figures are enough on the line.
  const decimals = typed
    ? Math.min(exact, 4)
    : Math.min(exact, Math.max(0, 3 - Math.floor(Math.log10(Math.max(Math.abs(shown), 1)))))
  return `${shown.toFixed(decimals)}${unit ? ` ${unit}` : ''}`
}

const shownUnits: Partial<Record<QuantityName, readonly [number, string]>> = {
  voltage: [1, 'V'],
  current: [1000, 'mA'],
  rotation: [60 / (2 * Math.PI), 'rpm'],
  distance: [1000, 'mm'],
  duration: [1, 's'],
  angle: [180 / Math.PI, '°'],
}

function kindOf(name: QuantityName): QuantityKindName {
  const kinds: Partial<Record<QuantityName, QuantityKindName>> = {
    distance: 'length',
    stops: 'count',
    laps: 'count',
    failures: 'count',
    attempts: 'count',
  }
  return kinds[name] ?? (name as QuantityKindName)
}
