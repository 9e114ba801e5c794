import { refuse, type Figure, type Refusal } from '../measure/measured-value'
import { studentFactor95 } from '../measure/uncertainty'
import { fitFrictionLine, type FrictionLine } from './friction-line'
import {
  bestLoad,
  noLoadCurrent,
  noLoadSpeed,
  stallCurrent,
  stallTorque,
  keepsTurningDownTo,
  type MotorConstants,
} from './operating-point'
import { findStartBreak, type StartBreak } from './start-break'
import { NO_SCALE_UNCERTAINTY, type Direction, type ScaleUncertainty, type SweepPoint } from './sweep-point'
import { fitSupplyLine, type SupplyLine } from './supply-line'
import { backEmfAt20, resistanceAt20 } from './temperature'
import { fitTerminalEquation, type TerminalEquation } from './terminal-equation'

export interface SweepFitOptions {
  /** The part of the meters' error that is the same for all readings of the sheet. */
  readonly scale?: ScaleUncertainty
  /** Winding temperature while measuring, °C; null when not known: nothing is referred to 20 °C then. */
  readonly windingCelsius?: number | null
  /** Voltage at which no-load and stall figures are given, V. */
  readonly nominalVoltage?: number
}

/** Value and 95 % bounds without a unit, for drawing a band. */
export interface Band {
  readonly value: number
  readonly low: number
  readonly high: number
}

export interface SweepFit {
  readonly nominalVoltage: number
  readonly figures: Readonly<Record<SweepFigureName, Figure>>
  /** What drag decides, each way on its own: winding and magnet are the same both ways, friction need not be. */
  readonly byDirection: Readonly<Record<Direction, Readonly<Record<DragFigureName, Figure>> | null>>
  readonly constants: MotorConstants | null
  readonly terminal: TerminalEquation | null
  readonly friction: FrictionLine | null
  readonly startBreak: StartBreak | null
  /** Unloaded current and speed expected at a voltage, for the chart; null where the sheet cannot say. */
  currentAt(voltage: number): Band | null
  speedAt(voltage: number): Band | null
}

export const sweepFigureNames = [
  'resistance',
  'resistanceAt20',
  'backEmf',
  'backEmfAt20',
  'brushDrop',
  'startVoltage',
  'keepsTurningDownTo',
  'coulombFriction',
  'viscousFriction',
  'noLoadCurrent',
  'noLoadSpeed',
  'stallCurrent',
  'stallTorque',
  'bestEfficiency',
  'bestOutput',
] as const
export type SweepFigureName = (typeof sweepFigureNames)[number]

export const dragFigureNames = [
  'startVoltage',
  'keepsTurningDownTo',
  'coulombFriction',
  'noLoadCurrent',
  'noLoadSpeed',
] as const satisfies readonly SweepFigureName[]
export type DragFigureName = (typeof dragFigureNames)[number]

const SIX_LOCKED = 'Six locked readings at low voltage, the armature turned a little between them.'
const THREE_SPEEDS = 'Motor speed (or a timed distance with wheel and gear known) at three voltages each way.'
const SPREAD_VOLTAGES = 'Running readings at three voltages well apart, for example 4, 8 and 12 V.'

/** Readings whose voltages lie within this fraction of each other count as one and the same. */
const ALIKE_FRACTION = 0.03

/**
 * Fits a brushed DC motor to a typed or measured sheet: V = R·I + Ke·ω + Vb with friction Ke·I = Tc + b·ω.
 * Every figure comes with its 95 % interval, or with the reason it cannot be had and the reading that is missing.
 *
 * @param points readings, SI, sizes only; speed null where not measured
 * @returns figures, or one refusal for the whole sheet when nothing can be said at all
 */
