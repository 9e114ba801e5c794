import { inUnit, type IntervalFigure } from '../core/measure/measured-value'
import { describeFigure } from '../core/measure/significant-digits'

/** SI to what is read at the bench: A → mA, N·m → mN·m, V·s/rad → mV·s/rad, m/s → mm/s, rad/s → rpm. */
const benchUnits: Readonly<Record<string, readonly [number, string]>> = {
  A: [1000, 'mA'],
  'N·m': [1000, 'mN·m'],
  'N·m·s/rad': [1e6, 'µN·m·s/rad'],
  'V·s/rad': [1000, 'mV·s/rad'],
  'm/s': [1000, 'mm/s'],
  'rad/s': [60 / (2 * Math.PI), 'rpm'],
  '': [100, '%'],
}

export function inBenchUnit(figure: IntervalFigure): IntervalFigure {
  const [factor, unit] = benchUnits[figure.unit] ?? [1, figure.unit]
  return inUnit(figure, factor, unit)
}

/** A figure with its uncertainty and unit as read at the bench. */
export function showFigure(figure: IntervalFigure): string {
  return describeFigure(inBenchUnit(figure))
}
