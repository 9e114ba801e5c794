/** Everything needed to say how a fitted motor behaves at a voltage. SI units. */
export interface MotorConstants {
  readonly resistance: number
  readonly backEmf: number
  readonly brushDrop: number
  /** Unloaded current extrapolated to standstill, A. */
  readonly currentAtRest: number
  /** Rise of unloaded current with speed, A·s/rad. */
  readonly currentPerSpeed: number
}

/**
 * Speed without outside load: V − Vb = R·(a + c·ω) + Ke·ω. Zero below the start voltage.
 *
 * @example
 * noLoadSpeed(
 *   { resistance: 20, backEmf: 0.012, brushDrop: 0.5, currentAtRest: 0.06, currentPerSpeed: 0.00002 },
 *   12,
 * ) // 830.6
 */
export function noLoadSpeed(motor: MotorConstants, voltage: number): number {
  const drive = voltage - motor.brushDrop - motor.resistance * motor.currentAtRest
  return Math.max(0, drive / (motor.backEmf + motor.resistance * motor.currentPerSpeed))
}

/**
 * Current without outside load, A.
 *
 * @example
 * noLoadCurrent(
 *   { resistance: 20, backEmf: 0.012, brushDrop: 0.5, currentAtRest: 0.06, currentPerSpeed: 0.00002 },
 *   12,
 * ) // 0.07661
 */
export function noLoadCurrent(motor: MotorConstants, voltage: number): number {
  return motor.currentAtRest + motor.currentPerSpeed * noLoadSpeed(motor, voltage)
}

/**
 * (V − Vb)/R
 *
 * @example
 * stallCurrent(
 *   { resistance: 20, backEmf: 0.012, brushDrop: 0.5, currentAtRest: 0.06, currentPerSpeed: 0 },
 *   12,
 * ) // 0.575
 */
export function stallCurrent(motor: MotorConstants, voltage: number): number {
  return (voltage - motor.brushDrop) / motor.resistance
}

/**
 * Torque that stops it, N·m, friction already taken off.
 *
 * @example
 * stallTorque(
 *   { resistance: 20, backEmf: 0.012, brushDrop: 0.5, currentAtRest: 0.06, currentPerSpeed: 0 },
 *   12,
 * ) // 0.00618
 */
export function stallTorque(motor: MotorConstants, voltage: number): number {
  return motor.backEmf * (stallCurrent(motor, voltage) - motor.currentAtRest)
}

/**
 * Voltage that just overcomes the running friction: Vb + R·a. Sticking friction asks for a little more.
 *
 * @example
 * keepsTurningDownTo({
 *   resistance: 20,
 *   backEmf: 0.012,
 *   brushDrop: 0.5,
 *   currentAtRest: 0.06,
 *   currentPerSpeed: 0,
 * }) // 1.7
 */
export function keepsTurningDownTo(motor: MotorConstants): number {
  return motor.brushDrop + motor.resistance * motor.currentAtRest
}

/**
 * Efficiency and shaft power when `current` flows at `voltage`.
 *
 * @example
 * loadPoint(
 *   { resistance: 20, backEmf: 0.012, brushDrop: 0.5, currentAtRest: 0.06, currentPerSpeed: 0 },
 *   12,
 *   0.2,
 * ) // { efficiency: 0.4375, outputPower: 1.05, speed: 625 }
 */
export function loadPoint(
  motor: MotorConstants,
  voltage: number,
  current: number,
): { efficiency: number; outputPower: number; speed: number } {
  const speed = (voltage - motor.brushDrop - motor.resistance * current) / motor.backEmf
  const torque = motor.backEmf * (current - motor.currentAtRest - motor.currentPerSpeed * speed)
  const outputPower = torque * speed
  return { efficiency: outputPower / (voltage * current), outputPower, speed }
}

/**
 * The load at which efficiency (or output) is best, by golden-section search between no load and stall.
 * For constant friction and no brush drop this is (1 − √(I₀/Is))² and R·(Is − I₀)²/4 (derived).
 *
 * @returns null when the motor does not turn at that voltage
 * @example
 * bestLoad(
 *   { resistance: 20, backEmf: 0.012, brushDrop: 0.5, currentAtRest: 0.06, currentPerSpeed: 0 },
 *   12,
 *   'efficiency',
 * )?.current // 0.1857
 */
export function bestLoad(
  motor: MotorConstants,
  voltage: number,
  wanted: 'efficiency' | 'outputPower',
): { current: number; value: number; speed: number } | null {
  let low = noLoadCurrent(motor, voltage)
  let high = stallCurrent(motor, voltage)
  if (!(high > low)) return null
  const goodness = (current: number): number => loadPoint(motor, voltage, current)[wanted]
  const golden = (Math.sqrt(5) - 1) / 2
  let left = high - golden * (high - low)
  let right = low + golden * (high - low)
  for (let step = 0; step < 60; step++) {
    if (goodness(left) < goodness(right)) {
      low = left
      left = right
      right = low + golden * (high - low)
    } else {
      high = right
      right = left
      left = high - golden * (high - low)
    }
  }
  const current = (low + high) / 2
  const point = loadPoint(motor, voltage, current)
  return { current, value: point[wanted], speed: point.speed }
}