export function fitSweep(points: readonly SweepPoint[], options: SweepFitOptions = {}): SweepFit | Refusal {
  const nominalVoltage = options.nominalVoltage ?? 12
  const impossible = refuseWholeSheet(points)
  if (impossible) return impossible

  const startBreak = points.some((point) => point.locked || point.speed !== null) ? null : findStartBreak(points)
  const sorted = startBreak
    ? points.map((point) =>
        point.voltage <= startBreak.lastStandingVoltage ? { ...point, locked: true, speed: 0 } : point,
      )
    : points
  const locked = sorted.filter((point) => point.locked && point.current > 0)
  const running = sorted.filter((point) => !point.locked)
  const timed = running.filter((point) => point.speed !== null && point.speed > 0)

  const terminal = fitTerminalEquation([...locked, ...timed])
  const friction = fitFrictionLine(timed)
  const supply = fitSupplyLine(running)
  const scale = options.scale ?? NO_SCALE_UNCERTAINTY
  const model = terminal ? new FittedMotor(terminal, friction, scale) : null
  const context: FigureContext = {
    points: sorted,
    model,
    terminal,
    friction,
    supply,
    startBreak,
    locked,
    running,
    timed,
    nominalVoltage,
    windingCelsius: options.windingCelsius ?? null,
    scale,
  }

  return {
    nominalVoltage,
    figures: figuresOf(sweepFigureNames, context),
    byDirection: { forward: oneWay(context, 'forward'), reverse: oneWay(context, 'reverse') },
    constants: model?.complete ? model.constants : null,
    terminal,
    friction,
    startBreak,
    currentAt: (voltage) => bandOf(context, voltage, 'current'),
    speedAt: (voltage) => bandOf(context, voltage, 'speed'),
  }
}

function figuresOf<N extends SweepFigureName>(names: readonly N[], context: FigureContext): Record<N, Figure> {
  return Object.fromEntries(names.map((name) => [name, figureMakers[name](context)])) as Record<N, Figure>
}

/** The same fit with the drag of one direction only; null when it was not run that way. */
function oneWay(context: FigureContext, direction: Direction): Record<DragFigureName, Figure> | null {
  const running = context.running.filter((point) => point.direction === direction)
  if (running.length === 0) return null
  const timed = context.timed.filter((point) => point.direction === direction)
  const friction = fitFrictionLine(timed)
  const model = context.terminal ? new FittedMotor(context.terminal, friction, context.scale) : null
  const points = context.points.filter((point) => point.direction === direction)
  return figuresOf(dragFigureNames, {
    ...context,
    points,
    running,
    timed,
    friction,
    model,
    supply: fitSupplyLine(running),
  })
}

export function isWholeRefusal(fit: SweepFit | Refusal): fit is Refusal {
  return 'refused' in fit
}

function refuseWholeSheet(points: readonly SweepPoint[]): Refusal | null {
  if (points.length === 0) {
    return refuse('no-readings', 'There are no readings yet.', SPREAD_VOLTAGES)
  }
  if (points.length === 1) {
    return refuse(
      'one-reading',
      'One reading alone says nothing about the motor: resistance, magnet and drag could share it in any way.',
      `${SPREAD_VOLTAGES} ${SIX_LOCKED}`,
    )
  }
  const voltages = points.map((point) => point.voltage)
  const allAlike = Math.max(...voltages) <= Math.min(...voltages) * (1 + ALIKE_FRACTION)
  if (allAlike && points.every((point) => point.locked === points[0]?.locked)) {
    return points[0]?.locked && points.length >= 3
      ? null
      : refuse(
          'readings-alike',
          `All ${points.length} readings were taken at about ${(voltages[0] as number).toFixed(1)} V: they repeat one point, and a line needs more than one.`,
          points[0]?.locked ? SIX_LOCKED : SPREAD_VOLTAGES,
        )
  }
  return null
}

/** The fitted constants with one covariance, from which every derived figure takes its interval. */
class FittedMotor {
  readonly constants: MotorConstants
  /** True when speed and friction slope are known, so that any operating point can be given. */
  readonly complete: boolean
  private readonly covariance: number[][]
  private readonly freedom: number

