import type { Circuit } from '../../engine/circuit'
import type { ComponentState, EngineDescription } from '../../engine/description-schema'
import { hasDecoder } from '../../engine/fit-decoder'
import { polesOf } from '../../engine/poles'

/** Where a supply is put for a run. */
export type Feed =
  'track' | 'wheels' | 'pickups' | 'motor-leads' | 'terminals' | 'brushes' | 'dcc-track' | 'decoder-bypassed'

/** Two points of the network at which something is put on or read. */
export interface Port {
  readonly from: number
  readonly to: number
}

/** Where supplies and meters are put on an engine's circuit. */
export interface MeasuringPorts {
  readonly rails: Port
  /** Where it can be supplied at all. */
  readonly feeds: ReadonlyMap<Feed, Port>
  /** Of each motor. */
  readonly terminals: ReadonlyArray<Port | null>
  /** From a wheel on each side of each place to the motor lead of its pole; by the place's first component. */
  readonly wheels: ReadonlyMap<string, readonly Port[]>
  /** Treads, rollers and shoes: what leaves the rails when the engine is lifted. */
  readonly railComponents: readonly number[]
  /** What joins rail and motor leads past the decoder. */
  readonly bypass: Readonly<Record<string, ComponentState>>
  /** Components that are lamps, in the description's order. */
  readonly lamps: readonly number[]
  /** The component that stands for what a decoder draws itself; −1 without one. */
  readonly decoderOwn: number
}

/**
 * @param description the engine
 * @param circuit of it, put together as it should be
 * @param treadPlaces components of each place whose wheels are measured to the motor's lead
 */
export function measuringPorts(
  description: EngineDescription,
  circuit: Circuit,
  treadPlaces: ReadonlyArray<readonly string[]>,
): MeasuringPorts {
  const decoder = hasDecoder(description)
  const component = (id: string | undefined) => description.components.find((entry) => entry.id === id)
  const port = (first: string | undefined, second: string | undefined): Port | null =>
    first && second && first !== second ? { from: circuit.node(first), to: circuit.node(second) } : null
  const { plus, minus } = description.rails
  const rails = port(plus, minus) as Port
  const terminals = description.motors.map((motor) =>
    port(component(motor.feeds.plus)?.to, component(motor.feeds.minus)?.to),
  )
  const poles = polesOf(description)
  const [motor] = description.motors
  const leads = description.decoder ?? {
    plus: component(motor?.feeds.plus)?.from,
    minus: component(motor?.feeds.minus)?.from,
  }
  const rims = rimsOf(description, treadPlaces, poles)
  // One wheel on each side stands for its fellows: they share wipers, strip and lead.
  const wheels = new Map<string, Port[]>()
  for (const { first, rim, pole } of rims.filter(
    (entry, index) => rims.findIndex((other) => other.first === entry.first && other.pole === entry.pole) === index,
  )) {
    const found = port(rim, leads[pole])
    if (found) wheels.set(first, [...(wheels.get(first) ?? []), found])
  }
  const rimOf = (pole: 'plus' | 'minus'): string | undefined => rims.find((entry) => entry.pole === pole)?.rim
  const pickupOf = (pole: 'plus' | 'minus'): string | undefined =>
    description.nodes.find((node) => node.stage === 'pickup' && poles.get(node.id) === pole)?.id
  const brushes = description.components.filter((entry) => entry.kind === 'brush' && motor && entry.of === motor.id)
  // A wound field is fed apart from the brushes: a supply there alone turns nothing.
  const magnetMotor = motor?.field === null
  const ports: Array<readonly [Feed, Port | null]> = [
    ['track', rails],
    ['wheels', port(rimOf('plus'), rimOf('minus'))],
    ['pickups', port(pickupOf('plus'), pickupOf('minus'))],
    ['motor-leads', magnetMotor ? port(component(motor.feeds.plus)?.from, component(motor.feeds.minus)?.from) : null],
    ['terminals', magnetMotor ? (terminals[0] ?? null) : null],
    ['brushes', magnetMotor && motor.opens && brushes.length === 2 ? port(brushes[0]?.from, brushes[1]?.from) : null],
    ['dcc-track', decoder ? rails : null],
    ['decoder-bypassed', decoder ? rails : null],
  ]
  return {
    rails,
    terminals,
    wheels,
    feeds: new Map(ports.flatMap(([feed, found]) => (found ? [[feed, found] as const] : []))),
    railComponents: description.components.flatMap(({ from, to }, index) =>
      [from, to].some((node) => node === plus || node === minus) ? [index] : [],
    ),
    bypass: Object.fromEntries(
      description.components
        .filter(({ role }) => role === 'decoder-separation')
        .map(({ id }) => [id, 'shorted' as const]),
    ),
    decoderOwn: description.components.findIndex(({ kind, closedIn }) => kind === 'decoder' && closedIn === null),
    lamps: description.components.flatMap((entry, index) => (entry.lamp === null ? [] : [index])),
  }
}

/** Every rim that is measured, with its pole and the first component of its place. */
function rimsOf(
  description: EngineDescription,
  treadPlaces: ReadonlyArray<readonly string[]>,
  poles: ReturnType<typeof polesOf>,
): ReadonlyArray<{ readonly first: string; readonly rim: string; readonly pole: 'plus' | 'minus' }> {
  const { plus, minus } = description.rails
  return treadPlaces.flatMap((components) =>
    components.flatMap((id) => {
      const tread = description.components.find((entry) => entry.id === id)
      const rim = tread && (tread.from === plus || tread.from === minus ? tread.to : tread.from)
      const pole = rim ? poles.get(rim) : undefined
      return rim && pole ? [{ first: components[0] as string, rim, pole }] : []
    }),
  )
}
