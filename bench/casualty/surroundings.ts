import { Circuit, type Condition } from '../../core/engine/circuit'
import type { ComponentState, EngineDescription } from '../../core/engine/description-schema'

/** Where a supply is clamped and what it is. */
export interface Clamp {
  readonly plus: string
  readonly minus: string
  /** Ω of the supply with its leads. */
  readonly ohms: number
}

/** Everything outside the windings as one motor's terminals see it, per volt of the supply. */
export interface Port {
  /** Open-circuit V at the winding per V of the supply. */
  readonly voltsPerVolt: number
  /** Ω behind the winding. */
  readonly ohms: number
  /** A of the supply per A of the winding, and per V with the windings open. */
  readonly supplyPerAmp: number
  readonly supplyPerVolt: number
  /** V across each lamp and each coil, per volt of the supply and per amp of this winding. */
  readonly across: ReadonlyMap<string, { readonly perVolt: number; readonly perAmp: number }>
}

/** Seen from a cut winding: high enough to be nothing, low enough to solve well, Ω. */
const CUT_OHMS = 1e7
const FIELD_SIEMENS = 1e3

/**
 * The engine's circuit reduced to what each winding sees, worked out anew only when a contact makes or breaks. By
 * superposition (Thévenin): the network is linear between the windings.
 */
export class Surroundings {
  private readonly circuit: Circuit
  private readonly known = new Map<string, readonly Port[]>()
  /** Step after step nothing changes: the same objects come again. */
  private latest: {
    clamp: Clamp
    broken: readonly string[]
    switches: Readonly<Record<string, string>>
    ports: readonly Port[]
  } | null = null

  constructor(
    private readonly description: EngineDescription,
    private readonly condition: Condition,
  ) {
    this.circuit = new Circuit(description)
  }

  /** What each motor's winding sees with these contacts broken besides what is wrong anyway. */
  ports(clamp: Clamp, broken: readonly string[], switches: Readonly<Record<string, string>>): readonly Port[] {
    const { latest } = this
    if (latest && latest.clamp === clamp && latest.broken === broken && latest.switches === switches)
      return latest.ports
    const key = [clamp.plus, clamp.minus, clamp.ohms, ...broken, '|', ...Object.values(switches)].join()
    const found = this.known.get(key) ?? this.workOut(key, clamp, broken, switches)
    this.latest = { clamp, broken, switches, ports: found }
    return found
  }

  private workOut(
    key: string,
    clamp: Clamp,
    broken: readonly string[],
    switches: Readonly<Record<string, string>>,
  ): readonly Port[] {
    const states: Record<string, ComponentState> = { ...this.condition.states }
    for (const id of broken) states[id] = 'open'
    const ports = this.description.motors.map((_, index) =>
      this.port(index, clamp, { ...this.condition, states, switches }),
    )
    this.known.set(key, ports)
    return ports
  }

  private port(index: number, clamp: Clamp, condition: Condition): Port {
    const { circuit } = this
    const motor = circuit.motors[index]
    if (!motor) throw new RangeError('There is no such motor.')
    // Windings are simulated apart: the armature is cut out, and a field in series with it belongs to the motor too.
    const branches = circuit.branches(condition).map((branch, place) => {
      if (circuit.motors.some((entry) => entry.armature === place)) return { ...branch, conductance: 0 }
      return circuit.motors.some((entry) => entry.field === place) && branch.conductance > 0
        ? { ...branch, conductance: FIELD_SIEMENS }
        : branch
    })
    const [from, to] = circuit.endsOf(motor.armature)
    const [plus, minus] = [circuit.node(clamp.plus), circuit.node(clamp.minus)]
    const supply = 1 / clamp.ohms
    const network = circuit.network([
      ...branches,
      { from: plus, to: minus, conductance: supply },
      { from, to, conductance: 1 / CUT_OHMS },
    ])
    const respond = (at: number, back: number, amps: number): Float64Array => {
      const injected = new Float64Array(circuit.nodeIds.length)
      injected[at] = (injected[at] as number) + amps
      injected[back] = (injected[back] as number) - amps
      return network.potentials(injected)
    }
    const ofVolt = respond(plus, minus, supply)
    const ofAmp = respond(from, to, -1)
    const across = (potentials: Float64Array, first: number, second: number): number =>
      (potentials[first] as number) - (potentials[second] as number)
    return {
      voltsPerVolt: across(ofVolt, from, to),
      ohms: Math.max(1e-3, -across(ofAmp, from, to)),
      supplyPerVolt: supply * (1 - across(ofVolt, plus, minus)),
      supplyPerAmp: -supply * across(ofAmp, plus, minus),
      across: new Map(
        this.description.components.flatMap((component, place) => {
          if ((!component.lamp && component.kind !== 'relay') || (branches[place]?.conductance ?? 0) === 0) return []
          const [first, second] = circuit.endsOf(place)
          return [
            [component.id, { perVolt: across(ofVolt, first, second), perAmp: across(ofAmp, first, second) }] as const,
          ]
        }),
      ),
    }
  }
}
