/**
 * Scales of model railways and what a timed run means at full size.
 * Scale is the size of the model, gauge the distance between the rails: they are recorded apart.
 */
export interface Scale {
  readonly id: string
  readonly name: string
  /** Full size divided by model size. */
  readonly ratio: number
  /** Where the ratio is from. */
  readonly source: string
}

const MILLIMETRES_PER_FOOT = 304.8

/**
 * Ratio of a scale stated in millimetres to the foot (exact: 1 ft = 304.8 mm).
 *
 * @example ratioFromMillimetresPerFoot(4) // 76.2
 */
export function ratioFromMillimetresPerFoot(millimetresPerFoot: number): number {
  if (!(millimetresPerFoot > 0)) throw new RangeError('A scale needs more than 0 mm to the foot.')
  return MILLIMETRES_PER_FOOT / millimetresPerFoot
}

export const scales: readonly Scale[] = [
  { id: 'h0-87', name: 'H0 1:87', ratio: 87, source: 'NEM 010' },
  { id: 'h0-3.5mm', name: 'H0 3.5 mm/ft', ratio: ratioFromMillimetresPerFoot(3.5), source: 'NMRA S-1.2' },
  { id: '00', name: '00 4 mm/ft', ratio: ratioFromMillimetresPerFoot(4), source: 'derived from 4 mm/ft' },
  { id: 'n-160', name: 'N 1:160', ratio: 160, source: 'NEM 010' },
  { id: 'n-148', name: 'N 1:148', ratio: 148, source: 'common practice' },
  { id: 'tt-120', name: 'TT 1:120', ratio: 120, source: 'NEM 010' },
  { id: 'tt-3mm', name: 'TT 3 mm/ft', ratio: ratioFromMillimetresPerFoot(3), source: 'derived from 3 mm/ft' },
  { id: 's-64', name: 'S 1:64', ratio: 64, source: 'NEM 010' },
  { id: '0-48', name: '0 1:48', ratio: 48, source: 'NMRA S-1.2' },
  { id: '0-45', name: '0 1:45', ratio: 45, source: 'NEM 010' },
  { id: '0-7mm', name: '0 7 mm/ft', ratio: ratioFromMillimetresPerFoot(7), source: 'derived from 7 mm/ft' },
  { id: '1-32', name: 'I 1:32', ratio: 32, source: 'NEM 010' },
]

/** Track gauges in millimetres, with the names used for them. */
export const gauges: ReadonlyArray<{ readonly millimetres: number; readonly name: string }> = [
  { millimetres: 9, name: '9 mm' },
  { millimetres: 12, name: '12 mm' },
  { millimetres: 14.28, name: '14.28 mm' },
  { millimetres: 16.5, name: '16.5 mm' },
  { millimetres: 22.42, name: '22.42 mm' },
  { millimetres: 32, name: '32 mm' },
  { millimetres: 45, name: '45 mm' },
]

export const KILOMETRES_PER_HOUR = 3.6
/** Metres per second to miles per hour: 1 mile = 1609.344 m exactly. */
export const MILES_PER_HOUR = 3600 / 1609.344

/** Finds a scale by its id. */
export function findScale(id: string): Scale | undefined {
  return scales.find((scale) => scale.id === id)
}

/**
 * Speed at full size.
 *
 * @param modelMetresPerSecond speed of the model, m/s
 * @param ratio full size divided by model size
 * @returns km/h and mph of the prototype
 * @example scaleSpeed(0.2, 87) // { kilometresPerHour: 62.64, milesPerHour: 38.92 }
 */
export function scaleSpeed(
  modelMetresPerSecond: number,
  ratio: number,
): { kilometresPerHour: number; milesPerHour: number } {
  const fullSize = modelMetresPerSecond * ratio
  return { kilometresPerHour: fullSize * KILOMETRES_PER_HOUR, milesPerHour: fullSize * MILES_PER_HOUR }
}

/**
 * Motor speed behind a timed track speed.
 *
 * @param modelMetresPerSecond speed of the model, m/s
 * @param wheelDiameterMetres diameter on the tread, m
 * @param gearRatio motor turns per wheel turn
 * @returns rad/s of the motor
 * @throws RangeError when diameter or ratio is not above zero
 * @example motorSpeedFromTrackSpeed(0.2, 0.012, 20) // 666.7
 */
export function motorSpeedFromTrackSpeed(
  modelMetresPerSecond: number,
  wheelDiameterMetres: number,
  gearRatio: number,
): number {
  if (!(wheelDiameterMetres > 0)) throw new RangeError('Wheel diameter must be above zero.')
  if (!(gearRatio > 0)) throw new RangeError('Gear ratio must be above zero.')
  return (modelMetresPerSecond / (wheelDiameterMetres / 2)) * gearRatio
}
