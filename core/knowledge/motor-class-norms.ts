import type { Motor } from '../engine/description-schema'
import type { HistoryFigureName } from '../motor/motor-figures'

/**
 * How far sound motors lie apart, as standard deviations of the logarithm: types about their class, examples about
 * their type. From memory and common practice, no published source; the shop's own sheets take over as they come.
 */
export interface ClassNorm {
  readonly betweenTypes: number
  readonly withinType: number
}

const wound: Readonly<Record<HistoryFigureName, ClassNorm>> = {
  resistance: { betweenTypes: 0.3, withinType: 0.06 },
  backEmf: { betweenTypes: 0.3, withinType: 0.06 },
  noLoadCurrent: { betweenTypes: 0.4, withinType: 0.18 },
  keepsTurningDownTo: { betweenTypes: 0.4, withinType: 0.22 },
}

export const motorClassNorms: Readonly<
  Record<Exclude<Motor['kind'], 'ac-series'>, Readonly<Record<HistoryFigureName, ClassNorm>>>
> = {
  'open-frame': wound,
  // Block magnets of flat motors differ more, and lose more.
  'side-brush': { ...wound, backEmf: { betweenTypes: 0.3, withinType: 0.08 } },
  // Closed motors are made closer.
  can: {
    ...wound,
    resistance: { betweenTypes: 0.35, withinType: 0.05 },
    backEmf: { betweenTypes: 0.35, withinType: 0.05 },
  },
  coreless: {
    ...wound,
    resistance: { betweenTypes: 0.35, withinType: 0.04 },
    backEmf: { betweenTypes: 0.35, withinType: 0.04 },
  },
}
