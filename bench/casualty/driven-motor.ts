import type { EngineDescription, Motor } from '../../core/engine/description-schema'
import type { DriveTrain } from '../../core/engine/drive-train'
import { CommutatedMotor } from './commutated-motor'
import type { CasualtyFault } from './faults'
import { GearedLoad } from './geared-load'
import type { Port } from './surroundings'
import { woundField } from './wound-field'

/** Of the drag and the inertia at the motor, what belongs to the motor itself; the rest to the train. From memory. */
const MOTOR_DRAG_SHARE = 0.4
const MOTOR_INERTIA_SHARE = 0.7
/** Mechanical time constant of motor and train unloaded, s. From memory: a flywheel-less machine. */
const RUN_UP_SECONDS = 0.06
const SERIES_INERTIA = 8e-7
const SERIES_FIELD_HENRY = 4e-3
/** Play of the train at the motor shaft, rad: a worm's end play and the backlash of its gear. From memory. */
const PLAY = 0.6
const BRUSH_WIDTH = 0.2
/** Inductance over resistance of a coil of three; turns, and with them the constant, go down as segments go up. From memory. */
const THREE_COIL_SECONDS = 3e-5
const WINDING_JOULES_PER_KELVIN = 6
const WINDING_WATTS_PER_KELVIN = 0.05
const MAGNET_PER_KELVIN = -0.002

interface TightSpot {
  readonly ratio: number
  readonly torque: number
  readonly at: number
  readonly width: number
}

/** One motor of a casualty with all it drives: armature, field, warmth, friction, tight spots and play. */
export class DrivenMotor {
  readonly armature: CommutatedMotor
  readonly load: GearedLoad
  /** Of the winding above the room. */
  kelvin = 0
  private readonly strength: number
  private readonly fieldOhms: number
  private readonly fieldHenry: number
  /** A wound field's current in times the armature's own. */
  private readonly fieldTimes: number
  private readonly cogTorque: number
  private readonly tight: readonly TightSpot[]

  /**
   * @param turnedMagnet 1, or −1 with the magnet the other way round
   * @param startAngle of the armature, rad
   */
  constructor(
    private readonly motor: Motor,
    description: EngineDescription,
    faults: readonly CasualtyFault[],
    train: DriveTrain,
    turnedMagnet: number,
    startAngle: number,
  ) {
    const of = <K extends CasualtyFault['kind']>(kind: K): Extract<CasualtyFault, { kind: K }> | undefined =>
      faults.find(
        (fault): fault is Extract<CasualtyFault, { kind: K }> =>
          fault.kind === kind && (!('motor' in fault) || fault.motor === motor.id),
      )
    const ohmsOf = (id: string): number | null =>
      description.components.find((component) => component.id === id)?.ohms ?? null
    const ohms = ohmsOf(motor.armature) ?? 10
    const bridge = of('carbon-bridge')
    const series = motor.field !== null
    this.armature = new CommutatedMotor({
      segments: motor.segments,
      connection: 'ring',
      meanOhms: ohms,
      backEmf: motor.backEmf,
      coilSeconds: THREE_COIL_SECONDS * (3 / motor.segments),
      brushWidth: BRUSH_WIDTH,
      brushOhms: Math.min(0.1, ohms / 40),
      brushShift: of('brush-shift')?.radians ?? 0,
      openCoil: of('open-coil')?.coil ?? null,
      shortedCoil: of('shorted-coil')?.coil ?? null,
      bridge: bridge ? { gap: bridge.gap, ohms: bridge.ohms } : null,
    })
    this.strength = turnedMagnet * (of('magnet')?.strength ?? 1)
    const field = series ? woundField(motor, description, faults) : { times: 0, ohms: 0, shorted: false }
    this.fieldTimes = field.times
    this.fieldOhms = field.ohms
    this.fieldHenry = series && !field.shorted ? SERIES_FIELD_HENRY : 0
    const inertia = series ? SERIES_INERTIA : (RUN_UP_SECONDS * motor.backEmf ** 2) / ohms
    const grease = of('hard-grease')?.factor ?? 1
    const ownCoulomb = motor.coulombTorque * MOTOR_DRAG_SHARE * (of('dry-bearing')?.factor ?? 1)
    const pulledOver = (of('worn-bearing')?.torque ?? 0) * this.strength ** 2
    this.cogTorque = 0.25 * ownCoulomb
    const ofTrain = train.wheels.some((wheel) => wheel.driven)
      ? {
          inertia: inertia * (1 - MOTOR_INERTIA_SHARE),
          coulomb: motor.coulombTorque * (1 - MOTOR_DRAG_SHARE) * Math.sqrt(grease),
          viscous: motor.viscousTorque * (1 - MOTOR_DRAG_SHARE) * grease,
        }
      : null
    this.load = new GearedLoad(
      {
        inertia: inertia * MOTOR_INERTIA_SHARE,
        coulomb: ownCoulomb + pulledOver + (of('rubbing')?.torque ?? 0),
        viscous: motor.viscousTorque * MOTOR_DRAG_SHARE,
      },
      ofTrain,
      PLAY,
      startAngle,
    )
    this.tight = faults.flatMap((fault) => {
      if (fault.kind !== 'tight-spot') return []
      const part = train.turning.get(fault.rotor)
      return part && part.motor === motor.id
        ? [{ ratio: part.turnsPerMotorTurn, torque: fault.torque, at: fault.at, width: fault.width }]
        : []
    })
  }

  get speed(): number {
    return this.load.speed
  }

  get angle(): number {
    return this.load.angle
  }

  /**
   * One step of time.
   *
   * @param port what its terminals see; undefined where nothing is clamped
   * @param volts of the supply now
   * @param reversed its field carries the current the other way
   * @param held the armature held at an angle, or null
   * @returns amps through it
   */
  step(port: Port | undefined, volts: number, reversed: boolean, held: number | null, dt: number): number {
    const { armature, load } = this
    const flux =
      this.motor.field === null
        ? this.strength * (1 + MAGNET_PER_KELVIN * this.kelvin)
        : (reversed ? -1 : 1) * armature.amps * this.fieldTimes * this.strength
    const inductive = this.fieldHenry / dt
    const source = port
      ? { volts: port.voltsPerVolt * volts + inductive * armature.amps, ohms: port.ohms + this.fieldOhms + inductive }
      : { volts: 0, ohms: 1e7 }
    const amps = armature.step(held ?? load.angle, held === null ? load.speed : 0, flux, source, dt, this.kelvin)
    const torque = armature.torquePerFlux * flux
    const watts = armature.coilWatts + amps ** 2 * this.fieldOhms
    this.kelvin += ((watts - this.kelvin * WINDING_WATTS_PER_KELVIN) / WINDING_JOULES_PER_KELVIN) * dt
    if (held !== null) load.holdAt(held)
    else load.step(torque + this.cogging(), this.tightness(), dt)
    return amps
  }

  private cogging(): number {
    const { segments } = this.armature.build
    return this.cogTorque * Math.sin((segments % 2 === 0 ? segments : 2 * segments) * this.load.angle)
  }

  private tightness(): number {
    let drag = 0
    for (const spot of this.tight) {
      const off = Math.abs(
        ((((this.load.angle * spot.ratio - spot.at) % (2 * Math.PI)) + 3 * Math.PI) % (2 * Math.PI)) - Math.PI,
      )
      if (off < spot.width) drag += spot.torque * Math.cos(((off / spot.width) * Math.PI) / 2)
    }
    return drag
  }
}
