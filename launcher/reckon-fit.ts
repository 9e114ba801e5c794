import Papa from 'papaparse'
import { fitSweep, isWholeRefusal } from '../core/motor/sweep-fit'
import type { SweepPoint } from '../core/motor/sweep-point'
import { refuse, type Figure, type Refusal } from '../core/measure/measured-value'

export type ReckonedFit =
  | Refusal
  | {
      readonly resistance: Figure
      readonly backEmf: Figure
      /** Between the highest voltage at which it stood by itself and the lowest at which it turned. */
      readonly startVoltage: Figure
      /** By the friction line: where a turning motor would come to rest. */
      readonly keepsTurningDownTo: Figure
      readonly coulombFriction: Figure
      readonly viscousFriction: Figure
      readonly noLoadCurrent12V: Figure
      readonly noLoadSpeed12V: Figure
      readonly stallCurrent12V: Figure
    }

const COLUMNS = 'Columns voltage_v and current_a, and where known rpm or rad_s, and locked.'
const RADIANS_PER_SECOND_PER_RPM = (2 * Math.PI) / 60

/**
 * Fits a sweep given as CSV text. A negative voltage with a negative current is the other direction.
 *
 * @returns the figures in SI units, each with its 95 % bounds or the reason it cannot be had; or one refusal
 */
export function reckonFit(csv: string): ReckonedFit {
  const table = Papa.parse<Record<string, string>>(csv.replace(/^\uFEFF/, '').trim(), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (name) => name.trim().toLowerCase(),
  })
  const columns = table.meta.fields ?? []
  for (const column of ['voltage_v', 'current_a']) {
    if (!columns.includes(column)) return refuse('missing-column', `The column ${column} is missing.`, COLUMNS)
  }
  const points: SweepPoint[] = []
  for (const [index, row] of table.data.entries()) {
    const point = readRow(row, index + 2)
    if ('refused' in point) return point
    points.push(point)
  }
  const fit = fitSweep(points, { nominalVoltage: 12 })
  if (isWholeRefusal(fit)) return fit
  const {
    resistance,
    backEmf,
    startVoltage,
    keepsTurningDownTo,
    coulombFriction,
    viscousFriction,
    noLoadCurrent,
    noLoadSpeed,
    stallCurrent,
  } = fit.figures
  return {
    resistance,
    backEmf,
    startVoltage,
    keepsTurningDownTo,
    coulombFriction,
    viscousFriction,
    noLoadCurrent12V: noLoadCurrent,
    noLoadSpeed12V: noLoadSpeed,
    stallCurrent12V: stallCurrent,
  }
}

function readRow(row: Record<string, string>, line: number): SweepPoint | Refusal {
  const read = (column: string): number | null => {
    const text = row[column]?.trim() ?? ''
    return text === '' ? null : Number(text.includes('.') ? text : text.replace(',', '.'))
  }
  const bad = (what: string): Refusal => refuse('bad-row', `Line ${line}: ${what}.`, COLUMNS)
  const voltage = read('voltage_v')
  const current = read('current_a')
  const rpm = read('rpm')
  const radians = read('rad_s')
  if (voltage === null || Number.isNaN(voltage)) return bad('voltage_v is not a number')
  if (current === null || Number.isNaN(current)) return bad('current_a is not a number')
  if (Number.isNaN(rpm) || Number.isNaN(radians)) return bad('the speed is not a number')
  if (voltage * current < 0)
    return bad('voltage and current have opposite signs: the meter leads are the wrong way round')
  if (Math.abs(voltage) > 60 || Math.abs(current) > 20)
    return bad('more than 60 V or 20 A: are the units volts and amps')
  const speed = radians ?? (rpm === null ? null : rpm * RADIANS_PER_SECOND_PER_RPM)
  const held = /^(1|true|yes|y|locked|held)$/i.test(row.locked?.trim() ?? '')
  const stood = !held && speed === 0 && voltage !== 0
  const locked = held || stood
  return {
    voltage: Math.abs(voltage),
    current: Math.abs(current),
    speed: locked ? 0 : speed === null ? null : Math.abs(speed),
    locked,
    stood,
    direction: voltage < 0 ? 'reverse' : 'forward',
  }
}