  constructor(terminal: TerminalEquation, friction: FrictionLine | null, scale: ScaleUncertainty) {
    this.constants = {
      resistance: terminal.resistance,
      backEmf: terminal.backEmf ?? 0,
      brushDrop: terminal.brushDrop,
      currentAtRest: friction?.currentAtRest ?? 0,
      currentPerSpeed: friction?.currentPerSpeed ?? 0,
    }
    this.complete = terminal.backEmf !== null && friction !== null && friction.currentPerSpeed !== null
    const lockedFreedom = terminal.lockedCount >= 3 ? terminal.lockedCount - 1 : Number.POSITIVE_INFINITY
    const runningFreedom =
      terminal.runningCount > 0
        ? Math.max(1, terminal.runningCount - (terminal.lockedCount > 0 ? 1 : 2))
        : Number.POSITIVE_INFINITY
    this.freedom = Math.min(lockedFreedom, runningFreedom)

    const { resistance, backEmf, brushDrop, currentAtRest, currentPerSpeed } = this.constants
    // What a scale error of volts, amps or speed does to each constant: R, Ke, Vb, a, c.
    const byScale = [
      [resistance, -resistance, 0],
      [backEmf, 0, -backEmf],
      [brushDrop, 0, 0],
      [0, currentAtRest, 0],
      [0, currentPerSpeed, -currentPerSpeed],
    ]
    const scaleVariance = [scale.voltage ** 2, scale.current ** 2, scale.speed ** 2]
    this.covariance = Array.from({ length: 5 }, (_, i) =>
      Array.from({ length: 5 }, (_, j) => {
        const statistical =
          i < 3 && j < 3
            ? ((terminal.covariance[i] as number[])[j] as number)
            : i >= 3 && j >= 3
              ? (friction?.covariance[i - 3]?.[j - 3] ?? 0)
              : 0
        const common = scaleVariance.reduce(
          (sum, variance, k) =>
            sum + variance * ((byScale[i] as number[])[k] as number) * ((byScale[j] as number[])[k] as number),
          0,
        )
        return statistical + common
      }),
    )
  }

  /** First-order propagation (GUM 5.2.2) of a figure computed from the constants. */
  interval(figure: (motor: MotorConstants) => number): Band {
    const { resistance, backEmf, brushDrop, currentAtRest, currentPerSpeed } = this.constants
    const centre = [resistance, backEmf, brushDrop, currentAtRest, currentPerSpeed]
    const evaluate = (values: readonly number[]): number =>
      figure({
        resistance: values[0] as number,
        backEmf: values[1] as number,
        brushDrop: values[2] as number,
        currentAtRest: values[3] as number,
        currentPerSpeed: values[4] as number,
      })
    const value = evaluate(centre)
    const gradient = centre.map((at, i) => {
      const deviation = Math.sqrt((this.covariance[i] as number[])[i] as number)
      const step = deviation > 0 ? deviation * 0.05 : 0
      if (step === 0) return 0
      const up = [...centre]
      const down = [...centre]
      up[i] = at + step
      down[i] = at - step
      return (evaluate(up) - evaluate(down)) / (2 * step)
    })
    const variance = gradient.reduce(
      (sum, left, i) =>
        sum +
        gradient.reduce((inner, right, j) => inner + left * right * ((this.covariance[i] as number[])[j] as number), 0),
      0,
    )
    const half = studentFactor95(this.freedom) * Math.sqrt(Math.max(variance, 0))
    return { value, low: value - half, high: value + half }
  }
}

interface FigureContext {
  readonly points: readonly SweepPoint[]
  readonly model: FittedMotor | null
  readonly terminal: TerminalEquation | null
  readonly friction: FrictionLine | null
  readonly supply: SupplyLine | null
  readonly startBreak: StartBreak | null
  readonly locked: readonly SweepPoint[]
  readonly running: readonly SweepPoint[]
  readonly timed: readonly SweepPoint[]
  readonly nominalVoltage: number
  readonly windingCelsius: number | null
  readonly scale: ScaleUncertainty
}

