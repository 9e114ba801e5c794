import type { ComponentState, EngineDescription, Motor } from '../../core/engine/description-schema'
import { driveTrain, type DriveTrain } from '../../core/engine/drive-train'
import { runningPositions } from '../../core/engine/pickup-map'
import { refitted } from '../../core/engine/refit'
import { CommutatedMotor } from './commutated-motor'
import type { CasualtyFault } from './faults'
import { FailingContacts } from './failing-contacts'
import { SeededRandom } from './random'
import { Surroundings, type Port } from './surroundings'

export interface CasualtyOptions {
  readonly seed: number
  readonly roomCelsius?: number
  /** On a stand it stays where it is; otherwise it runs along the track. */
  readonly onStand?: boolean
}

/** What is clamped to the engine. */
export interface Feed {
  readonly plus: string
  readonly minus: string
  /** V; peak volts are √2 of it on AC. */
  readonly volts: number
  /** Ω of supply and leads. */
  readonly ohms: number
  readonly limitAmps: number
  /** Hz; 0 is smooth DC. */
  readonly hertz: number
}

/** The simulated machine at one moment. */
export interface CasualtyReading {
  readonly seconds: number
  readonly supplyAmps: number
  /** V at the clamp. */
  readonly supplyVolts: number
  readonly limited: boolean
  readonly radPerSecond: readonly number[]
  readonly armatureAngle: number
  /** m along the track since it was put on it. */
  readonly travelled: number
  /** Power of each lamp against its rating. */
  readonly lamps: Readonly<Record<string, number>>
}

const OFF: Feed = { plus: '', minus: '', volts: 0, ohms: 0.1, limitAmps: 1, hertz: 0 }
/** Of the drag at the motor, what belongs to the motor itself; the rest to the train. From memory. */
const MOTOR_SHARE = 0.4
/** Mechanical time constant of motor and train unloaded, s. From memory: a flywheel-less machine. */
const RUN_UP_SECONDS = 0.06
/** Play of the train at the motor shaft, rad. */
const PLAY = 0.6
const BRUSH_WIDTH = 0.2
/** Inductance over resistance of a coil of three; turns, and with them the constant, go down as segments go up. From memory. */
const THREE_COIL_SECONDS = 3e-5
const WINDING_JOULES_PER_KELVIN = 6
const WINDING_WATTS_PER_KELVIN = 0.05
const MAGNET_PER_KELVIN = -0.002
/** A coil that pulls the sequence switch: V to pull in, V to let go, s between to count as an interruption. */
const PULL_IN_VOLTS = 6
const LET_GO_VOLTS = 2.5
const INTERRUPTION_SECONDS = 0.05

interface Runner {
  readonly motor: Motor
  readonly armature: CommutatedMotor
  readonly strength: number
  readonly coulombMotor: number
  readonly coulombTrain: number
  readonly viscousMotor: number
  readonly viscousTrain: number
  readonly inertia: number
  readonly fieldOhms: number
  readonly fieldHenry: number
  readonly tight: ReadonlyArray<{ readonly ratio: number; readonly torque: number; readonly at: number; readonly width: number }>
  angle: number
  speed: number
  kelvin: number
  slack: number
  direction: number
  frictionJoules: number
}

/**
 * A locomotive with hidden faults, as physics: angle-resolved motors, friction with play, contacts that fail, lamps,
 * warmth. Built from the one description of an engine; seeded, so that the same casualty behaves the same.
 */
export class Casualty {
  readonly description: EngineDescription
  private readonly runners: readonly Runner[]
  private readonly surroundings: Surroundings
  private readonly contacts: FailingContacts
  private readonly train: DriveTrain
  private readonly random: SeededRandom
  private switches: Record<string, string>
  private feed: Feed = OFF
  private held: number | null = null
  private seconds = 0
  private travelled = 0
  private effective = 1
  private unfedSince: number | null = 0
  private volts = 0
  private supplyAmps = 0
  private limited = false
  private ports: readonly Port[] = []

