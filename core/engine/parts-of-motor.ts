import type { EngineDescription, Motor } from './description-schema'

/**
 * The parts a motor is made of: a description lists them after the motor, before the next one.
 *
 *
 * @example
 * partsOfMotor(describeConstruction('tank-can'), describeConstruction('tank-can').motors[0]).has(
 *   'motor.magnet',
 * ) // true
 */
export function partsOfMotor({ motors, parts }: EngineDescription, motor: Motor): Set<string> {
  const heads = new Set(motors.map(({ part }) => part))
  const found = new Set([motor.part])
  let current: string | null = null
  for (const { id, kind } of parts) {
    if (heads.has(id)) current = id
    else if (current === motor.part && kind === 'motor-part') found.add(id)
  }
  return found
}
