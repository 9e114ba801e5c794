/**
 * The quantities a repairer types, each with the unit taken for granted when none is typed, the units
 * accepted, and the range in which a value is believable at a model repair bench (common practice, no source).
 */
export interface QuantityKind {
  /** What the quantity is called in a sentence. */
  readonly name: string
  /** Unit assumed when only digits are typed. */
  readonly defaultUnit: string
  /** Factor from each accepted unit to the SI unit (or to the plain count). */
  readonly units: Readonly<Record<string, number>>
  /** Above this (SI) the value is refused as a slip of the finger. */
  readonly largest: number
  readonly mayBeNegative: boolean
  /** How to put a negative number right. */
  readonly negativeAdvice?: string
}

const REVOLUTIONS_PER_MINUTE = (2 * Math.PI) / 60

export const quantityKinds = {
  voltage: {
    name: 'voltage',
    defaultUnit: 'V',
    units: { V: 1, mV: 1e-3, volt: 1, volts: 1 },
    largest: 60,
    mayBeNegative: false,
    negativeAdvice: 'Type the size of the voltage and choose Reverse for the other direction.',
  },
  current: {
    name: 'current',
    defaultUnit: 'mA',
    units: { A: 1, mA: 1e-3, amp: 1, amps: 1, µA: 1e-6, uA: 1e-6 },
    largest: 20,
    mayBeNegative: false,
    negativeAdvice:
      'A minus sign means the meter leads are the other way round: type the size of the current and choose the direction.',
  },
  rotation: {
    name: 'motor speed',
    defaultUnit: 'rpm',
    units: { rpm: REVOLUTIONS_PER_MINUTE, '1/min': REVOLUTIONS_PER_MINUTE, 'rad/s': 1 },
    largest: 60_000 * REVOLUTIONS_PER_MINUTE,
    mayBeNegative: false,
    negativeAdvice: 'Type the size of the speed and choose Reverse for the other direction.',
  },
  duration: {
    name: 'time',
    defaultUnit: 's',
    units: { s: 1, sec: 1, min: 60, ms: 1e-3 },
    largest: 7200,
    mayBeNegative: false,
  },
  length: {
    name: 'distance',
    defaultUnit: 'mm',
    units: { mm: 1e-3, cm: 1e-2, m: 1, in: 0.0254, '"': 0.0254, ft: 0.3048 },
    largest: 200,
    mayBeNegative: false,
  },
  resistance: {
    name: 'resistance',
    defaultUnit: 'Ω',
    units: { Ω: 1, ohm: 1, ohms: 1, kΩ: 1000, kohm: 1000, MΩ: 1e6, mΩ: 1e-3 },
    largest: 1e9,
    mayBeNegative: false,
  },
  angle: {
    name: 'armature angle',
    defaultUnit: '°',
    units: { '°': Math.PI / 180, deg: Math.PI / 180 },
    largest: 2 * Math.PI,
    mayBeNegative: false,
  },
  temperature: {
    name: 'temperature',
    defaultUnit: '°C',
    units: { '°C': 1, C: 1 },
    largest: 200,
    mayBeNegative: true,
  },
  count: {
    name: 'count',
    defaultUnit: '×',
    units: { '×': 1, x: 1 },
    largest: 10_000,
    mayBeNegative: false,
  },
} as const satisfies Record<string, QuantityKind>

export type QuantityKindName = keyof typeof quantityKinds