  constructor(description: EngineDescription, readonly faults: readonly CasualtyFault[], private readonly options: CasualtyOptions) {
    const turned = faults.flatMap((fault) => (fault.kind === 'turned' ? [need(description.turnables, fault.turnable)] : []))
    const { description: assembled, magnets } = refitted(description, turned)
    this.description = assembled
    this.random = new SeededRandom(options.seed)
    this.train = driveTrain(assembled, new Set(faults.flatMap((fault) => (fault.kind === 'slipping-link' ? [fault.link] : []))))
    const states: Record<string, ComponentState> = Object.fromEntries(faults.flatMap((fault) => (fault.kind === 'component' && fault.state !== 'intermittent' ? [[fault.component, fault.state] as const] : [])))
    this.surroundings = new Surroundings(assembled, { states })
    this.contacts = new FailingContacts(assembled, faults, this.train, this.random)
    this.switches = runningPositions(assembled)
    this.runners = assembled.motors.map((motor) => this.runnerOf(motor, magnets[motor.id] ?? 1))
  }

  /** Clamps a supply; what was clamped before is off. */
  apply(feed: Feed | null): void {
    this.feed = feed ?? OFF
    this.effective = 1
  }

  /** Sets a switch by hand: a lock-out lever, a decoder’s answer. */
  setSwitch(id: string, position: string): void {
    this.switches = { ...this.switches, [id]: position }
  }

  switchPosition(id: string): string | undefined {
    return this.switches[id]
  }

  /** Holds every armature at an angle, or lets go with null. */
  hold(angle: number | null): void {
    this.held = angle
  }

  get now(): CasualtyReading {
    const { ports: [port], runners: [leading], volts, supplyAmps } = this
    const lamps: Record<string, number> = {}
    for (const component of this.description.components) {
      if (!component.lamp) continue
      const seen = port?.lampVolts.get(component.id)
      lamps[component.id] = seen ? ((seen.perVolt * volts + seen.perAmp * (leading?.armature.amps ?? 0)) / component.lamp.volts) ** 2 : 0
    }
    return {
      seconds: this.seconds, supplyAmps, supplyVolts: volts - supplyAmps * this.feed.ohms, limited: this.limited,
      radPerSecond: this.runners.map((runner) => runner.speed), armatureAngle: leading?.angle ?? 0, travelled: this.travelled, lamps,
    }
  }

  /** Supply current and voltage now, without the rest: what a meter or a recorder looks at step by step. */
  get meter(): { readonly amps: number; readonly volts: number; readonly radPerSecond: number } {
    return { amps: this.supplyAmps, volts: this.volts - this.supplyAmps * this.feed.ohms, radPerSecond: this.runners[0]?.speed ?? 0 }
  }

  /** Winding temperature of the first motor, °C. */
  get windingCelsius(): number {
    return (this.options.roomCelsius ?? 20) + (this.runners[0]?.kelvin ?? 0)
  }

  /** Energy turned to friction by each motor since the start, J. */
  get frictionJoules(): readonly number[] {
    return this.runners.map((runner) => runner.frictionJoules)
  }

  get armatures(): readonly CommutatedMotor[] {
    return this.runners.map((runner) => runner.armature)
  }

  /**
   * Runs for a time in equal steps.
   *
   * @param seconds how long
   * @param step length of a step, s; 1e-4 follows the commutation
   * @param each called after every step
   */
  run(seconds: number, step = 1e-4, each?: () => void): CasualtyReading {
    const steps = Math.max(1, Math.round(seconds / step))
    for (let count = 0; count < steps; count++) {
      this.step(step)
      each?.()
    }
    return this.now
  }

  private step(dt: number): void {
    const { feed } = this
    const wave = feed.hertz === 0 ? 1 : Math.SQRT2 * Math.sin(2 * Math.PI * feed.hertz * this.seconds)
    const volts = feed.volts * wave * this.effective
    const broken = this.contacts.broken(this.seconds, this.runners[0]?.angle ?? 0, dt)
    const ports = feed.plus ? this.surroundings.ports(feed, broken, this.switches) : []
    let supplyAmps = 0
    for (const [index, runner] of this.runners.entries()) {
      const port = ports[index]
      const amps = this.turn(runner, port, volts, dt)
      if (port) supplyAmps += port.supplyPerAmp * amps + (index === 0 ? port.supplyPerVolt * volts : 0)
    }
    const limited = Math.abs(supplyAmps) > feed.limitAmps
    // Constant current: the supply gives way within a few steps and comes back as gently.
    if (limited) this.effective *= feed.limitAmps / Math.abs(supplyAmps)
    else if (this.effective < 1) this.effective = Math.min(1, this.effective * 1.02 + 1e-4)
    this.stepSequence(ports[0], volts)
    this.seconds += dt
    const [leading] = this.runners
    if (!this.options.onStand && leading) {
      const travel = this.train.wheels.find((wheel) => wheel.travelPerRadian !== null)?.travelPerRadian ?? 0
      this.travelled += travel * leading.speed * dt
    }
    this.volts = volts
    this.supplyAmps = supplyAmps
    this.limited = limited || this.effective < 0.98
    this.ports = ports
  }

