import type { Recovered } from './recover-motor'

export interface RecoveryShares {
  readonly count: number
  /** Share of casualties within each promised bound. */
  readonly resistance: number
  readonly backEmf: number
  readonly keepsTurningDownTo: number
}

/** What the sheet promises of a motor measured by itself. */
export const promised = { resistance: 0.03, backEmf: 0.02, startVolts: 0.15 } as const

export function recoveryShares(found: readonly Recovered[]): RecoveryShares {
  const share = (within: (one: Recovered) => boolean): number => found.filter(within).length / found.length
  const relative = (value: number | null, truth: number): number =>
    value === null ? Number.POSITIVE_INFINITY : Math.abs(value / truth - 1)
  return {
    count: found.length,
    resistance: share(
      ({ found: { resistance }, truth }) => relative(resistance, truth.resistance) <= promised.resistance,
    ),
    backEmf: share(({ found: { backEmf }, truth }) => relative(backEmf, truth.backEmf) <= promised.backEmf),
    keepsTurningDownTo: share(
      ({ found: { keepsTurningDownTo }, truth }) =>
        keepsTurningDownTo !== null && Math.abs(keepsTurningDownTo - truth.keepsTurningDownTo) <= promised.startVolts,
    ),
  }
}
