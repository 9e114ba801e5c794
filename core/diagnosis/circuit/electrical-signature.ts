import { Circuit } from '../../engine/circuit'
import { conductanceOf } from '../../engine/component-conductance'
import type { ArmatureDefect, DamagedArmature } from '../../engine/damaged-armature'
import type { CircuitComponent, ComponentState, EngineDescription, Motor } from '../../engine/description-schema'
import { DECODER_SWITCH, hasDecoder } from '../../engine/fit-decoder'
import { PatternedNetwork, UNJOINED_OHMS } from '../../engine/patterned-network'
import { settleWithin, type ElectricMotor, type SourceResponse } from '../../engine/motor-balance'
import { runningPositions } from '../../engine/pickup-map'
import { refitted } from '../../engine/refit'
import { ArmatureDamages, caught } from './armature-damage'
import { POOR_SUPPLY_OHMS, supplies, SUPPLY_OHMS, type BenchSupply } from './bench-supply'
import { functionsOf, programmingOf, type Functions, type Programming } from './decoder-says'
import { measuringPorts, type Feed, type MeasuringPorts, type Port } from './measuring-ports'

/** What a run shows, as the machine would show it to a meter. */
export interface Run {
  readonly amps: number
  readonly limited: boolean
  /** Slowest motor's speed against a sound engine's; 0 where it stands. */
  readonly speed: number
  /** The same of every motor that is supplied, in the description's order. */
  readonly speeds: readonly number[]
  /** −1 where the first motor turns against the sound engine's way. */
  readonly way: number
  readonly motorVolts: number
  /** Share of the starts at which a motor stands where its armature has no pull, and whether the supply gives way then. */
  readonly catches: number
  /** Chance that friction at rest holds such a motor at every other start as well. */
  readonly sticks: number
  readonly caughtTrips: boolean
  /** Power of every lamp against a sound engine's, in the description's order. */
  readonly lamps: readonly number[]
  /** What a decoder gets to run itself, its power as a share of a sound engine's; 0 without one. */
  readonly decoder: number
}

/** Everything a meter could read with these things wrong, and nothing coming and going; each worked out when it is first asked for. */
export interface Signature {
  /** Undefined where the engine cannot be fed so. */
  run(feed: Feed): Run | undefined
  readonly railOhms: number
  readonly motorOhms: readonly number[]
  /** Ω from a wheel on each side of each place to the motor lead of its pole, the engine off the track; by the place's first component. */
  readonly wheelOhms: ReadonlyMap<string, readonly number[]>
  /** Null without a decoder. */
  readonly programming: Programming | null
  /** Whether a decoder hears what its functions are told, and how often a lamp stays dark all the same; null without one. */
  readonly functions: Functions | null
  /** Share of the places an armature may stand in at which an ohmmeter finds its winding shorted. */
  readonly shortedShare: number
}

/** What is wrong, as the circuit takes it. */
/** As the description has them, and a little of what passes badly. */
export type ShownState = ComponentState | 'some-resistance'

export interface ElectricalFault {
  readonly states?: Readonly<Record<string, ShownState>>
  readonly magnets?: Readonly<Record<string, number>>
  /** Dry friction added, in times the motor's own. */
  readonly drag?: number
  /** Motors the train hangs loose of. */
  readonly relieved?: readonly string[]
  readonly armature?: { readonly motor: string; readonly defect: ArmatureDefect }
  readonly turned?: string
  readonly supply?: 'open' | 'high-resistance'
  /** What a decoder still runs on. */
  readonly decoderRunsOn?: readonly ('dc' | 'dcc')[]
  /** Its functions obey though it does not run. */
  readonly functionsObey?: true
  /** How often a lamp stays dark at its function for it. */
  readonly functionDark?: number
}

/** Of the friction a motor turns against with its train, so much is its own; from memory. */
const OWN_FRICTION_SHARE = 0.5
/** As far as a supply gives way; the last digits decide nothing here. */
const HALVINGS = 10
const NO_OHMS = Number.POSITIVE_INFINITY

