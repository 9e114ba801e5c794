import type { IntervalFigure } from './measured-value'

/**
 * A number with its uncertainty rounded as GUM 7.2.6 advises: the uncertainty to two digits when it begins
 * with 1 or 2, else to one, and the value to the same place.
 *
 * @returns the value and the expanded uncertainty as text, without unit
 * @example withUncertainty(5.4321, 0.234) // { value: '5.43', uncertainty: '0.24' }
 */
export function withUncertainty(value: number, uncertainty: number): { value: string; uncertainty: string } {
  if (!Number.isFinite(uncertainty) || uncertainty <= 0) return { value: plainNumber(value), uncertainty: '' }
  const exponent = Math.floor(Math.log10(uncertainty))
  const leading = uncertainty / 10 ** exponent
  const place = leading < 2.95 ? exponent - 1 : exponent
  const decimals = Math.max(0, -place)
  const step = 10 ** place
  return {
    value: (Math.round(value / step) * step).toFixed(decimals),
    uncertainty: (Math.ceil(uncertainty / step - 1e-9) * step).toFixed(decimals),
  }
}

/**
 * "22.4 ± 0.6 Ω"; with an unsymmetrical interval "22.4 Ω (21.0 to 25.1)".
 *
 * @example describeFigure({ value: 5.4321, low: 5.2, high: 5.7, unit: 'Ω' }) // '5.43 ± 0.27 Ω'
 */
export function describeFigure(figure: IntervalFigure): string {
  const up = figure.high - figure.value
  const down = figure.value - figure.low
  const widest = Math.max(up, down)
  const rounded = withUncertainty(figure.value, widest)
  if (rounded.uncertainty === '') return `${rounded.value} ${figure.unit}`
  if (Math.abs(up - down) <= 0.2 * widest) return `${rounded.value} ± ${rounded.uncertainty} ${figure.unit}`
  const decimals = decimalsOf(rounded.value)
  return `${rounded.value} ${figure.unit} (${figure.low.toFixed(decimals)} to ${figure.high.toFixed(decimals)})`
}

function decimalsOf(text: string): number {
  const point = text.indexOf('.')
  return point < 0 ? 0 : text.length - point - 1
}

/**
 * Three significant digits without an exponent.
 *
 * @example plainNumber(0.000012) // '0.0000120'
 */
export function plainNumber(value: number): string {
  if (value === 0) return '0'
  const exponent = Math.floor(Math.log10(Math.abs(value)))
  const decimals = Math.max(0, 2 - exponent)
  const step = 10 ** (exponent - 2)
  return exponent > 2 ? String(Math.round(value / step) * step) : value.toFixed(decimals)
}
