/** How an engine rolls on when its supply is gone. */
export interface CoastQuestion {
  /** Motor speed when the supply goes, rad/s. */
  readonly radPerSecond: number
  /** Dry friction at the motor's shaft, N·m. */
  readonly coulombTorque: number
  /** Friction that grows with speed, N·m·s/rad. */
  readonly viscousTorque: number
  /** Everything that turns and moves, at the motor's shaft, kg·m². */
  readonly inertia: number
  /** Metres the engine moves per radian of the motor. */
  readonly travelPerRadian: number
}

/**
 * Distance until it stands, from J·dω/dt = −(Tc + b·ω):
 * θ = (J/b)·(ω₀ − (Tc/b)·ln(1 + b·ω₀/Tc)), and J·ω₀²/(2·Tc) without the part that grows with speed (derived).
 * Lamps and a motor shorted through other circuits brake it sooner.
 *
 * @returns m
 * @throws RangeError where friction or inertia is not positive
 * @example
 * coastingDistance({
 *   radPerSecond: 800,
 *   coulombTorque: 0.0008,
 *   viscousTorque: 1e-7,
 *   inertia: 2e-7,
 *   travelPerRadian: 0.0003,
 * }) // 0.02251
 */
export function coastingDistance({
  radPerSecond,
  coulombTorque,
  viscousTorque,
  inertia,
  travelPerRadian,
}: CoastQuestion): number {
  if (!(coulombTorque > 0) || !(inertia > 0) || !(viscousTorque >= 0))
    throw new RangeError('Friction and inertia must be more than nothing, or it would roll for ever.')
  const speed = Math.abs(radPerSecond)
  const ratio = (viscousTorque * speed) / coulombTorque
  // Below this the logarithm's difference is lost in rounding; its series is ω²/2·(b/Tc)·(1 − 2/3·ratio).
  const angle =
    ratio < 1e-4
      ? ((inertia * speed ** 2) / (2 * coulombTorque)) * (1 - (2 / 3) * ratio)
      : (inertia / viscousTorque) * (speed - (coulombTorque / viscousTorque) * Math.log1p(ratio))
  return angle * Math.abs(travelPerRadian)
}

/** From memory: small armatures run up within some five hundredths of a second, J·R/Ke². */
const RUN_UP_SECONDS = 0.05

/**
 * Inertia at the motor's shaft: the armature's from its run-up time, and the engine's mass moved along.
 *
 * @param motor winding Ω and back-EMF V·s/rad
 * @param massKilograms of the whole engine
 * @param travelPerRadian metres per radian of the motor
 * @returns kg·m²
 * @example inertiaAtShaft({ ohms: 20, backEmf: 0.012 }, 0.2, 0.0003) // 3.78e-7
 */
export function inertiaAtShaft(
  motor: { readonly ohms: number; readonly backEmf: number },
  massKilograms: number,
  travelPerRadian: number,
): number {
  return (RUN_UP_SECONDS * motor.backEmf ** 2) / motor.ohms + massKilograms * travelPerRadian ** 2
}

/**
 * Time a capacitor keeps a constant current going: t = C·(V₁ − V₂)/I.
 *
 * @param farads capacity
 * @param fromVolts charged to
 * @param toVolts below which the decoder or motor gives up
 * @param amps drawn meanwhile
 * @returns s
 * @example stayAliveSeconds(0.001, 14, 8, 0.2) // 0.03
 */
export function stayAliveSeconds(farads: number, fromVolts: number, toVolts: number, amps: number): number {
  if (!(amps > 0) || !(farads > 0) || fromVolts < toVolts)
    throw new RangeError('A stay-alive needs a capacity, a current, and a voltage to fall from.')
  return (farads * (fromVolts - toVolts)) / amps
}