const figureMakers: Record<SweepFigureName, (context: FigureContext) => Figure> = {
  resistance: (context) => needResistance(context) ?? positive(context, (motor) => motor.resistance, 'Ω'),
  resistanceAt20: (context) =>
    needTemperature(context) ??
    needResistance(context) ??
    positive(context, (motor) => resistanceAt20(motor.resistance, context.windingCelsius as number), 'Ω'),
  backEmf: (context) => needSpeed(context) ?? positive(context, (motor) => motor.backEmf, 'V·s/rad'),
  backEmfAt20: (context) =>
    needTemperature(context) ??
    needSpeed(context) ??
    positive(context, (motor) => backEmfAt20(motor.backEmf, context.windingCelsius as number), 'V·s/rad'),
  brushDrop: (context) => needLocked(context) ?? either(context, (motor) => motor.brushDrop, 'V'),
  startVoltage: startSeen,
  keepsTurningDownTo: (context) =>
    needSpeed(context) ?? needSlope(context) ?? positive(context, keepsTurningDownTo, 'V'),
  coulombFriction: (context) =>
    needSpeed(context) ??
    needSlope(context) ??
    positive(context, (motor) => motor.backEmf * motor.currentAtRest, 'N·m'),
  viscousFriction: (context) =>
    needSpeed(context) ??
    needSlope(context) ??
    either(context, (motor) => motor.backEmf * motor.currentPerSpeed, 'N·m·s/rad'),
  noLoadCurrent: (context) =>
    context.model?.complete
      ? positive(context, (motor) => noLoadCurrent(motor, context.nominalVoltage), 'A')
      : noLoadCurrentWithoutSpeed(context),
  noLoadSpeed: (context) =>
    needSpeed(context) ??
    needSlope(context) ??
    positive(context, (motor) => noLoadSpeed(motor, context.nominalVoltage), 'rad/s'),
  stallCurrent: (context) =>
    needResistance(context) ?? positive(context, (motor) => stallCurrent(motor, context.nominalVoltage), 'A'),
  stallTorque: (context) =>
    needSpeed(context) ??
    needSlope(context) ??
    needLocked(context) ??
    positive(context, (motor) => stallTorque(motor, context.nominalVoltage), 'N·m'),
  bestEfficiency: (context) =>
    needSpeed(context) ??
    needSlope(context) ??
    needLocked(context) ??
    positive(context, (motor) => bestLoad(motor, context.nominalVoltage, 'efficiency')?.value ?? 0, ''),
  bestOutput: (context) =>
    needSpeed(context) ??
    needSlope(context) ??
    needLocked(context) ??
    positive(context, (motor) => bestLoad(motor, context.nominalVoltage, 'outputPower')?.value ?? 0, 'W'),
}

function either({ model }: FigureContext, figure: (motor: MotorConstants) => number, unit: string): Figure {
  return { ...(model as FittedMotor).interval(figure), unit }
}

function positive(context: FigureContext, figure: (motor: MotorConstants) => number, unit: string): Figure {
  const band = (context.model as FittedMotor).interval(figure)
  return { value: band.value, low: Math.max(0, band.low), high: band.high, unit }
}

function needTemperature({ windingCelsius }: FigureContext): Refusal | null {
  return windingCelsius === null
    ? refuse(
        'no-temperature',
        'Without the temperature nothing can be referred to 20 °C.',
        'The temperature of the motor, or of the room if it has stood for an hour.',
      )
    : null
}