/** The circuit with what is refitted the other way round, and its conductances by the decoder's position. */
interface Assembled {
  readonly circuit: Circuit
  readonly network: PatternedNetwork
  readonly magnets: Readonly<Record<string, number>>
  readonly conductances: ReadonlyMap<DecoderPosition, Float64Array>
  /** Those the network was factorised for last. */
  taken: Float64Array | null
}
interface Condition {
  readonly conductances: Float64Array
  readonly motors: readonly ConditionedMotor[]
}
type DecoderPosition = 'straight' | 'silent'

/** A motor as one condition leaves it. */
interface ConditionedMotor {
  readonly electric: ElectricMotor
  readonly port: Port
  readonly field: Port | null
  readonly fieldConductance: number
  readonly damage: DamagedArmature
  /** Of the sound armature, S. */
  readonly soundConductance: number
  /** What one volt of its back-EMF does to every node. */
  readonly perEmf: Float64Array
}

/**
 * Solves an engine's circuit for what is wrong with it and says what every meter and every supply would show. One
 * factorisation serves all ports of a condition.
 */
export class SignatureSolver {
  private readonly decoder: boolean
  private readonly bench: BenchSupply
  private readonly assembled = new Map<string, Assembled>()
  private readonly ports: MeasuringPorts
  private readonly healthySpeed = new Map<Feed, readonly number[]>()
  private readonly healthyLamps = new Map<Feed, readonly number[]>()
  private readonly healthyDecoder = new Map<Feed, number>()
  readonly healthy: Signature
  private soundKnown = false
  private readonly damages = new ArmatureDamages()

  /**
   * @param description the engine
   * @param treadPlaces components of each place whose wheels are measured to the motor's lead
   */
  constructor(
    private readonly description: EngineDescription,
    treadPlaces: ReadonlyArray<readonly string[]>,
  ) {
    this.decoder = hasDecoder(description)
    this.bench = supplies[description.power]
    this.ports = measuringPorts(description, this.assemble([]).circuit, treadPlaces)
    this.healthy = this.solve([])
    for (const feed of this.ports.feeds.keys()) this.healthy.run(feed)
    this.soundKnown = true
  }

  solve(faults: readonly ElectricalFault[]): Signature {
    const { ports } = this
    const assembled = this.assemble(faults.flatMap((fault) => (fault.turned ? [fault.turned] : [])))
    const { circuit, network } = assembled
    const runsOn = (power: 'dc' | 'dcc'): boolean =>
      this.decoder && faults.every((fault) => !fault.decoderRunsOn || fault.decoderRunsOn.includes(power))
    const silent = once(() => this.conditioned(assembled, 'silent', faults))
    const straight = once(() => this.conditioned(assembled, 'straight', faults))
    const bypassed = once(() => this.conditioned(assembled, 'silent', faults, ports.bypass))
    // An ohmmeter wakes no decoder, and turns no armature: it meets the short circuit of a coil or it does not.
    const measured = once(() =>
      faults.some(({ armature }) => armature)
        ? this.conductances(assembled, 'silent', faults, {}, 'at-rest')
        : silent().conductances,
    )
    const offTheRails = once(() => {
      const apart = measured().slice()
      for (const index of ports.railComponents) apart[index] = 0
      return apart
    })
    const ohmsOf = (conductances: Float64Array, port: Port): number => {
      take(assembled, conductances)
      return ohms(network, port)
    }
    const runs = new Map<Feed, Run>()
    const railOhms = once(() => ohmsOf(measured(), ports.rails))
    const motorOhms = once(() => ports.terminals.map((port) => (port ? ohmsOf(offTheRails(), port) : NO_OHMS)))
    const wheelOhms = once(
      () => new Map([...ports.wheels].map(([id, wheels]) => [id, wheels.map((port) => ohmsOf(offTheRails(), port))])),
    )
    const programming = once(() =>
      this.decoder ? programmingOf(ohmsOf(straight().conductances, ports.rails), railOhms(), faults) : null,
    )
    const shortedShare = once(() =>
      Math.max(0, ...circuit.motors.map((entry) => this.damageOf(circuit, entry, faults).shortedShare)),
    )
    return {
      run: (feed) => {
        const known = runs.get(feed)
        if (known || !ports.feeds.has(feed)) return known
        const condition =
          feed === 'decoder-bypassed' ? bypassed() : runsOn(feed === 'dcc-track' ? 'dcc' : 'dc') ? straight() : silent()
        const run = this.run(feed, assembled, condition, faults)
        runs.set(feed, run)
        return run
      },
      get railOhms() {
        return railOhms()
      },
      get motorOhms() {
        return motorOhms()
      },
      get wheelOhms() {
        return wheelOhms()
      },
      get programming() {
        return programming()
      },
      functions: this.decoder ? functionsOf(faults) : null,
      get shortedShare() {
        return shortedShare()
      },
    }
  }

