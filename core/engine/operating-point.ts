import type { Applied, Circuit, CircuitMotor, Condition } from './circuit'
import { settleWithin, type ElectricMotor, type SourceResponse } from './motor-balance'

export interface MotorPoint {
  readonly motor: string
  /** Armature current, A, positive from its `from` node to its `to` node. */
  readonly amps: number
  /** rad/s, signed as the armature turns. */
  readonly radPerSecond: number
  readonly volts: number
}

export interface OperatingPoint {
  readonly supplyAmps: number
  /** True when the supply could not hold its voltage. */
  readonly limited: boolean
  /** V at the supply's own terminals. */
  readonly supplyVolts: number
  /** V by node against the supply's minus; null where nothing connects it to the supply. */
  readonly nodeVolts: Readonly<Record<string, number | null>>
  /** A by component, positive from its `from` node to its `to` node. */
  readonly componentAmps: Readonly<Record<string, number>>
  readonly motors: readonly MotorPoint[]
  /** Power of each lamp against its rating. */
  readonly lamps: Readonly<Record<string, number>>
}

const SUPPLY_OHMS = 0.05
/** So often the interval is halved in which a supply's limit is met: to the last digit. */
const HALVINGS = 40

/**
 * The steady state of the engine's circuit on a supply: Kirchhoff's laws with every motor either held by its
 * friction or turning at the speed at which its torque and friction balance. Motors turn without each other's help
 * through the rails: as on a stand. An AC series motor is taken at its effective values, without reactance.
 *
 * @param circuit the engine's circuit
 * @param condition component states, switch positions, magnets and loads
 * @param applied where the supply is clamped and what it gives
 * @throws RangeError when the supply is clamped to a node that is not there
 * @example
 * operatingPoint(
 *   new Circuit(describeConstruction('tank-can')),
 *   {},
 *   { plus: 'motor.plus', minus: 'motor.minus', volts: 12 },
 * ).supplyAmps // 0.1731
 */
export function operatingPoint(circuit: Circuit, condition: Condition, applied: Applied): OperatingPoint {
  const plus = circuit.node(applied.plus)
  const minus = circuit.node(applied.minus)
  const supplyConductance = 1 / Math.max(applied.ohms ?? SUPPLY_OHMS, 1e-4)
  const branches = circuit.branches(condition)
  const network = circuit.network([...branches, { from: plus, to: minus, conductance: supplyConductance }])
  const size = circuit.nodeIds.length

  const respond = (from: number, to: number, amps: number): Float64Array => {
    const injected = new Float64Array(size)
    injected[from] = (injected[from] as number) + amps
    injected[to] = (injected[to] as number) - amps
    return network.potentials(injected)
  }

  // What one volt of the supply, and one volt of each armature's back-EMF, does to every node.
  const ofSupply = respond(plus, minus, supplyConductance)
  const motors = circuit.motors.map((entry) =>
    describeMotor(circuit, entry, condition, branches[entry.armature]?.conductance ?? 0),
  )
  const ofMotors = motors.map(({ armature, conductance }) => respond(...circuit.endsOf(armature), conductance))

  const response = responseOf(circuit, motors, branches, ofSupply, ofMotors)
  const supplyAmpsAt = (volts: number, backEmfs: readonly number[]): number =>
    supplyConductance *
    (volts -
      volts * across(ofSupply, [plus, minus]) -
      backEmfs.reduce((sum, emf, index) => sum + emf * across(ofMotors[index] as Float64Array, [plus, minus]), 0))

  const limitAmps = applied.limitAmps ?? Number.POSITIVE_INFINITY
  const balance = settleWithin(motors, response, { volts: applied.volts, limitAmps }, supplyAmpsAt, HALVINGS)
  const { volts } = balance

  const potentials = Float64Array.from(
    ofSupply,
    (value, node) =>
      value * volts +
      balance.backEmfs.reduce((sum, emf, index) => sum + emf * ((ofMotors[index] as Float64Array)[node] as number), 0),
  )
  const componentAmps = branches.map(
    ({ conductance }, index) => conductance * across(potentials, circuit.endsOf(index)),
  )
  motors.forEach(({ armature, conductance }, index) => {
    componentAmps[armature] = (componentAmps[armature] as number) - conductance * (balance.backEmfs[index] as number)
  })
  return {
    supplyAmps: supplyAmpsAt(volts, balance.backEmfs),
    limited: balance.limited,
    supplyVolts: across(potentials, [plus, minus]),
    nodeVolts: nodeVolts(circuit, network, potentials, minus),
    componentAmps: Object.fromEntries(
      circuit.components.map((component, index) => [component.id, componentAmps[index] as number]),
    ),
    motors: motors.map(({ id, armature }, index) => ({
      motor: id,
      amps: componentAmps[armature] as number,
      radPerSecond: balance.speeds[index] as number,
      volts: across(potentials, circuit.endsOf(armature)),
    })),
    lamps: lampShares(circuit, componentAmps, potentials),
  }
}