function needResistance({ terminal, running, timed, locked }: FigureContext): Refusal | null {
  if (terminal && terminal.resistance > 0) return null
  if (terminal) {
    return refuse(
      'readings-disagree',
      'These readings ask for a resistance below zero: one of them is not what it says.',
      'The readings once more, and a few with the armature held.',
    )
  }
  if (locked.length === 0 && timed.length === 0) {
    const count = running.length === 2 ? 'two' : running.length === 3 ? 'three' : String(running.length)
    return refuse(
      'no-locked-reading',
      `The ${count} readings are all above the start voltage: add one below it, so the winding resistance can be told from the speed.`,
      SIX_LOCKED,
    )
  }
  return refuse(
    'too-few-readings',
    'Two running readings and no locked one leave resistance and magnet tangled.',
    SIX_LOCKED,
  )
}

function needLocked(context: FigureContext): Refusal | null {
  if (context.terminal && context.locked.length > 0) return needResistance(context)
  return refuse(
    'no-locked-reading',
    'Running readings alone lie on one line: brush drop and resistance cannot be told apart.',
    SIX_LOCKED,
  )
}

function needSpeed(context: FigureContext): Refusal | null {
  if (context.timed.length === 0) {
    return refuse('no-speed', 'Without a speed the magnet cannot be told from the drag.', THREE_SPEEDS)
  }
  const lacking = needResistance(context)
  if (lacking) return lacking
  return (context.terminal?.backEmf ?? 0) > 0
    ? null
    : refuse(
        'readings-disagree',
        'These readings ask for a magnet below zero: a speed or a voltage is not what it says.',
        'The running readings once more.',
      )
}

function needSlope({ friction }: FigureContext): Refusal | null {
  return friction && friction.currentPerSpeed !== null
    ? null
    : refuse(
        'speeds-alike',
        'The speeds are too few or too alike to part steady drag from drag that grows with speed.',
        SPREAD_VOLTAGES,
      )
}

/**
 * Between the highest voltage at which it stood by itself and the lowest at which it turned, both as seen. Grease and
 * brushes stick by chance: where it stood higher than it once turned, the interval is the one between the two.
 */
function startSeen({ startBreak, points }: FigureContext): Figure {
  const stood = [
    ...points.filter((point) => point.stood).map((point) => point.voltage),
    ...(startBreak ? [startBreak.lastStandingVoltage] : []),
  ]
  const turned = [
    ...points.filter((point) => !point.locked && (point.speed ?? 0) > 0).map((point) => point.voltage),
    ...(startBreak ? [startBreak.firstTurningVoltage] : []),
  ]
  if (stood.length === 0 || turned.length === 0)
    return refuse(
      'start-not-seen',
      'The start was not seen: no reading shows it standing by itself just before it turned.',
      'Voltage raised slowly from zero: a reading while it still stands, not held, and one as it starts.',
    )
  const [low = 0, high = 0] = [Math.max(...stood), Math.min(...turned)].sort((one, other) => one - other)
  return { value: (low + high) / 2, low, high, unit: 'V' }
}

function noLoadCurrentWithoutSpeed(context: FigureContext): Figure {
  const { supply, nominalVoltage } = context
  if (!supply) {
    return context.running.length === 0
      ? refuse('no-running-reading', 'Nothing was read while it ran free.', SPREAD_VOLTAGES)
      : refuse(
          'readings-alike',
          'The running readings lie too close together to say what it draws elsewhere.',
          SPREAD_VOLTAGES,
        )
  }
  const band = supply.currentAt(nominalVoltage, context.scale.current)
  return { value: band.value, low: Math.max(0, band.low), high: band.high, unit: 'A' }
}

function bandOf(context: FigureContext, voltage: number, what: 'current' | 'speed'): Band | null {
  if (context.model?.complete) {
    return context.model.interval((motor) =>
      what === 'current' ? noLoadCurrent(motor, voltage) : noLoadSpeed(motor, voltage),
    )
  }
  return what === 'current' && context.supply ? context.supply.currentAt(voltage, context.scale.current) : null
}
