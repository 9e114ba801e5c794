import { rippleSpeed, type RippleSpeed } from './ripple-speed'

/** One settled reading with a recorded stretch of its current; sizes only. */
export interface RecordedReading {
  readonly volts: number
  readonly amps: number
  readonly rate: number
  readonly record: ArrayLike<number>
}

/** What is known of the motor before its speed is. */
export interface MotorKnown {
  /** Ω of the held armature, mean over its angles. */
  readonly heldOhms: number
  /** V·s/rad usual for motors of its kind; null when nothing is known. */
  readonly usualBackEmf: number | null
  readonly segments: number
}

/** Without a ripple, a motor that takes this share of the current of a held one stands. */
const STANDING_SHARE = 0.8
/** How far ohms while turning may be from the mean of the held ones: angles, warmth. */
const OHMS_SPREAD = 0.08
/** How far a magnet may be from what is usual, as speeds: a strong one turns slower, a weak one faster. */
const SLOWEST_SHARE = 0.6
const FASTEST_SHARE = 2.2
/** rad/s between which an unknown motor may turn. */
const ANY_SPEED = [20, 2500] as const

/**
 * Whether the motor stands, or how fast it turns: from the ripple within what V = I·R + Ke·ω allows.
 *
 * @returns `standing`, or the speed; null where it turns but the ripple does not show how fast
 */
export function speedOfReading(
  { volts, amps, rate, record }: RecordedReading,
  { heldOhms, usualBackEmf, segments }: MotorKnown,
): 'standing' | RippleSpeed | null {
  const madeVolts = (ohms: number): number => Math.max(0, volts - amps * ohms)
  const plausible: readonly [number, number] =
    usualBackEmf === null
      ? ANY_SPEED
      : [
          Math.max(ANY_SPEED[0], (SLOWEST_SHARE * madeVolts(heldOhms * (1 + OHMS_SPREAD))) / usualBackEmf),
          Math.max(2 * ANY_SPEED[0], (FASTEST_SHARE * madeVolts(heldOhms * (1 - OHMS_SPREAD))) / usualBackEmf),
        ]
  const speed = rippleSpeed(record, { rate, segments, plausible })
  if (speed) return speed
  return amps > (STANDING_SHARE * volts) / heldOhms ? 'standing' : null
}
