import { isRefused, refuse, type Figure, type Refusal } from '../measure/measured-value'
import { studentFactor95 } from '../measure/uncertainty'
import { LOCKED_ANGLE_SPREAD } from './terminal-equation'
import { solveWeightedLeastSquares } from './weighted-least-squares'

/** One reading of a series motor, SI; volts and amps r.m.s. on AC. */
export interface SeriesPoint {
  readonly supply: 'dc' | 'ac'
  readonly volts: number
  readonly amps: number
  /** rad/s; 0 while held, null when not known. */
  readonly speed: number | null
  /** Relative standard uncertainty of volts over amps. */
  readonly relative: number
}

export const seriesFigureNames = ['resistance', 'fieldConstant', 'reactance', 'stallCurrent', 'runningSpeed'] as const
export type SeriesFigureName = (typeof seriesFigureNames)[number]

export interface SeriesFit {
  readonly nominalVolts: number
  readonly figures: Readonly<Record<SeriesFigureName, Figure>>
}

/** The DC readings must hold the slope of V/I against speed: slowest against fastest. */
const HELD_ON_DC = 'Three held readings at low voltage on smooth DC, the armature turned a little between them.'
const SPEED_ON_DC = 'Running readings with the motor speed (or a timed distance) at two voltages on smooth DC.'
const HELD_ON_AC = 'Held readings at low voltage on AC, as for DC.'

/**
 * Fits an unsaturated series motor: on smooth DC `V/I = R + K·ω`; on AC the reactive drop adds in quadrature,
 * `(V/I)² = (R + K·ω)² + X²`. Torque is then K·I². DC readings give R and K; AC ones of known speed give X.
 *
 * @param points at least one
 * @param nominalVolts V r.m.s. the stall current and the running speed are meant for
 * @returns every figure with its 95 % interval, or why it cannot be had and what to read
 */
export function fitSeriesMotor(points: readonly SeriesPoint[], nominalVolts: number): SeriesFit {
  const direct = points.filter((point) => point.supply === 'dc' && point.speed !== null)
  const line = fitResistanceLine(direct)
  const resistance = line
    ? interval(line.resistance, line.resistanceDeviation, line.freedom, 'Ω')
    : refuse('no-held-dc', 'On AC alone resistance and reactance cannot be told apart.', HELD_ON_DC)
  const fieldConstant =
    line?.fieldConstant != null && line.fieldConstantDeviation !== null
      ? interval(line.fieldConstant, line.fieldConstantDeviation, line.freedom, 'V·s/(rad·A)')
      : refuse('no-speed-dc', 'How strongly its field acts shows only while it turns at a known speed.', SPEED_ON_DC)
  const reactance = line
    ? reactanceOf(points, line)
    : refuse('no-held-dc', 'On AC alone resistance and reactance cannot be told apart.', HELD_ON_DC)
  return {
    nominalVolts,
    figures: {
      resistance,
      fieldConstant,
      reactance,
      stallCurrent: stallOf(resistance, reactance, nominalVolts),
      runningSpeed: speedOf(points, line, reactance, nominalVolts),
    },
  }
}

interface ResistanceLine {
  readonly resistance: number
  readonly resistanceDeviation: number
  readonly fieldConstant: number | null
  readonly fieldConstantDeviation: number | null
  readonly freedom: number
}

function fitResistanceLine(points: readonly SeriesPoint[]): ResistanceLine | null {
  const held = points.filter((point) => point.speed === 0)
  const turning = points.filter((point) => (point.speed ?? 0) > 0)
  const speeds = new Set(turning.map((point) => Math.round(point.speed ?? 0)))
  if (held.length === 0 && speeds.size < 2) return null
  const withSlope = turning.length > 0
  const used = withSlope ? points : held
  const rows = used.map((point) => (withSlope ? [1, point.speed ?? 0] : [1]))
  const observed = used.map((point) => point.volts / point.amps)
  // Held, the resistance depends on where the armature stands; turning, it is the mean over a turn.
  const weights = used.map(
    (point, index) =>
      1 / ((observed[index] as number) * Math.hypot(point.relative, point.speed === 0 ? LOCKED_ANGLE_SPREAD : 0)) ** 2,
  )
  const solution = solveWeightedLeastSquares(rows, observed, weights)
  if (!solution) return null
  const [resistance = 0, slope = 0] = solution.parameters
  const freedom = Math.max(1, used.length - (withSlope ? 2 : 1))
  const chiSquared = used.reduce(
    (sum, point, index) =>
      sum + (weights[index] as number) * ((observed[index] as number) - resistance - slope * (point.speed ?? 0)) ** 2,
    0,
  )
  // Scatter beyond what was assumed widens the interval; less does not narrow it.
  const widening = Math.sqrt(Math.max(1, chiSquared / freedom))
  const deviation = (index: number): number => Math.sqrt(solution.covariance[index]?.[index] ?? 0) * widening
  return {
    resistance,
    resistanceDeviation: deviation(0),
    fieldConstant: withSlope ? slope : null,
    fieldConstantDeviation: withSlope ? deviation(1) : null,
    freedom: used.length - (withSlope ? 2 : 1),
  }
}

