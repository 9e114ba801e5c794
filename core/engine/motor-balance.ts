/** A motor as the electrical solution sees it. */
export interface ElectricMotor {
  readonly id: string
  readonly armature: number
  readonly field: number | null
  /** Of the armature winding, S; 0 when it is open. */
  readonly conductance: number
  /** V·s/rad, or V·s/(rad·A) with a wound field; signed. */
  readonly backEmf: number
  readonly coulombTorque: number
  readonly viscousTorque: number
}

/** How a branch current answers to the supply and to each armature's back-EMF. */
export interface Response {
  readonly perSupplyVolt: number
  readonly perBackEmf: readonly number[]
}

export interface SourceResponse {
  readonly armature: readonly Response[]
  readonly field: ReadonlyArray<Response | null>
}

export interface MotorBalance {
  /** V, in the direction that opposes current from `from` to `to`. */
  readonly backEmfs: readonly number[]
  /** rad/s. */
  readonly speeds: readonly number[]
}

const MOST_SWEEPS = 60
const SETTLED = 1e-10

/**
 * Finds for every motor whether its friction holds it or at which speed torque and friction balance:
 * K·i_field·i_armature (or Ke·i_armature) = ±Tc + b·ω. The electrical side is linear in the back-EMFs; each motor is
 * balanced in turn until none moves any more.
 *
 * @param motors constants and conductances
 * @param response how currents answer to supply and back-EMFs
 * @param volts of the supply
 */
export function settleMotors(motors: readonly ElectricMotor[], response: SourceResponse, volts: number): MotorBalance {
  const speeds = motors.map(() => 0)
  const backEmfs = motors.map(() => 0)
  for (let sweep = 0; sweep < MOST_SWEEPS; sweep++) {
    let moved = 0
    for (const [index, motor] of motors.entries()) {
      const before = backEmfs[index] as number
      const { speed, emf } =
        motor.field === null
          ? balanceMagnetMotor(index, motor, response, volts, backEmfs)
          : balanceSeriesMotor(index, motor, response, volts, backEmfs)
      speeds[index] = speed
      backEmfs[index] = emf
      moved = Math.max(moved, Math.abs(emf - before))
    }
    if (moved <= SETTLED * Math.max(1, Math.abs(volts)) || motors.length === 1) break
  }
  return { backEmfs, speeds }
}

/** What a supply that gives way beyond a current really gives, and the motors there. */
export interface SuppliedBalance extends MotorBalance {
  readonly volts: number
  readonly limited: boolean
}

/**
 * As `settleMotors`, on a supply that lets its volts go where more than its limit would flow. Current rises with the
 * volts, motors held or turning: the interval is halved until the limit is met.
 *
 * @param ampsAt what the supply gives at some volts and back-EMFs
 * @param halvings how often
 */
export function settleWithin(
  motors: readonly ElectricMotor[],
  response: SourceResponse,
  supply: { readonly volts: number; readonly limitAmps: number },
  ampsAt: (volts: number, backEmfs: readonly number[]) => number,
  halvings: number,
): SuppliedBalance {
  const over = (volts: number, { backEmfs }: MotorBalance): boolean =>
    Math.abs(ampsAt(volts, backEmfs)) > supply.limitAmps
  const full = settleMotors(motors, response, supply.volts)
  if (!over(supply.volts, full)) return { ...full, volts: supply.volts, limited: false }
  let [low, high] = [0, 1]
  for (let step = 0; step < halvings; step++) {
    const share = (low + high) / 2
    if (over(supply.volts * share, settleMotors(motors, response, supply.volts * share))) high = share
    else low = share
  }
  const volts = supply.volts * low
  return { ...settleMotors(motors, response, volts), volts, limited: true }
}

function currentOf(branch: Response, volts: number, backEmfs: readonly number[], except: number): number {
  let current = branch.perSupplyVolt * volts
  for (const [index, emf] of backEmfs.entries())
    if (index !== except) current += (branch.perBackEmf[index] as number) * emf
  return current
}

/** Linear in the speed, so solved at once. */
function balanceMagnetMotor(
  index: number,
  motor: ElectricMotor,
  response: SourceResponse,
  volts: number,
  backEmfs: readonly number[],
): { speed: number; emf: number } {
  const branch = response.armature[index] as Response
  const held = currentOf(branch, volts, backEmfs, index)
  const torque = motor.backEmf * held
  if (Math.abs(torque) <= motor.coulombTorque) return { speed: 0, emf: 0 }
  const damping = -(branch.perBackEmf[index] as number)
  const speed =
    (torque - Math.sign(torque) * motor.coulombTorque) / (motor.viscousTorque + motor.backEmf ** 2 * damping)
  return { speed, emf: motor.backEmf * speed }
}

/** Torque falls steadily with speed: bracket, then the Illinois rule (false position with the stale end’s weight halved), which never leaves the bracket. */
function balanceSeriesMotor(
  index: number,
  motor: ElectricMotor,
  response: SourceResponse,
  volts: number,
  backEmfs: readonly number[],
): { speed: number; emf: number } {
  const armature = response.armature[index] as Response
  const field = response.field[index] as Response
  const armatureHeld = currentOf(armature, volts, backEmfs, index)
  const fieldHeld = currentOf(field, volts, backEmfs, index)
  const way = Math.sign(motor.backEmf * armatureHeld * fieldHeld)

  const emfAt = (speed: number): number => {
    // e = K·ω·i_field and i_field = held + k·e.
    const perAmp = motor.backEmf * speed
    return (perAmp * fieldHeld) / (1 - perAmp * (field.perBackEmf[index] as number))
  }
  const surplus = (size: number): number => {
    const emf = emfAt(way * size)
    const torque =
      motor.backEmf *
      (fieldHeld + (field.perBackEmf[index] as number) * emf) *
      (armatureHeld + (armature.perBackEmf[index] as number) * emf)
    return way * torque - motor.coulombTorque - motor.viscousTorque * size
  }
  if (way === 0 || surplus(0) <= 0) return { speed: 0, emf: 0 }
  let [low, high] = [0, 100]
  while (surplus(high) > 0 && high < 1e6) [low, high] = [high, high * 2]
  let [ofLow, ofHigh, side, size] = [surplus(low), surplus(high), 0, high]
  // With nothing to hold it, it runs away: as fast as is looked for at all.
  for (let step = 0; step < 60 && ofHigh <= 0; step++) {
    const next = (low * ofHigh - high * ofLow) / (ofHigh - ofLow)
    const moved = Math.abs(next - size)
    size = next
    if (moved <= 1e-10 * size) break
    const left = surplus(size)
    if (left > 0) {
      ;[low, ofLow] = [size, left]
      if (side > 0) ofHigh /= 2
      side = 1
    } else {
      ;[high, ofHigh] = [size, left]
      if (side < 0) ofLow /= 2
      side = -1
    }
  }
  const speed = way * size
  return { speed, emf: emfAt(speed) }
}
