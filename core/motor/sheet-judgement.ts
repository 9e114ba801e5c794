import { plainNumber } from '../measure/significant-digits'
import { repeatedMeasurement } from '../measure/repeatability'
import { compareBeforeAfter } from '../measure/before-after'
import { isRefused, type IntervalFigure, type Refusal } from '../measure/measured-value'
import {
  commonScale,
  isMetered,
  quantityUncertainty,
  sweepPointOf,
  type MachineFacts,
  type MeteredReading,
  type SheetReading,
} from './sheet-reading'
import { fitSeriesMotor, type SeriesFit, type SeriesPoint } from './series-fit'
import { fitSweep, isWholeRefusal, type SweepFit } from './sweep-fit'

/** One thing the sheet says, in a sentence, with how much it matters. */
export interface SheetRemark {
  readonly code: string
  readonly weight: 'sound' | 'care' | 'fault' | 'ask'
  readonly sentence: string
}

export interface SheetJudgement {
  /** Null where no DC fit applies or no metered reading is there. */
  readonly fit: SweepFit | null
  /** The fit of a motor with a wound field; null with a magnet, or where nothing was read. */
  readonly series: SeriesFit | null
  /** Why there is no fit, and what to read next. */
  readonly refusal: Refusal['refused'] | null
  readonly remarks: readonly SheetRemark[]
}

export interface SheetConditions {
  /** Temperature of the winding (the room's, when it has stood for an hour), °C. */
  readonly windingCelsius: number | null
  /** What a motor with a wound field was fed with; AC where not said. */
  readonly supply?: 'dc' | 'ac'
  /** Readings of the same machine on the other kind of supply: only both together tell resistance from reactance. */
  readonly otherSupply?: readonly SheetReading[]
}

/**
 * Judges a test sheet as it stands, while it is being typed.
 *
 * @param readings the lines that count: struck-out ones left out
 */
export function judgeSheet(
  readings: readonly SheetReading[],
  machine: MachineFacts,
  conditions: SheetConditions,
): SheetJudgement {
  const metered = readings.filter(isMetered)
  const remarks: SheetRemark[] = []
  if (readings.some((reading) => reading.kind === 'dead')) {
    remarks.push({
      code: 'dead',
      weight: 'fault',
      sentence: 'It does nothing on the track. That is a starting point: any movement afterwards is a change.',
    })
  }
  if (machine.power === 'ac') {
    const supply = conditions.supply ?? 'ac'
    const points = [
      ...seriesPoints(metered, supply, machine),
      ...seriesPoints((conditions.otherSupply ?? []).filter(isMetered), supply === 'ac' ? 'dc' : 'ac', machine),
    ]
    return {
      fit: null,
      series: points.length > 0 ? fitSeriesMotor(points, machine.nominalVoltage) : null,
      refusal: null,
      remarks: [...remarks, ...directionRemarks(metered)],
    }
  }
  if (metered.length === 0) return { fit: null, series: null, refusal: null, remarks }

  const result = fitSweep(
    metered.map((reading) => sweepPointOf(reading, machine)),
    {
      scale: commonScale(metered),
      windingCelsius: conditions.windingCelsius,
      nominalVoltage: machine.nominalVoltage,
    },
  )
  const directions = directionRemarks(metered)
  if (isWholeRefusal(result))
    return { fit: null, series: null, refusal: result.refused, remarks: [...remarks, ...directions] }
  return {
    fit: result,
    series: null,
    refusal: null,
    remarks: [...remarks, ...directions, ...fitRemarks(result, metered)],
  }
}

function seriesPoints(readings: readonly MeteredReading[], supply: 'dc' | 'ac', machine: MachineFacts): SeriesPoint[] {
  return readings
    .filter((reading) => reading.voltage.value > 0 && reading.current.value > 0)
    .map((reading) => ({
      supply,
      volts: reading.voltage.value,
      amps: reading.current.value,
      speed: sweepPointOf(reading, machine).speed,
      relative: Math.hypot(
        quantityUncertainty(reading.voltage) / reading.voltage.value,
        quantityUncertainty(reading.current) / reading.current.value,
      ),
    }))
}

/** Readings this far over the nominal voltage are asked about before they count. */
const IMPLAUSIBLE_OVERVOLTAGE = 1.75

/**
 * Whether a voltage is likely a slip of the finger on this machine.
 *
 * @returns the question to ask, or null when it is believable
 * @example
 * doubtVoltage(60, 12)
 * // '60.0 V on a 12.0 V motor would burn it: is it 6.00 V? It is kept, and left out of the judgement until you say it is right.'
 */
export function doubtVoltage(voltage: number, nominalVoltage: number): string | null {
  if (voltage <= nominalVoltage * IMPLAUSIBLE_OVERVOLTAGE) return null
  const shifted = voltage / 10
  return `${plainNumber(voltage)} V on a ${plainNumber(nominalVoltage)} V motor would burn it: is it ${plainNumber(shifted)} V? It is kept, and left out of the judgement until you say it is right.`
}

