import { driveTrain } from '../engine/drive-train'
import type { EngineDescription } from '../engine/description-schema'
import rows from '../knowledge/friction-shares.json'
import { brokenLinks } from './way-back'

const weights = new Map(rows.map((row) => [row.kind, row.weight]))

/** What a step is expected to draw, 95 % bounds, A. */
export interface ExpectedCurrent {
  readonly amps: number
  readonly low: number
  readonly high: number
}

/** What was drawn at the step before. */
export interface CurrentBefore {
  readonly off: ReadonlySet<string>
  readonly amps: number
  /** Half width of its 95 % interval, A. */
  readonly uncertainty: number
}

/** So much of what a part adds may be more or less. Judged: two sound axles differ that much. */
const ADDED_SHARE = 0.6
/** Of the current at standstill: above it a motor as good as stands. Judged. */
const STILL_TURNS = 0.92
/** So much of the figure wanders by itself from one try to the next: brushes, oil, warmth. Judged. */
const WANDER_SHARE = 0.06

/**
 * The share of the whole mechanism's friction that turns with the motor while these parts are off: the motor's own, and
 * of the rest what is linked to the armature, by weight.
 *
 * @returns between 0 and 1; 0 with no motor in
 * @example frictionShare(describeConstruction('open-frame'), new Set()) // 1
 */
export function frictionShare(description: EngineDescription, off: ReadonlySet<string>): number {
  const armatures = new Set(description.motors.map((motor) => motor.rotor))
  const weigh = (turning: ReadonlyMap<string, unknown>, without: ReadonlySet<string>): number => {
    const rotors = description.rotors.filter(
      (rotor) => turning.has(rotor.id) && !armatures.has(rotor.id) && !without.has(rotor.part),
    )
    const rods = description.links.filter(
      (link) => link.kind === 'rods' && turning.has(link.from) && turning.has(link.to),
    )
    const carried = rods.filter((link) => link.part === null || !without.has(link.part))
    return (
      rotors.reduce((sum, rotor) => sum + (weights.get(rotor.kind) ?? 1), 0) +
      carried.length * (weights.get('rods') ?? 0)
    )
  }
  const motorIn = description.motors.some((motor) => !off.has(motor.part))
  if (!motorIn) return 0
  const whole = weigh(driveTrain(description).turning, new Set())
  const now = weigh(driveTrain(description, brokenLinks(description, off)).turning, off)
  const own = weights.get('armature') ?? 0
  return whole > 0 ? own + (1 - own) * (now / whole) : 1
}

/**
 * The current to expect at a step of the way back: what was drawn before, and what the part just fitted adds by the
 * description, with what both may be wrong by.
 *
 * @param before null at the first test: then the description alone says, and says little
 * @param volts the test is made at
 * @example expectedCurrent(describeConstruction('tank-can'), new Set(), null, 4)?.amps // 0.1127
 */
export function expectedCurrent(
  description: EngineDescription,
  off: ReadonlySet<string>,
  before: CurrentBefore | null,
  volts: number,
): ExpectedCurrent | null {
  const now = freeCurrent(description, frictionShare(description, off), volts)
  if (now === null) return null
  // A motor that turns draws less than one that stands: no reading near that is as expected.
  const below = (high: number): number => Math.min(high, Math.max(now, STILL_TURNS * stalledAmps(description, volts)))
  const unknown = { amps: now, low: now * 0.4, high: below(now * 2.2) }
  if (!before) return unknown
  const then = freeCurrent(description, frictionShare(description, before.off), volts)
  if (then === null || then <= 0) return unknown
  const added = before.amps * (now / then - 1)
  const amps = before.amps + added
  const half = Math.hypot(before.uncertainty, ADDED_SHARE * added, WANDER_SHARE * before.amps)
  return { amps, low: Math.max(0, amps - half), high: below(amps + half) }
}

const windingOf = (description: EngineDescription) =>
  description.components.find((component) => component.id === description.motors[0]?.armature)
const stalledAmps = (description: EngineDescription, volts: number): number =>
  volts / (windingOf(description)?.ohms ?? Number.EPSILON)

/** Unloaded current of the first motor with this share of the friction, A. */
function freeCurrent(description: EngineDescription, share: number, volts: number): number | null {
  const [motor] = description.motors
  const winding = windingOf(description)
  if (!motor || !winding?.ohms || motor.field !== null) return null
  const { backEmf, coulombTorque, viscousTorque } = motor
  // V = R·I + K·ω and K·I = share·(Tc + b·ω), solved for I.
  const [coulomb, viscous] = [share * coulombTorque, share * viscousTorque]
  const current = (coulomb * backEmf + viscous * volts) / (backEmf ** 2 + viscous * winding.ohms)
  return Math.min(current, volts / winding.ohms)
}
