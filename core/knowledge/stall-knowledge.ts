import type { Pole } from '../engine/poles'
import type { DeadStretch } from '../mechanism/stall-risk'
import type { StallRemedyRow } from '../mechanism/stall-remedies'
import remedies from './stall-remedies.json'
import stretches from './dead-stretches.json'

/** A dead piece of track that layouts have, sized by the gauge. */
export interface DeadTrack {
  readonly id: string
  readonly name: string
  readonly perGauge: ReadonlyArray<{
    readonly pole: 'one' | 'other' | 'both'
    readonly from: number
    readonly to: number
  }>
  readonly source: string
}

export const stallRemedyRows = remedies as readonly StallRemedyRow[]
export const deadTracks = stretches as readonly DeadTrack[]

/**
 * A dead piece in millimetres.
 *
 * @param track of the list
 * @param gaugeMm distance between the rails
 * @param one which rail it takes first
 */
export function stretchesOf(track: DeadTrack, gaugeMm: number, one: Pole): DeadStretch[] {
  const other: Pole = one === 'plus' ? 'minus' : 'plus'
  return track.perGauge.map(({ pole, from, to }) => ({
    pole: pole === 'one' ? one : pole === 'other' ? other : 'both',
    fromMm: Math.round(from * gaugeMm),
    toMm: Math.max(Math.round(from * gaugeMm) + 1, Math.round(to * gaugeMm)),
  }))
}
