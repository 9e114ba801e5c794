import { isRefused, type IntervalFigure } from '../measure/measured-value'
import type { SweepFit } from './sweep-fit'

/** The figures of a motor that are followed over the years, each on its own. */
export const historyFigureNames = ['resistance', 'backEmf', 'noLoadCurrent', 'keepsTurningDownTo'] as const
export type HistoryFigureName = (typeof historyFigureNames)[number]

/** What one sheet says of a motor; what it cannot say is missing. */
export type MotorFigures = Partial<Readonly<Record<HistoryFigureName, IntervalFigure>>>

/**
 * The figures of a fitted sheet that can be followed over the years. Resistance and magnet at 20 °C where the sheet
 * knows its temperature, otherwise as measured with the ±8 % a winding between 0 and 40 °C may differ by.
 */
export function motorFigures(fit: SweepFit): MotorFigures {
  const { figures } = fit
  const pick = (name: keyof typeof figures): IntervalFigure | null => {
    const figure = figures[name]
    return isRefused(figure) || !(figure.value > 0) ? null : figure
  }
  const found: Record<HistoryFigureName, IntervalFigure | null> = {
    resistance: pick('resistanceAt20') ?? widened(pick('resistance'), UNKNOWN_TEMPERATURE_SHARE),
    backEmf: pick('backEmfAt20') ?? widened(pick('backEmf'), UNKNOWN_TEMPERATURE_MAGNET_SHARE),
    noLoadCurrent: pick('noLoadCurrent'),
    keepsTurningDownTo: pick('keepsTurningDownTo'),
  }
  return Object.fromEntries(Object.entries(found).filter(([, figure]) => figure !== null))
}

/** Copper's 0.393 %/K over ±20 K (derived), and ferrite's 0.2 %/K (from memory). */
const UNKNOWN_TEMPERATURE_SHARE = 0.08
const UNKNOWN_TEMPERATURE_MAGNET_SHARE = 0.04

function widened(figure: IntervalFigure | null, share: number): IntervalFigure | null {
  if (!figure) return null
  const wider = (side: number): number => Math.hypot(side - figure.value, share * figure.value)
  return { ...figure, low: figure.value - wider(figure.low), high: figure.value + wider(figure.high) }
}
