import { expandedUncertainty, type IntervalFigure } from './measured-value'

export type ChangeVerdict = 'lower' | 'higher' | 'no-measurable-change'

/** One figure before and after the work. */
export interface Change {
  readonly before: IntervalFigure
  readonly after: IntervalFigure
  readonly difference: number
  /** Combined expanded uncertainty of the difference. */
  readonly uncertainty: number
  readonly verdict: ChangeVerdict
}

/**
 * Judges a difference by the rule that one inside the combined expanded uncertainty is no difference
 * (GUM 5.1.2 for the combination). The two figures are taken as independent, which is cautious when the
 * same meter was used for both.
 *
 * @example
 * compareBeforeAfter(
 *   { value: 180, low: 176, high: 184, unit: 'mA' },
 *   { value: 120, low: 117, high: 123, unit: 'mA' },
 * ).verdict // 'lower'
 */
export function compareBeforeAfter(before: IntervalFigure, after: IntervalFigure): Change {
  if (before.unit !== after.unit) throw new TypeError(`Cannot compare ${before.unit} with ${after.unit}.`)
  const difference = after.value - before.value
  // An unsymmetrical interval counts with the side that faces the other figure.
  const towards =
    difference >= 0
      ? Math.hypot(before.high - before.value, after.value - after.low)
      : Math.hypot(before.value - before.low, after.high - after.value)
  const uncertainty = Number.isFinite(towards)
    ? towards
    : Math.hypot(expandedUncertainty(before), expandedUncertainty(after))
  const verdict = Math.abs(difference) <= uncertainty ? 'no-measurable-change' : difference < 0 ? 'lower' : 'higher'
  return { before, after, difference, uncertainty, verdict }
}
