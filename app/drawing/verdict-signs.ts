import type { CellVerdict } from '~~/core/continuity/judge-continuity'

/** A sign drawn about the origin, some ten units wide, and the tone it is drawn in. */
export interface WheelSign {
  readonly path: string
  readonly tone: 'sound' | 'care' | 'fault' | 'ask'
}

export const TICK: WheelSign = { path: 'M-5,0 L-1.5,4 L5.5,-4', tone: 'sound' }

/** Every verdict has a shape of its own, so that colour is never the only sign. */
export const verdictSigns: Readonly<Record<CellVerdict, WheelSign>> = {
  good: TICK,
  high: { path: 'M-6,1 q3,-6 6,0 t6,0', tone: 'care' },
  broken: { path: 'M-6,0 L-2,0 M2,0 L6,0 M-2,-4 L-2,4 M2,-4 L2,4', tone: 'fault' },
  short: { path: 'M-4.5,-4.5 L4.5,4.5 M-4.5,4.5 L4.5,-4.5', tone: 'fault' },
  uncertain: { path: 'M-3,-2.5 q0,-3.5 3.2,-3.5 q3.2,0 3.2,3 q0,2 -3.2,3.2 L0.2,1.8 M0.2,4.6 L0.2,5.2', tone: 'care' },
  idle: { path: 'M-5,0 L5,0', tone: 'ask' },
}

export const verdictWords: Readonly<Record<CellVerdict, string>> = {
  good: 'sound',
  high: 'poor contact',
  broken: 'open',
  short: 'bridged',
  uncertain: 'says nothing yet',
  idle: 'leads nowhere, as built',
}
