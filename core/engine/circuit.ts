import { conductanceOf } from './component-conductance'
import type { CircuitComponent, ComponentState, EngineDescription, Motor } from './description-schema'
import { LinearNetwork, type Branch } from './linear-network'

/** How the engine stands when it is asked: what is wrong, where its switches are, what is turned. */
export interface Condition {
  /** States by component; what is not named is good. */
  readonly states?: Readonly<Record<string, ComponentState>>
  /** Positions by switch; what is not named is at rest. */
  readonly switches?: Readonly<Record<string, string>>
  /** Magnet strength by motor against a sound one; negative when the magnet is turned. */
  readonly magnets?: Readonly<Record<string, number>>
  /** Outside load at the motor's shaft, N·m, by motor. */
  readonly loads?: Readonly<Record<string, number>>
  /** The moment an intermittent contact makes instead of the moment it fails. */
  readonly intermittentsMake?: boolean
}

/** A supply clamped to two nodes. */
export interface Applied {
  readonly plus: string
  readonly minus: string
  readonly volts: number
  /** Inner resistance with its leads, Ω. */
  readonly ohms?: number
  /** Where the supply turns to constant current, A. */
  readonly limitAmps?: number
}

export interface CircuitMotor {
  readonly motor: Motor
  readonly armature: number
  readonly field: number | null
}

/** A description's circuit with its names looked up once, ready to be asked many times. */
export class Circuit {
  readonly nodeIds: readonly string[]
  readonly components: readonly CircuitComponent[]
  readonly motors: readonly CircuitMotor[]
  private readonly nodeIndex: ReadonlyMap<string, number>
  private readonly componentIndex: ReadonlyMap<string, number>
  private readonly ends: ReadonlyArray<readonly [number, number]>
  private readonly rests: ReadonlyMap<string, string>

  /** @throws RangeError naming the node or component that a component or motor points at and that is not there */
  constructor(readonly description: EngineDescription) {
    this.nodeIds = description.nodes.map((node) => node.id)
    this.components = description.components
    this.nodeIndex = new Map(this.nodeIds.map((id, index) => [id, index]))
    this.componentIndex = new Map(this.components.map((component, index) => [component.id, index]))
    this.ends = this.components.map((component) => [this.node(component.from), this.node(component.to)] as const)
    this.rests = new Map(description.switches.map((entry) => [entry.id, entry.rest]))
    this.motors = description.motors.map((motor) => ({
      motor,
      armature: this.component(motor.armature),
      field: motor.field === null ? null : this.component(motor.field),
    }))
  }

  node(id: string): number {
    const index = this.nodeIndex.get(id)
    if (index === undefined)
      throw new RangeError(`There is no point “${id}” in the circuit of ${this.description.name}.`)
    return index
  }

  component(id: string): number {
    const index = this.componentIndex.get(id)
    if (index === undefined)
      throw new RangeError(`There is no component “${id}” in the circuit of ${this.description.name}.`)
    return index
  }

  endsOf(component: number): readonly [number, number] {
    return this.ends[component] as readonly [number, number]
  }

  stateOf(component: number, condition: Condition): ComponentState {
    const state = condition.states?.[(this.components[component] as CircuitComponent).id] ?? 'good'
    return state === 'intermittent' && condition.intermittentsMake ? 'good' : state
  }

  /** Conductances of all components in this condition, in their order. */
  branches(condition: Condition): Branch[] {
    return this.components.map((component, index) => {
      const [from, to] = this.endsOf(index)
      const { closedIn } = component
      const away =
        closedIn !== null &&
        !closedIn.positions.includes(condition.switches?.[closedIn.switch] ?? this.rests.get(closedIn.switch) ?? '')
      return { from, to, conductance: away ? 0 : conductanceOf(component, this.stateOf(index, condition)) }
    })
  }

  /** The network in this condition with further branches, such as a supply's own resistance. */
  network(branches: readonly Branch[]): LinearNetwork {
    return new LinearNetwork(this.nodeIds.length, branches)
  }
}

/** States of an engine lying on the bench: no wheel, roller or shoe touches a rail. */
export function offTheTrack(description: EngineDescription): Record<string, ComponentState> {
  const treads = [
    ...description.wheelSets.flatMap((wheelSet) => [wheelSet.left.tread, wheelSet.right.tread]),
    ...description.centrePickups.map((pickup) => pickup.tread),
  ]
  return Object.fromEntries(treads.flatMap((tread) => (tread === null ? [] : [[tread, 'open' as const]])))
}

/** Ohms of a meter's own lead and the smallest current it can tell from none. */
const TEST_OHMS = 1
const NO_CURRENT = 1e-9

/**
 * What an ohmmeter reads between two nodes; its small current turns no motor.
 *
 * @returns Ω, Infinity where nothing passes
 * @example ohmsBetween(new Circuit(describeConstruction('tank-can')), {}, 'motor.plus', 'motor.minus') // 22.95
 */
export function ohmsBetween(circuit: Circuit, condition: Condition, first: string, second: string): number {
  const [from, to] = [circuit.node(first), circuit.node(second)]
  if (from === to) return 0
  const network = circuit.network([...circuit.branches(condition), { from, to, conductance: 1 / TEST_OHMS }])
  const injected = new Float64Array(circuit.nodeIds.length)
  injected[from] = 1 / TEST_OHMS
  injected[to] = -1 / TEST_OHMS
  const potentials = network.potentials(injected)
  const volts = (potentials[from] as number) - (potentials[to] as number)
  const amps = (1 - volts) / TEST_OHMS
  return amps < NO_CURRENT ? Number.POSITIVE_INFINITY : volts / amps
}
