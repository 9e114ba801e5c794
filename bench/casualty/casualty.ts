import type { ComponentState, EngineDescription } from '../../core/engine/description-schema'
import { driveTrain, type DriveTrain } from '../../core/engine/drive-train'
import { runningPositions } from '../../core/engine/pickup-map'
import { refitted } from '../../core/engine/refit'
import type { CommutatedMotor } from './commutated-motor'
import { DrivenMotor } from './driven-motor'
import type { CasualtyFault } from './faults'
import { FailingContacts } from './failing-contacts'
import { SeededRandom } from './random'
import { Relays } from './relays'
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

/**
 * A locomotive with hidden faults, as physics: angle-resolved motors, friction with play, contacts that fail, lamps,
 * warmth. Built from the one description of an engine; seeded, so that the same casualty behaves the same.
 */
export class Casualty {
  readonly description: EngineDescription
  private readonly motors: readonly DrivenMotor[]
  private readonly surroundings: Surroundings
  private readonly contacts: FailingContacts
  private readonly relays: Relays
  private readonly train: DriveTrain
  private switches: Record<string, string>
  private feed: Feed = OFF
  private held: number | null = null
  private seconds = 0
  private travelled = 0
  private effective = 1
  private volts = 0
  private supplyAmps = 0
  private limited = false
  private ports: readonly Port[] = []
  private readonly amps: number[] = []
  /** What a volt of the supply and an amp of each winding make across a component, while the ports stay the same. */
  private readonly shares = new Map<string, readonly number[]>()
  private sharesOf: readonly Port[] | null = null

  constructor(
    description: EngineDescription,
    readonly faults: readonly CasualtyFault[],
    private readonly options: CasualtyOptions,
  ) {
    const turned = faults.flatMap((fault) =>
      fault.kind === 'turned' ? [need(description.turnables, fault.turnable)] : [],
    )
    const { description: assembled, magnets } = refitted(description, turned)
    this.description = assembled
    const random = new SeededRandom(options.seed)
    this.train = driveTrain(
      assembled,
      new Set(faults.flatMap((fault) => (fault.kind === 'slipping-link' ? [fault.link] : []))),
    )
    const states: Record<string, ComponentState> = Object.fromEntries(
      faults.flatMap((fault) =>
        fault.kind === 'component' && fault.state !== 'intermittent' ? [[fault.component, fault.state] as const] : [],
      ),
    )
    this.surroundings = new Surroundings(assembled, { states })
    this.contacts = new FailingContacts(assembled, faults, this.train, random)
    this.relays = new Relays(assembled, faults, random)
    this.switches = runningPositions(assembled)
    this.motors = assembled.motors.map(
      (motor) =>
        new DrivenMotor(motor, assembled, faults, this.train, magnets[motor.id] ?? 1, random.between(0, 2 * Math.PI)),
    )
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
    const { motors, volts, supplyAmps } = this
    const lamps = Object.fromEntries(
      this.description.components.flatMap(({ id, lamp }) =>
        lamp ? [[id, (this.voltsAcross(id) / lamp.volts) ** 2]] : [],
      ),
    )
    return {
      seconds: this.seconds,
      supplyAmps,
      supplyVolts: volts - supplyAmps * this.feed.ohms,
      limited: this.limited,
      radPerSecond: motors.map((motor) => motor.speed),
      armatureAngle: motors[0]?.angle ?? 0,
      travelled: this.travelled,
      lamps,
    }
  }

  /** Supply current and voltage now, without the rest: what a meter or a recorder looks at step by step. */
  get meter(): { readonly amps: number; readonly volts: number; readonly radPerSecond: number } {
    return {
      amps: this.supplyAmps,
      volts: this.volts - this.supplyAmps * this.feed.ohms,
      radPerSecond: this.motors[0]?.speed ?? 0,
    }
  }

  /** Winding temperature of the first motor, °C. */
  get windingCelsius(): number {
    return (this.options.roomCelsius ?? 20) + (this.motors[0]?.kelvin ?? 0)
  }

  /** Energy turned to friction and to the blows of the teeth by each motor since the start, J. */
  get frictionJoules(): readonly number[] {
    return this.motors.map((motor) => motor.load.frictionJoules)
  }

  get armatures(): readonly CommutatedMotor[] {
    return this.motors.map((motor) => motor.armature)
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
    const { feed, motors } = this
    const wave = feed.hertz === 0 ? 1 : Math.SQRT2 * Math.sin(2 * Math.PI * feed.hertz * this.seconds)
    const volts = feed.volts * wave * this.effective
    const broken = this.contacts.broken(this.seconds, motors[0]?.angle ?? 0, dt)
    const ports = feed.plus ? this.surroundings.ports(feed, broken, this.switches) : []
    const reversed = this.switches.sequence === 'reverse'
    let supplyAmps = (ports[0]?.supplyPerVolt ?? 0) * volts
    for (let index = 0; index < motors.length; index++) {
      const port = ports[index]
      const amps = (motors[index] as DrivenMotor).step(port, volts, reversed, this.held, dt)
      this.amps[index] = amps
      if (port) supplyAmps += port.supplyPerAmp * amps
    }
    const limited = Math.abs(supplyAmps) > feed.limitAmps
    // Constant current: the supply gives way within a few steps and comes back as gently.
    if (limited) this.effective *= feed.limitAmps / Math.abs(supplyAmps)
    else if (this.effective < 1) this.effective = Math.min(1, this.effective * 1.02 + 1e-4)
    this.seconds += dt
    const [leading] = motors
    if (!this.options.onStand && leading) {
      const travel = this.train.wheels.find((wheel) => wheel.travelPerRadian !== null)?.travelPerRadian ?? 0
      this.travelled += travel * leading.load.trainSpeed * dt
    }
    this.volts = volts
    this.supplyAmps = supplyAmps
    this.limited = limited || this.effective < 0.98
    this.ports = ports
    if (this.relays.none) return
    const moved = this.relays.step(this.switches, this.coilVolts, feed.hertz, this.seconds, dt)
    if (moved) this.switches = { ...this.switches, ...moved }
  }

  private readonly coilVolts = (coil: string): number => this.voltsAcross(coil)

  /** V across a lamp or coil now, by superposition of the supply and every winding; 0 where nothing reaches it. */
  private voltsAcross(component: string): number {
    const { ports, amps } = this
    if (this.sharesOf !== ports) {
      this.sharesOf = ports
      this.shares.clear()
    }
    let shares = this.shares.get(component)
    if (!shares) {
      shares = [
        ports[0]?.across.get(component)?.perVolt ?? 0,
        ...ports.map((port) => port.across.get(component)?.perAmp ?? 0),
      ]
      this.shares.set(component, shares)
    }
    let volts = (shares[0] ?? 0) * this.volts
    for (let index = 0; index < amps.length; index++) volts += (shares[index + 1] ?? 0) * (amps[index] as number)
    return volts
  }
}

function need<T extends { readonly id: string }>(list: readonly T[], id: string): T {
  const found = list.find((entry) => entry.id === id)
  if (!found) throw new RangeError(`There is no “${id}” in this engine.`)
  return found
}