  private turn(runner: Runner, port: Port | undefined, volts: number, dt: number): number {
    const { motor, armature } = runner
    const flux = motor.field === null ? runner.strength * (1 + MAGNET_PER_KELVIN * runner.kelvin) : this.fieldFlux(runner)
    const inductive = runner.fieldHenry / dt
    const source = port
      ? { volts: port.voltsPerVolt * volts + inductive * armature.amps, ohms: port.ohms + runner.fieldOhms + inductive }
      : { volts: 0, ohms: 1e7 }
    const speed = this.held === null ? runner.speed : 0
    const angle = this.held ?? runner.angle
    const amps = armature.step(angle, speed, flux, source, dt, runner.kelvin)
    const torque = armature.torquePerFlux * flux
    this.warm(runner, amps, dt)
    if (this.held !== null) {
      runner.angle = this.held
      runner.speed = 0
      return amps
    }
    this.move(runner, torque + this.cogging(runner), dt)
    return amps
  }

  /** The field carries the armature’s current, one way or the other through the sequence switch. */
  private fieldFlux(runner: Runner): number {
    const way = this.switches.sequence === 'reverse' ? -1 : 1
    return way * runner.armature.amps * runner.strength
  }

  private warm(runner: Runner, amps: number, dt: number): void {
    const watts = runner.armature.coilWatts + amps ** 2 * runner.fieldOhms
    runner.kelvin += ((watts - runner.kelvin * WINDING_WATTS_PER_KELVIN) / WINDING_JOULES_PER_KELVIN) * dt
  }

  private cogging(runner: Runner): number {
    const { segments } = runner.armature.build
    return 0.25 * runner.coulombMotor * Math.sin((segments % 2 === 0 ? segments : 2 * segments) * runner.angle)
  }

  private move(runner: Runner, torque: number, dt: number): void {
    let drag = runner.coulombMotor + (runner.slack > 0 ? 0 : runner.coulombTrain)
    for (const spot of runner.tight) {
      const off = Math.abs(((((runner.angle * spot.ratio - spot.at) % (2 * Math.PI)) + 3 * Math.PI) % (2 * Math.PI)) - Math.PI)
      if (off < spot.width) drag += spot.torque * Math.cos(((off / spot.width) * Math.PI) / 2)
    }
    const viscous = runner.viscousMotor + (runner.slack > 0 ? 0 : runner.viscousTrain)
    const before = runner.speed
    if (before === 0 && Math.abs(torque) <= drag) return
    const way = before !== 0 ? Math.sign(before) : Math.sign(torque)
    // Implicit in the part that grows with speed; dry friction stops it, it does not turn it back.
    const next = (before + ((torque - way * drag) / runner.inertia) * dt) / (1 + (viscous / runner.inertia) * dt)
    runner.speed = Math.sign(next) === -way ? 0 : next
    runner.frictionJoules += (drag + viscous * Math.abs(runner.speed)) * Math.abs(runner.speed) * dt
    runner.angle += runner.speed * dt
    if (runner.speed !== 0 && Math.sign(runner.speed) !== runner.direction) {
      runner.direction = Math.sign(runner.speed)
      runner.slack = PLAY
    }
    runner.slack = Math.max(0, runner.slack - Math.abs(runner.speed) * dt)
  }

