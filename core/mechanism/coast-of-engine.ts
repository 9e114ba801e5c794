import type { EngineDescription } from '../engine/description-schema'
import { driveTrain, travelPerRadian } from '../engine/drive-train'
import { coastingDistance, inertiaAtShaft } from './coasting'

export interface EngineCoast {
  /** How far it rolls, mm. */
  readonly coastMm: number
  /** What its motors draw together while running at this speed, A. */
  readonly amps: number
}

/** From memory: the wound armature of a small series motor, kg·m². */
const SERIES_INERTIA = 8e-7
/** Where nothing is said of the mass. */
const USUAL_GRAMS = 300

/**
 * How far this engine rolls when its supply goes at a speed, from its construction: motor, friction, gears and mass.
 *
 * @param description the engine
 * @param metresPerSecond track speed
 * @returns null where no motor drives a wheel
 * @example coastOf(describeConstruction('tank-can'), 0.2) // { coastMm: 13.69, amps: 0.1272 }
 */
export function coastOf(description: EngineDescription, metresPerSecond: number): EngineCoast | null {
  const travel = travelPerRadian(driveTrain(description))
  const [motor] = description.motors
  if (travel === null || !motor) return null
  const grams = description.units.reduce((sum, unit) => sum + (unit.massGrams ?? USUAL_GRAMS), 0)
  const share = grams / 1000 / description.motors.length
  const ohms = description.components.find((component) => component.id === motor.armature)?.ohms ?? 10
  const inertia =
    motor.field === null
      ? inertiaAtShaft({ ohms, backEmf: motor.backEmf }, share, travel)
      : SERIES_INERTIA + share * travel ** 2
  const radPerSecond = metresPerSecond / Math.abs(travel)
  const torque = motor.coulombTorque + motor.viscousTorque * radPerSecond
  return {
    coastMm:
      1000 *
      coastingDistance({
        radPerSecond,
        coulombTorque: motor.coulombTorque,
        viscousTorque: motor.viscousTorque,
        inertia,
        travelPerRadian: travel,
      }),
    // A wound field turns with the square of its current.
    amps:
      description.motors.length * (motor.field === null ? torque / motor.backEmf : Math.sqrt(torque / motor.backEmf)),
  }
}