  private assemble(turned: readonly string[]): Assembled {
    const key = [...turned].sort().join()
    const known = this.assembled.get(key)
    if (known) return known
    const { description, magnets } = refitted(
      this.description,
      this.description.turnables.filter((entry) => turned.includes(entry.id)),
    )
    const circuit = new Circuit(description)
    const switches = runningPositions(this.description)
    const made: Assembled = {
      circuit,
      magnets,
      taken: null,
      network: new PatternedNetwork(
        circuit.nodeIds.length,
        circuit.components.map((_, index) => circuit.endsOf(index)),
      ),
      conductances: new Map(
        (['straight', 'silent'] as const).map((position) => [
          position,
          Float64Array.from(
            circuit.branches({ switches: this.decoder ? { ...switches, [DECODER_SWITCH]: position } : switches }),
            (branch) => branch.conductance,
          ),
        ]),
      ),
    }
    this.assembled.set(key, made)
    return made
  }

  private conductances(
    { circuit, conductances }: Assembled,
    position: DecoderPosition,
    faults: readonly ElectricalFault[],
    besides: Readonly<Record<string, ComponentState>> = {},
    armatures: 'turning' | 'at-rest' = 'turning',
  ): Float64Array {
    const base = conductances.get(position) as Float64Array
    const found = base.slice()
    const worst = new Map<string, ShownState>()
    for (const { states = {} } of faults)
      for (const id in states) worst.set(id, worse(worst.get(id), states[id] as ShownState))
    for (const [id, state] of [...worst, ...Object.entries(besides)]) {
      const index = circuit.component(id)
      const component = circuit.components[index]
      // What a switch has cut off stays cut off, whatever is wrong with it.
      const cutOff = component?.closedIn !== null && base[index] === 0
      if (component && !cutOff) found[index] = shownConductance(component, state)
    }
    for (const entry of circuit.motors) {
      const { conductanceTimes, leakTimes, ohmsTimes } = this.damageOf(circuit, entry, faults)
      found[entry.armature] =
        (found[entry.armature] as number) *
        (armatures === 'turning' ? conductanceTimes * (1 + leakTimes) : 1 / ohmsTimes)
    }
    return found
  }

  /** Conductances of a condition with its motors. */
  private conditioned(
    assembled: Assembled,
    position: DecoderPosition,
    faults: readonly ElectricalFault[],
    besides: Readonly<Record<string, ComponentState>> = {},
  ): Condition {
    const conductances = this.conductances(assembled, position, faults, besides)
    take(assembled, conductances)
    return { conductances, motors: this.motorsOf(assembled, conductances, faults) }
  }

  private motorsOf(
    { circuit, network, magnets }: Assembled,
    conductances: Float64Array,
    faults: readonly ElectricalFault[],
  ): ConditionedMotor[] {
    const drag = faults.reduce((sum, fault) => sum + (fault.drag ?? 0), 0)
    const shorted = (id: string | null): boolean =>
      id !== null && faults.some((fault) => fault.states?.[id] === 'shorted')
    const relieved = new Set(faults.flatMap((fault) => fault.relieved ?? []))
    return circuit.motors.map(({ motor, armature, field }): ConditionedMotor => {
      const own = relieved.has(motor.id) ? OWN_FRICTION_SHARE : 1
      const [from, to] = circuit.endsOf(armature)
      const strength = faults.reduce(
        (product, fault) => product * (fault.magnets?.[motor.id] ?? 1),
        magnets[motor.id] ?? 1,
      )
      const dead = shorted(motor.armature) || shorted(motor.field)
      const damage = this.damageOf(circuit, { motor, armature }, faults)
      // What goes past the winding makes no torque.
      const conductance = (conductances[armature] as number) / (1 + damage.leakTimes)
      return {
        electric: {
          id: motor.id,
          armature,
          field,
          conductance,
          backEmf: dead ? 0 : motor.backEmf * strength * damage.backEmfTimes,
          coulombTorque: motor.coulombTorque * (own + drag),
          viscousTorque: motor.viscousTorque * own,
        },
        port: { from, to },
        field: field === null ? null : { from: circuit.endsOf(field)[0], to: circuit.endsOf(field)[1] },
        fieldConductance: field === null ? 0 : (conductances[field] as number),
        damage,
        soundConductance: conductance / damage.conductanceTimes,
        perEmf: network.potentials(from, to, conductance),
      }
    })
  }