type Ends = readonly [from: number, to: number]

function across(potentials: Float64Array, [from, to]: Ends): number {
  return (potentials[from] as number) - (potentials[to] as number)
}

/** How the current of every armature and field answers to the supply and to each back-EMF, from what one volt of each does to the nodes. */
function responseOf(
  circuit: Circuit,
  motors: readonly ElectricMotor[],
  branches: ReturnType<Circuit['branches']>,
  ofSupply: Float64Array,
  ofMotors: readonly Float64Array[],
): SourceResponse {
  return {
    armature: motors.map(({ armature, conductance }, index) => ({
      perSupplyVolt: conductance * across(ofSupply, circuit.endsOf(armature)),
      perBackEmf: ofMotors.map(
        (potentials, other) => conductance * (across(potentials, circuit.endsOf(armature)) - (other === index ? 1 : 0)),
      ),
    })),
    field: motors.map(({ field }) => {
      if (field === null) return null
      const conductance = branches[field]?.conductance ?? 0
      return {
        perSupplyVolt: conductance * across(ofSupply, circuit.endsOf(field)),
        perBackEmf: ofMotors.map((potentials) => conductance * across(potentials, circuit.endsOf(field))),
      }
    }),
  }
}

function nodeVolts(
  circuit: Circuit,
  network: ReturnType<Circuit['network']>,
  potentials: Float64Array,
  minus: number,
): OperatingPoint['nodeVolts'] {
  const home = network.island[minus]
  const reference = potentials[minus] as number
  return Object.fromEntries(
    circuit.nodeIds.map((id, node) => [
      id,
      network.island[node] === home ? (potentials[node] as number) - reference : null,
    ]),
  )
}

function lampShares(
  circuit: Circuit,
  componentAmps: readonly number[],
  potentials: Float64Array,
): OperatingPoint['lamps'] {
  return Object.fromEntries(
    circuit.components.flatMap((component, index) => {
      if (!component.lamp) return []
      const watts = (componentAmps[index] as number) * across(potentials, circuit.endsOf(index))
      return [[component.id, watts / (component.lamp.volts * component.lamp.amps)] as const]
    }),
  )
}

function describeMotor(
  circuit: Circuit,
  { motor, armature, field }: CircuitMotor,
  condition: Condition,
  conductance: number,
): ElectricMotor {
  const state = circuit.stateOf(armature, condition)
  const fieldState = field === null ? 'good' : circuit.stateOf(field, condition)
  // A shorted winding carries current and pulls nothing: what it shorts no longer links the magnet.
  const strength = state === 'shorted' || fieldState === 'shorted' ? 0 : (condition.magnets?.[motor.id] ?? 1)
  return {
    id: motor.id,
    armature,
    field,
    conductance,
    backEmf: motor.backEmf * strength,
    coulombTorque: motor.coulombTorque + (condition.loads?.[motor.id] ?? 0),
    viscousTorque: motor.viscousTorque,
  }
}
