/**
 * A figure with the interval it may honestly lie in.
 * `low` and `high` bound the 95 % interval; `unit` is the SI or field unit as printed.
 */
export interface IntervalFigure {
  readonly value: number
  readonly low: number
  readonly high: number
  readonly unit: string
}

/** Why a figure cannot be given, in a sentence a repairer understands, and the reading that would settle it. */
export interface Refusal {
  readonly refused: {
    readonly code: string
    readonly message: string
    /** The readings to add, in words; empty when nothing further would help. */
    readonly wanted: string
  }
}

export type Figure = IntervalFigure | Refusal

/** Builds a refusal; `wanted` names the reading that is missing. */
export function refuse(code: string, message: string, wanted: string): Refusal {
  return { refused: { code, message, wanted } }
}

/**
 * @example isRefused(refuse('too-few', 'One reading is not enough.', 'a second one')) // true
 */
export function isRefused(figure: Figure): figure is Refusal {
  return 'refused' in figure
}

/**
 * Half the width of the 95 % interval: the expanded uncertainty U of JCGM 100:2008, 6.2.
 *
 * @example expandedUncertainty({ value: 5, low: 4.8, high: 5.2, unit: 'V' }) // 0.2
 */
export function expandedUncertainty(figure: IntervalFigure): number {
  return (figure.high - figure.low) / 2
}

/**
 * The same figure in another unit: every bound multiplied by `factor`.
 *
 * @example
 * inUnit({ value: 0.18, low: 0.17, high: 0.19, unit: 'A' }, 1000, 'mA')
 * // { value: 180, low: 170, high: 190, unit: 'mA' }
 */
export function inUnit(figure: IntervalFigure, factor: number, unit: string): IntervalFigure {
  const bounds = [figure.low * factor, figure.high * factor]
  return { value: figure.value * factor, low: Math.min(...bounds), high: Math.max(...bounds), unit }
}
