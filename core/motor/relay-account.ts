/** What a test of a relay read, V of smooth DC at the rails. */
export interface RelayReadings {
  readonly pullInVolts: readonly number[]
  /** Null where it did not let go at all. */
  readonly dropOutVolts: ReadonlyArray<number | null>
  /** Width of the steps the volts went in. */
  readonly stepVolts: number
  /** V r.m.s. at which AC pulled it in; null where it stayed at rest, undefined where it was not tried. */
  readonly pulledByAc?: number | null
  /** What somebody heard where the current showed nothing. */
  readonly heard: 'clicks' | 'silent' | 'always-on' | null
}

export interface MeanVolts {
  readonly mean: number
  /** Half of what lies between the highest and the lowest, and half a step. */
  readonly halfWidth: number
}

export interface RelayAccount {
  readonly sound: boolean
  readonly pullIn: MeanVolts | null
  readonly dropOut: MeanVolts | null
  /** What it means and what to do, most important first; empty when nothing is wrong. */
  readonly says: readonly string[]
}

/** Pull-in scattering by more than this share of its mean is a pivot that sticks; judged. */
const STICKY_SHARE = 0.15
/** Letting go within this share of pull-in it chatters as soon as the volts sag; judged. */
const CHATTER_SHARE = 0.9

/**
 * Judges a relay by where it pulls in and lets go. Causes and cures are common practice, no published source.
 *
 * @param readings of one test
 * @example
 * judgeRelay({ pullInVolts: [7.2, 7.3, 7.2], dropOutVolts: [3.1, 3, 3.1], stepVolts: 0.1, heard: null })
 *   .pullIn?.mean // 7.233
 */
export function judgeRelay({ pullInVolts, dropOutVolts, stepVolts, pulledByAc, heard }: RelayReadings): RelayAccount {
  const pullIn = meanOf(pullInVolts, stepVolts)
  const dropOut = meanOf(
    dropOutVolts.flatMap((volts) => volts ?? []),
    stepVolts,
  )
  const says: string[] = []
  if (heard === 'silent')
    says.push('No click and no current: its coil is open, or nothing feeds it. Ohms across the coil tell which.')
  if (heard === 'clicks')
    says.push(
      'It clicks, so its coil works: the contact does not close, or what it switches is open. A strip of paper drawn between the points, then ohms across them pulled in by hand.',
    )
  if (heard === 'always-on')
    says.push(
      'What it switches is on from the start: its contact has welded or is bent shut. Ohms across the contact at rest must be open.',
    )
  if (dropOutVolts.includes(null))
    says.push(
      'It does not let go: dirt, or iron that has become magnetic, at the face of the core. Wipe both faces; a scrap of thin paper between them keeps them apart.',
    )
  if (pulledByAc != null)
    says.push(
      `AC pulls it too, from ${pulledByAc.toFixed(1)} V on: its spring is tired or its gap too narrow. It would sound whenever the train runs.`,
    )
  if (pullIn && pullIn.halfWidth - stepVolts / 2 > (STICKY_SHARE / 2) * pullIn.mean + stepVolts)
    says.push('It pulls in at different volts each time: its pivot sticks. Spirit, no oil.')
  if (pullIn && dropOut && dropOut.mean > CHATTER_SHARE * pullIn.mean)
    says.push('It lets go almost where it pulls in: it will chatter when the volts sag. The gap at rest is too narrow.')
  return { sound: says.length === 0 && pullIn !== null, pullIn, dropOut, says }
}

function meanOf(volts: readonly number[], stepVolts: number): MeanVolts | null {
  if (volts.length === 0) return null
  return {
    mean: volts.reduce((sum, value) => sum + value, 0) / volts.length,
    halfWidth: (Math.max(...volts) - Math.min(...volts)) / 2 + stepVolts / 2,
  }
}
