import { damagedArmature, type ArmatureDefect, type DamagedArmature } from '../../engine/damaged-armature'
import type { Motor } from '../../engine/description-schema'

const sound: DamagedArmature = {
  conductanceTimes: 1,
  backEmfTimes: 1,
  leakTimes: 0,
  stretches: [],
  shortedShare: 0,
  ohmsTimes: 1,
}

/** Where the supply has given way and what is left of it does not turn the armature, momentum seldom carries it past: judged. */
const HELD_CHANCE = 0.9
/** What holds at rest is up to so many times what drags in turning; nobody knows how many: from memory. */
const MOST_BREAKAWAY_TIMES = 2

/** N·m: a description may leave friction out. */
const NO_FRICTION = 1e-12

/** What defects make of the armatures of one engine, worked out once for each. */
export class ArmatureDamages {
  private readonly known = new Map<string, DamagedArmature>()

  /**
   * @param motor whose armature it is
   * @param ohms of the sound armature, as a mean over its turn
   * @param defects all that are wrong with it; they are taken to lie at different coils
   */
  of(motor: Motor, ohms: number, defects: readonly ArmatureDefect[]): DamagedArmature {
    return defects.map((defect) => this.one(motor, ohms, defect)).reduce(together, sound)
  }

  private one(motor: Motor, ohms: number, defect: ArmatureDefect): DamagedArmature {
    const key = `${motor.id}/${JSON.stringify(defect)}`
    const known = this.known.get(key) ?? damagedArmature(motor.segments, ohms, defect)
    this.known.set(key, known)
    return known
  }
}

function together(one: DamagedArmature, other: DamagedArmature): DamagedArmature {
  return {
    conductanceTimes: one.conductanceTimes * other.conductanceTimes,
    backEmfTimes: one.backEmfTimes * other.backEmfTimes,
    leakTimes: one.leakTimes + other.leakTimes,
    stretches: [...one.stretches, ...other.stretches],
    shortedShare: 1 - (1 - one.shortedShare) * (1 - other.shortedShare),
    ohmsTimes: one.ohmsTimes * other.ohmsTimes,
  }
}

/** A supply as an armature at rest meets it, and what it takes to turn it. */
export interface StandingStart {
  /** At the armature's terminals, V. */
  readonly volts: number
  /** Above which the supply gives way, A. */
  readonly limitAmps: number
  /** Of the sound armature, S. */
  readonly siemens: number
  /** V·s/rad; V·s/(rad·A) with a wound field in series. */
  readonly backEmf: number
  readonly woundField: boolean
  /** N·m. */
  readonly coulombTorque: number
}

/** How a damaged armature starts. */
export interface Starting {
  /** Share of its starts at which it stands where it has no pull to speak of: another matter every time. */
  readonly share: number
  /** Chance that what holds this machine at rest is more than its pull elsewhere: then it is so at every start. */
  readonly sticking: number
  /** The supply gives way where it is caught. */
  readonly trips: boolean
}

/**
 * How often a damaged armature is caught where it has no torque to speak of: at so many of its starts, or wherever it
 * starts where the supply gives way at one stretch of the turn and what is left does not turn it.
 */
export function caught({ stretches }: DamagedArmature, start: StandingStart): Starting {
  let [held, pulled, givingWay] = [0, 0, 0]
  for (const { conductanceTimes, torqueTimes } of stretches) {
    const siemens = start.siemens * conductanceTimes
    const volts = Math.min(start.volts, start.limitAmps / siemens)
    const flux = start.woundField ? start.backEmf * volts * siemens : start.backEmf
    const times = (torqueTimes * start.siemens * volts * flux) / Math.max(start.coulombTorque, NO_FRICTION)
    const holds = Math.min(1, Math.max(0, (MOST_BREAKAWAY_TIMES - times) / (MOST_BREAKAWAY_TIMES - 1)))
    held += holds
    if (holds < 1) pulled++
    if (volts < start.volts) givingWay = Math.max(givingWay, holds)
  }
  const count = Math.max(1, stretches.length)
  if (givingWay > 0) return { share: Math.max(held / count, HELD_CHANCE * givingWay), sticking: 0, trips: true }
  const never = Math.max(0, stretches.length - pulled)
  return { share: never / count, sticking: pulled === 0 ? 0 : (held - never) / pulled, trips: false }
}