function reactanceOf(points: readonly SeriesPoint[], line: ResistanceLine): Figure {
  const usable = points.filter(
    (point) => point.supply === 'ac' && point.speed !== null && (point.speed === 0 || line.fieldConstant !== null),
  )
  if (usable.length === 0)
    return refuse(
      'no-known-ac',
      'The reactive drop shows on AC, where the speed is known or the armature is held.',
      HELD_ON_AC,
    )
  const squares = usable.map((point) => {
    const impedance = point.volts / point.amps
    const resistive = line.resistance + (line.fieldConstant ?? 0) * (point.speed ?? 0)
    const deviation = Math.hypot(
      2 * impedance ** 2 * point.relative,
      2 * resistive * Math.hypot(line.resistanceDeviation, (line.fieldConstantDeviation ?? 0) * (point.speed ?? 0)),
    )
    return { value: impedance ** 2 - resistive ** 2, weight: 1 / deviation ** 2 }
  })
  const weight = squares.reduce((sum, entry) => sum + entry.weight, 0)
  const mean = squares.reduce((sum, entry) => sum + entry.weight * entry.value, 0) / weight
  // The doubt about R is common to all: averaging does not lessen it, so the widest counts.
  const deviation = Math.sqrt(Math.max(...squares.map((entry) => 1 / entry.weight)))
  const root = (value: number): number => Math.sqrt(Math.max(0, value))
  return { value: root(mean), low: root(mean - 1.96 * deviation), high: root(mean + 1.96 * deviation), unit: 'Ω' }
}

function stallOf(resistance: Figure, reactance: Figure, volts: number): Figure {
  if (isRefused(resistance)) return resistance
  if (isRefused(reactance)) return reactance
  const current = (ohms: number, reactive: number): number => volts / Math.hypot(ohms, reactive)
  return {
    value: current(resistance.value, reactance.value),
    low: current(resistance.high, reactance.high),
    high: current(resistance.low, reactance.low),
    unit: 'A',
  }
}

/** Speed at the reading nearest the nominal volts on AC, from what is left of its impedance. */
function speedOf(
  points: readonly SeriesPoint[],
  line: ResistanceLine | null,
  reactance: Figure,
  volts: number,
): Figure {
  const near = points
    .filter((point) => point.supply === 'ac' && point.speed !== 0 && Math.abs(point.volts - volts) < 0.15 * volts)
    .sort((first, second) => Math.abs(first.volts - volts) - Math.abs(second.volts - volts))[0]
  if (!near)
    return refuse(
      'not-at-nominal',
      `Nothing was read running near ${volts} V on AC.`,
      `A running reading at ${volts} V on AC.`,
    )
  const missing: Refusal | null = isRefused(reactance)
    ? reactance
    : line?.fieldConstant == null
      ? refuse('no-speed-dc', 'How strongly its field acts is not known yet.', SPEED_ON_DC)
      : null
  if (missing || !line || line.fieldConstant === null || isRefused(reactance))
    return missing ?? refuse('no-held-dc', 'Resistance is not known yet.', HELD_ON_DC)
  const { fieldConstant } = line
  const speed = (ohms: number, reactive: number, field: number): number =>
    Math.max(0, (Math.sqrt(Math.max(0, (near.volts / near.amps) ** 2 - reactive ** 2)) - ohms) / field)
  const spread = 1.96 * line.resistanceDeviation
  const fieldSpread = 1.96 * (line.fieldConstantDeviation ?? 0)
  return {
    value: speed(line.resistance, reactance.value, fieldConstant),
    low: speed(line.resistance + spread, reactance.high, fieldConstant + fieldSpread),
    high: speed(
      Math.max(0, line.resistance - spread),
      reactance.low,
      Math.max(fieldConstant / 10, fieldConstant - fieldSpread),
    ),
    unit: 'rad/s',
  }
}

function interval(value: number, deviation: number, freedom: number, unit: string): Figure {
  const half = studentFactor95(Math.max(1, freedom)) * deviation
  return { value, low: Math.max(0, value - half), high: value + half, unit }
}
