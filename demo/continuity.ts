import type { ContinuityColumn } from '../core/continuity/expected-continuity'

/** One reading with the meter's probes: closed, open, or ohms as typed. */
export type DemoContinuity = readonly [
  point: string,
  column: ContinuityColumn,
  reading: 'closed' | 'open' | `${number} Ω`,
]

const rims = (points: readonly string[], reading: 'closed' | 'open' = 'closed'): DemoContinuity[] =>
  points.map((point) => [point, 'rim', reading])

/** Wheel by wheel, for engines whose search has come that far. */
export const demoContinuity: Readonly<Record<string, readonly DemoContinuity[]>> = {
  // The locomotive is well; two of the tender's wheels are too dirty to say what lies behind them.
  'vale-411': [
    ...rims(['driver-1.left', 'driver-1.right', 'driver-2.left', 'driver-2.right', 'driver-3.left', 'driver-3.right']),
    ['driver-1.left', 'own', 'open'],
    ['driver-1.right', 'own', '0.4 Ω'],
    ['driver-2.left', 'own', 'open'],
    ['driver-2.right', 'own', '0.5 Ω'],
    ['driver-3.left', 'own', 'open'],
    ['driver-3.right', 'own', '0.4 Ω'],
    ['driver-1.left', 'other', 'open'],
    ['driver-1.right', 'other', '22.4 Ω'],
    ...rims(['tender-1.left', 'tender-2.left'], 'open'),
    ...rims(['tender-3.left', 'tender-1.right', 'tender-2.right', 'tender-3.right']),
    ['tender-1.left', 'own', 'open'],
    ['tender-2.left', 'own', 'open'],
    ['tender-3.left', 'own', '1.6 Ω'],
  ],
  // Oil in the cups of the driven bogie: every rim is bright, and the current still comes to little.
  'glen-15': [
    ...rims([
      'driven-1.left',
      'driven-1.right',
      'driven-2.left',
      'driven-2.right',
      'carrying-1.left',
      'carrying-1.right',
      'carrying-2.left',
      'carrying-2.right',
    ]),
    ['driven-1.left', 'own', '38 Ω'],
    ['driven-1.right', 'own', '120 Ω'],
    ['driven-2.left', 'own', '64 Ω'],
    ['driven-2.right', 'own', 'open'],
    ['carrying-1.left', 'own', '0.9 Ω'],
    ['carrying-1.right', 'own', '1.1 Ω'],
    ['carrying-2.left', 'own', '41 Ω'],
    ['carrying-2.right', 'own', '0.8 Ω'],
  ],
}