  /** The sequence switch steps each time its coil is fed again after an interruption. */
  private stepSequence(port: Port | undefined, volts: number): void {
    const sequence = this.description.switches.find((entry) => entry.id === 'sequence')
    if (!sequence) return
    const sticky = this.faults.find((fault) => fault.kind === 'sticky-switch')
    const pullInVolts = sticky?.pullInVolts ?? PULL_IN_VOLTS
    const coil = this.description.components.find((component) => component.id === 'sequence.coil')
    const fed = port && coil && !this.faults.some((fault) => fault.kind === 'component' && fault.component === coil.id) ? Math.abs(volts) : 0
    if (this.feed.hertz > 0 && fed > 0 && fed < pullInVolts) return
    if (fed < LET_GO_VOLTS) {
      this.unfedSince ??= this.seconds
      return
    }
    if (fed < pullInVolts) return
    if (this.unfedSince !== null && this.seconds - this.unfedSince > INTERRUPTION_SECONDS && this.seconds > INTERRUPTION_SECONDS) {
      const at = sequence.positions.findIndex((position) => position.id === this.switches.sequence)
      const luck = sticky ? this.random.between(0, 1) : 1
      const steps = !sticky || luck >= sticky.missedShare + sticky.doubledShare ? 1 : luck < sticky.missedShare ? 0 : 2
      this.setSwitch('sequence', sequence.positions[(at + steps) % sequence.positions.length]?.id ?? sequence.rest)
    }
    this.unfedSince = null
  }

  private runnerOf(motor: Motor, turnedMagnet: number): Runner {
    const { faults } = this
    const of = <K extends CasualtyFault['kind']>(kind: K): Extract<CasualtyFault, { kind: K }> | undefined =>
      faults.find((fault): fault is Extract<CasualtyFault, { kind: K }> => fault.kind === kind && (!('motor' in fault) || fault.motor === motor.id))
    const winding = need(this.description.components, motor.armature)
    const field = motor.field === null ? null : need(this.description.components, motor.field)
    const ohms = winding.ohms ?? 10
    const bridge = of('carbon-bridge')
    const dry = of('dry-bearing')?.factor ?? 1
    const grease = of('hard-grease')?.factor ?? 1
    const rubbing = of('rubbing')?.torque ?? 0
    const driven = this.train.wheels.some((wheel) => wheel.driven)
    const trainShare = driven ? 1 - MOTOR_SHARE : 0
    const series = field !== null
    return {
      motor,
      armature: new CommutatedMotor({
        segments: motor.segments, connection: 'ring', meanOhms: ohms, backEmf: motor.backEmf, coilSeconds: THREE_COIL_SECONDS * (3 / motor.segments), brushWidth: BRUSH_WIDTH, brushOhms: Math.min(0.1, ohms / 40),
        brushShift: of('brush-shift')?.radians ?? 0, openCoil: of('open-coil')?.coil ?? null, shortedCoil: of('shorted-coil')?.coil ?? null, bridge: bridge ? { gap: bridge.gap, ohms: bridge.ohms } : null,
      }),
      strength: turnedMagnet * (of('magnet')?.strength ?? 1),
      coulombMotor: motor.coulombTorque * MOTOR_SHARE * dry + rubbing, coulombTrain: motor.coulombTorque * trainShare * Math.sqrt(grease),
      viscousMotor: motor.viscousTorque * MOTOR_SHARE, viscousTrain: motor.viscousTorque * trainShare * grease,
      inertia: series ? 8e-7 : (RUN_UP_SECONDS * motor.backEmf ** 2) / ohms,
      fieldOhms: field?.ohms ?? 0, fieldHenry: series ? 4e-3 : 0,
      tight: faults.flatMap((fault) => {
        if (fault.kind !== 'tight-spot') return []
        const part = this.train.turning.get(fault.rotor)
        return part && part.motor === motor.id ? [{ ratio: part.turnsPerMotorTurn, torque: fault.torque, at: fault.at, width: fault.width }] : []
      }),
      angle: this.random.between(0, 2 * Math.PI), speed: 0, kelvin: 0, slack: 0, direction: 1, frictionJoules: 0,
    }
  }
}

function need<T extends { readonly id: string }>(list: readonly T[], id: string): T {
  const found = list.find((entry) => entry.id === id)
  if (!found) throw new RangeError(`There is no “${id}” in this engine.`)
  return found
}