  private damageOf(
    circuit: Circuit,
    { motor, armature }: { readonly motor: Motor; readonly armature: number },
    faults: readonly ElectricalFault[],
  ): DamagedArmature {
    return this.damages.of(
      motor,
      circuit.components[armature]?.ohms ?? 0,
      faults.flatMap((fault) => (fault.armature?.motor === motor.id ? [fault.armature.defect] : [])),
    )
  }

  private run(
    feed: Feed,
    assembled: Assembled,
    { conductances, motors }: Condition,
    faults: readonly ElectricalFault[],
  ): Run {
    const { circuit, network } = assembled
    take(assembled, conductances)
    const supply = this.ports.feeds.get(feed) as Port
    const outside = supply === this.ports.rails ? faults.find((fault) => fault.supply)?.supply : undefined
    const { limitAmps } = this.bench
    const source = outside === 'open' ? 0 : this.bench.volts
    const perAmp = network.potentials(supply.from, supply.to, 1)
    const connected = across(perAmp, supply) < UNJOINED_OHMS
    // Norton sources at the armatures; the supply with its own resistance closes the loop.
    const loop = connected
      ? 1 / (across(perAmp, supply) + (outside === 'high-resistance' ? POOR_SUPPLY_OHMS : SUPPLY_OHMS))
      : 0
    const loopPerEmf = motors.map(({ perEmf }) => (connected ? -across(perEmf, supply) * loop : 0))
    const voltsPerVolt = (port: Port): number => loop * across(perAmp, port)
    const voltsPerEmf = (port: Port): number[] =>
      motors.map(({ perEmf }, index) => across(perEmf, port) + (loopPerEmf[index] as number) * across(perAmp, port))
    const response = responseOf(motors, voltsPerVolt, voltsPerEmf)
    const electric = motors.map((entry) => entry.electric)
    const ampsAt = (volts: number, emfs: readonly number[]): number =>
      emfs.reduce((sum, emf, index) => sum + emf * (loopPerEmf[index] as number), volts * loop)
    const balance = settleWithin(electric, response, { volts: source, limitAmps }, ampsAt, HALVINGS)
    const { volts, limited, speeds } = balance
    const voltsAt = (port: Port): number =>
      voltsPerEmf(port).reduce(
        (sum, perEmf, index) => sum + perEmf * (balance.backEmfs[index] as number),
        voltsPerVolt(port) * volts,
      )
    const wattsIn = (component: number): number => {
      const [from, to] = circuit.endsOf(component)
      return connected ? voltsAt({ from, to }) ** 2 * (conductances[component] as number) : 0
    }
    const lampWatts = this.ports.lamps.map(wattsIn)
    const decoderWatts = this.ports.decoderOwn >= 0 ? wattsIn(this.ports.decoderOwn) : 0
    if (!this.soundKnown) {
      this.healthySpeed.set(feed, speeds)
      this.healthyDecoder.set(feed, decoderWatts)
      this.healthyLamps.set(feed, lampWatts)
    }
    const sound = this.healthySpeed.get(feed) ?? []
    // Supplied at one motor's own terminals, only that motor is judged.
    const judged = feed === 'terminals' || feed === 'brushes' ? speeds.slice(0, 1) : speeds
    const [terminals] = this.ports.terminals
    const joined = (port: Port): number => (joins(network, port, supply) ? source : 0)
    const turning = speeds.some((speed) => speed !== 0)
    const shares = judged.map((speed, index) => Math.abs(speed) / Math.max(1e-9, Math.abs(sound[index] ?? 0)))
    return {
      amps: Math.abs(ampsAt(volts, balance.backEmfs)),
      limited,
      speeds: shares,
      speed: shares.length === 0 ? 0 : Math.min(...shares),
      ...this.caughtAtStart(motors, (port) => Math.abs(voltsPerVolt(port) * source), turning),
      way: (speeds[0] ?? 0) * (sound[0] ?? 0) < 0 ? -1 : 1,
      motorVolts: terminals ? (connected ? Math.abs(voltsAt(terminals)) : joined(terminals)) : 0,
      decoder: decoderWatts / Math.max(1e-9, this.healthyDecoder.get(feed) ?? 0),
      lamps: lampWatts.map((watts, lamp) => watts / Math.max(1e-9, this.healthyLamps.get(feed)?.[lamp] ?? 0)),
    }
  }