/** Two readings count as taken at one voltage within this fraction. */
const SAME_VOLTAGE_FRACTION = 0.03

interface DirectionPair {
  readonly voltage: number
  readonly forward: IntervalFigure
  readonly reverse: IntervalFigure
}

/** Currents both ways at the highest voltage that was read both ways. */
export function compareDirections(readings: readonly MeteredReading[]): DirectionPair | null {
  const running = readings.filter((reading) => reading.kind === 'running')
  const shared = running
    .filter((reading) => reading.direction === 'forward')
    .map((reading) => reading.voltage.value)
    .sort((a, b) => b - a)
    .find((voltage) =>
      running.some((other) => other.direction === 'reverse' && sameVoltage(other.voltage.value, voltage)),
    )
  if (shared === undefined) return null
  const currentOf = (direction: 'forward' | 'reverse'): IntervalFigure => {
    const matching = running.filter(
      (reading) => reading.direction === direction && sameVoltage(reading.voltage.value, shared),
    )
    return currentFigure(matching)
  }
  return { voltage: shared, forward: currentOf('forward'), reverse: currentOf('reverse') }
}

/**
 * The current of readings taken under one and the same condition, by the two-part rule.
 *
 * @example
 * currentFigure(
 *   [0.12, 0.122].map((value) => ({
 *     kind: 'running',
 *     direction: 'forward',
 *     voltage: { value: 12, resolution: 0.1, meter: null },
 *     current: { value, resolution: 0.001, meter: null },
 *     speed: null,
 *     run: null,
 *   })),
 * ).value // 0.121
 */
export function currentFigure(readings: readonly MeteredReading[]): IntervalFigure {
  const first = readings[0] as MeteredReading
  const together = repeatedMeasurement(
    readings.map((reading) => reading.current.value),
    quantityUncertainty(first.current),
  )
  return {
    value: together.mean,
    low: together.mean - together.expanded,
    high: together.mean + together.expanded,
    unit: 'A',
  }
}

/**
 * @example sameVoltage(11.9, 12) // true
 */
export function sameVoltage(first: number, second: number): boolean {
  return Math.abs(first - second) <= SAME_VOLTAGE_FRACTION * Math.max(first, second)
}

function directionRemarks(readings: readonly MeteredReading[]): SheetRemark[] {
  const pair = compareDirections(readings)
  if (!pair) return []
  const change = compareBeforeAfter(pair.forward, pair.reverse)
  const at = `at ${plainNumber(pair.voltage)} V`
  const both = `${milliamps(pair.forward.value)} forward, ${milliamps(pair.reverse.value)} reverse`
  if (change.verdict === 'no-measurable-change') {
    return [
      {
        code: 'directions-alike',
        weight: 'sound',
        sentence: `No measurable difference between directions ${at}: ${both}.`,
      },
    ]
  }
  const worse = change.verdict === 'higher' ? 'Reverse' : 'Forward'
  return [
    {
      code: 'directions-differ',
      weight: 'care',
      sentence: `${worse} draws more ${at}: ${both}, beyond the ±${milliamps(change.uncertainty)} the readings allow. Usual causes: end play and thrust, brush seating, a dirty commutator.`,
    },
  ]
}

function fitRemarks(fit: SweepFit, readings: readonly MeteredReading[]): SheetRemark[] {
  const remarks: SheetRemark[] = []
  const lockedCount = readings.filter((reading) => reading.kind === 'locked').length
  if (lockedCount > 0 && lockedCount < 3) {
    remarks.push({
      code: 'few-locked',
      weight: 'ask',
      sentence: `${lockedCount === 1 ? 'One locked reading' : 'Two locked readings'} cannot show how resistance changes with the armature angle: its ±8 % is taken from a three-pole armature. Six, the armature turned between them, settle it.`,
    })
  }
  const drop = fit.figures.brushDrop
  if (!isRefused(drop) && drop.low > 0) {
    remarks.push({
      code: 'brush-drop',
      weight: 'care',
      sentence: `About ${plainNumber(drop.value)} V is lost at the brushes before the winding sees anything.`,
    })
  }
  const { keepsTurningDownTo } = fit.figures
  if (!isRefused(keepsTurningDownTo) && keepsTurningDownTo.low > fit.nominalVoltage / 3) {
    remarks.push({
      code: 'hard-start',
      weight: 'care',
      sentence: `It needs at least ${plainNumber(keepsTurningDownTo.low)} V to keep turning, over a third of its ${plainNumber(fit.nominalVoltage)} V: drag or a poor contact.`,
    })
  }
  return remarks
}

function milliamps(amps: number): string {
  return `${Math.round(amps * 1000)} mA`
}
