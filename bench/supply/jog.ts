import type { SweepInstrument } from './sweep-steps'

/** A mechanism moved on by moments of power, for as long as somebody holds a key. */
export interface JogPlan {
  readonly volts: number
  readonly ampsLimit: number
  readonly reversed: boolean
}

/** Why it ended: the key was let go, or the supply was at its limit. */
export interface JogEnd {
  readonly pulses: number
  readonly why: 'let-go' | 'short'
}

/** Long enough to break loose, short enough for a crank to move part of a turn. Judged. */
const PULSE_SECONDS = 0.12
const GAP_SECONDS = 0.28
/** Under this share of what it is set to the supply is at its limit. */
const SHORT_SHARE = 0.6
/** So many pulses at the limit are no armature breaking loose. */
const SHORT_PULSES = 3

/**
 * Pulses at low volts until the key is let go. The output is off between them and at every end.
 *
 * @param held whether the key is still held
 */
export async function jog(
  supply: SweepInstrument,
  { volts, ampsLimit, reversed }: JogPlan,
  { pause }: { pause: (seconds: number) => Promise<void> },
  held: () => boolean,
): Promise<JogEnd> {
  let [pulses, atLimit] = [0, 0]
  try {
    await supply.setAmpsLimit(ampsLimit)
    await supply.reverse(reversed)
    await supply.setVolts(volts)
    while (held()) {
      await supply.output(true)
      await pause(PULSE_SECONDS)
      const reached = Math.abs(await supply.measureVolts())
      await supply.output(false)
      pulses++
      atLimit = reached < SHORT_SHARE * volts ? atLimit + 1 : 0
      if (atLimit >= SHORT_PULSES) return { pulses, why: 'short' }
      if (held()) await pause(GAP_SECONDS)
    }
    return { pulses, why: 'let-go' }
  } finally {
    await supply.output(false)
  }
}