  /** How a machine that turns is held where its armature has no pull. */
  private caughtAtStart(
    motors: readonly ConditionedMotor[],
    voltsAt: (port: Port) => number,
    turning: boolean,
  ): Pick<Run, 'catches' | 'sticks' | 'caughtTrips'> {
    const held = motors.map(({ electric, soundConductance, damage, port }) =>
      caught(damage, {
        volts: voltsAt(port),
        limitAmps: this.bench.limitAmps,
        siemens: soundConductance,
        backEmf: Math.abs(electric.backEmf),
        woundField: electric.field !== null,
        coulombTorque: electric.coulombTorque,
      }),
    )
    return {
      catches: turning ? Math.max(0, ...held.map(({ share }) => share)) : 0,
      sticks: turning ? Math.max(0, ...held.map(({ sticking }) => sticking)) : 0,
      caughtTrips: held.some(({ trips }) => trips),
    }
  }
}

/** How the current of every armature and field answers to the supply and to each back-EMF. */
function responseOf(
  motors: readonly ConditionedMotor[],
  voltsPerVolt: (port: Port) => number,
  voltsPerEmf: (port: Port) => readonly number[],
): SourceResponse {
  return {
    armature: motors.map(({ electric: { conductance }, port }, index) => ({
      perSupplyVolt: conductance * voltsPerVolt(port),
      perBackEmf: voltsPerEmf(port).map((value, other) => conductance * (value - (other === index ? 1 : 0))),
    })),
    field: motors.map(({ field, fieldConductance }) =>
      field
        ? {
            perSupplyVolt: fieldConductance * voltsPerVolt(field),
            perBackEmf: voltsPerEmf(field).map((value) => fieldConductance * value),
          }
        : null,
    ),
  }
}

const gravity: readonly ShownState[] = ['good', 'some-resistance', 'high-resistance', 'shorted', 'open']

/** Of what passes badly enough to stop a motor, so much is left where it only runs slower: a few volts of twelve; from memory. */
const SOME_OF_HIGH = 1 / 4

function shownConductance(component: CircuitComponent, state: ShownState): number {
  if (state !== 'some-resistance') return conductanceOf(component, state)
  const high = 1 / conductanceOf(component, 'high-resistance')
  return 1 / Math.max(component.ohms ?? 0, SOME_OF_HIGH * high)
}

/** Of two things wrong with one piece the worse shows, whichever is named first. */
function worse(one: ShownState | undefined, other: ShownState): ShownState {
  return one !== undefined && gravity.indexOf(one) > gravity.indexOf(other) ? one : other
}

/** One network is asked many things: it is factorised anew only for other conductances. */
function take(assembled: Assembled, conductances: Float64Array): void {
  if (assembled.taken === conductances) return
  assembled.network.factorise(conductances)
  assembled.taken = conductances
}

/** Worked out when it is first asked for. */
function once<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null
  return () => (made ??= { value: make() }).value
}

function across(potentials: Float64Array, { from, to }: Port): number {
  return (potentials[from] as number) - (potentials[to] as number)
}

/** Whether two points hang on the two poles of a supply, one on each: without a current a voltmeter there reads the supply. */
function joins(network: PatternedNetwork, points: Port, supply: Port): boolean {
  const joined = (from: number, to: number): boolean => from === to || ohms(network, { from, to }) < UNJOINED_OHMS
  return (
    (joined(points.from, supply.from) && joined(points.to, supply.to)) ||
    (joined(points.from, supply.to) && joined(points.to, supply.from))
  )
}

function ohms(network: PatternedNetwork, { from, to }: Port): number {
  const found = across(network.potentials(from, to, 1), { from, to })
  return found < UNJOINED_OHMS ? found : NO_OHMS
}
