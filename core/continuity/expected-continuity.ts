import { Circuit, offTheTrack, ohmsBetween, type Condition } from '../engine/circuit'
import { stages, type EngineDescription } from '../engine/description-schema'
import { DECODER_SWITCH, hasDecoder } from '../engine/fit-decoder'
import { pickupMap, runningPositions, type PickupPoint } from '../engine/pickup-map'
import { polesOf, type Pole } from '../engine/poles'

/** What is measured at each wheel, in the order that lets each reading be believed. */
export const continuityColumns = ['rim', 'own', 'other', 'chassis'] as const
export type ContinuityColumn = (typeof continuityColumns)[number]

/** What a sound engine lets a meter read there. */
export type ExpectedReading =
  /** Metal all the way. */
  | { readonly kind: 'closed'; readonly ohms: number }
  | { readonly kind: 'open' }
  /** Through a motor, a lamp or a coil: neither open nor a short. */
  | { readonly kind: 'through'; readonly ohms: number }

export interface ContinuityWheel {
  /** The pickup point: driver-1.left, roller-front. */
  readonly point: string
  /** As it stands alone: “First coupled axle, left wheel”. */
  readonly name: string
  readonly unit: string
  readonly truck: string | null
  readonly rail: Pole | null
  readonly collects: boolean
  readonly tyre: boolean
  readonly expected: Readonly<Record<ContinuityColumn, ExpectedReading | null>>
}

export interface ContinuityPlan {
  /** Every metal wheel, roller and shoe; truck by truck, from the front. */
  readonly wheels: readonly ContinuityWheel[]
  /** Where the second probe goes, by column and wheel; null where there is nothing to touch. */
  readonly leads: Readonly<Record<Pole, string | null>>
}

/** A reading above this is no longer metal all the way: from memory, pickups of a sound machine measure well below. */
export const CLOSED_OHMS = 5

/**
 * What an ohmmeter reads from every wheel of this engine, sound and lifted off the track: to the lead of its own
 * rail, to the other lead, and to the frame. Through the motor the other lead is no open circuit: what is read there
 * is worked out from the circuit, so that a short can be told from a motor.
 *
 * @param description the engine
 * @example expectedContinuity(describeConstruction('tank-can')).wheels.length // 6
 */
export function expectedContinuity(description: EngineDescription): ContinuityPlan {
  const circuit = new Circuit(description)
  const switches = runningPositions(description)
  const condition: Condition = {
    states: offTheTrack(description),
    switches: hasDecoder(description) ? { ...switches, [DECODER_SWITCH]: 'silent' } : switches,
  }
  const leads = leadsOf(description)
  const read = (rim: string, node: string | null | undefined): ExpectedReading | null => {
    if (!node) return null
    const ohms = ohmsBetween(circuit, condition, rim, node)
    return ohms === Number.POSITIVE_INFINITY
      ? { kind: 'open' }
      : ohms < CLOSED_OHMS && metalAllTheWay(description, rim, node)
        ? { kind: 'closed', ohms }
        : { kind: 'through', ohms }
  }
  const wheels = pickupMap(description).flatMap((point): ContinuityWheel[] => {
    const tread = description.components.find((component) => component.id === point.component)
    if (!tread || point.rail === null) return []
    const rim = [tread.from, tread.to].find((node) => node !== description.rails[point.rail as Pole]) as string
    const other = point.rail === 'plus' ? 'minus' : 'plus'
    const frame = description.units.find((unit) => unit.id === point.unit)?.chassis?.[0]
    // Where the frame is one of the two leads there is nothing further to learn from it.
    const apart =
      frame !== undefined && !sameMetal(description, frame, leads.plus) && !sameMetal(description, frame, leads.minus)
    return [
      {
        point: point.id,
        name: nameOf(description, point),
        unit: point.unit,
        truck: point.truck,
        rail: point.rail,
        collects: point.collects,
        tyre: point.tyre,
        expected: {
          rim: { kind: 'closed', ohms: 0 },
          own: read(rim, leads[point.rail]),
          other: read(rim, leads[other]),
          chassis: apart ? read(rim, frame) : null,
        },
      },
    ]
  })
  const order = new Map(description.trucks.map((truck, index) => [truck.id as string | null, index]))
  return {
    wheels: [...wheels].sort((first, second) => (order.get(first.truck) ?? -1) - (order.get(second.truck) ?? -1)),
    leads,
  }
}

/** The node at which the lead of each rail can be probed: before the motor, or where the decoder's leads begin. */
function leadsOf(description: EngineDescription): Record<Pole, string | null> {
  const poles = polesOf(description)
  const [motor] = description.motors
  const lead = (pole: Pole): string | null => {
    const before = description.components.find((component) => component.id === motor?.feeds[pole])?.from
    const candidate = description.decoder?.[pole] ?? before
    if (candidate !== undefined && poles.get(candidate) === pole) return candidate
    // With a wound field in between, the last point that is still this rail's metal.
    const reached = description.nodes.filter(
      (node) => poles.get(node.id) === pole && !['rail', 'tread', 'wheel', 'brush', 'commutator'].includes(node.stage),
    )
    return reached.sort((first, second) => stages.indexOf(second.stage) - stages.indexOf(first.stage))[0]?.id ?? null
  }
  return { plus: lead('plus'), minus: lead('minus') }
}

/** Joined by metal alone: no motor, lamp or coil lies between. */
function metalAllTheWay(description: EngineDescription, from: string, to: string): boolean {
  const poles = polesOf({
    ...description,
    rails: { plus: from, minus: from },
    components: description.components.filter(
      (component) =>
        ![description.rails.plus, description.rails.minus].some(
          (rail) => component.from === rail || component.to === rail,
        ),
    ),
  })
  return poles.has(to)
}

function sameMetal(description: EngineDescription, node: string, lead: string | null): boolean {
  return lead !== null && (node === lead || metalAllTheWay(description, node, lead))
}

function nameOf(description: EngineDescription, point: PickupPoint): string {
  const wheelSet = description.wheelSets.find((entry) => point.id === `${entry.id}.${point.side}`)
  if (!wheelSet) return description.centrePickups.find((entry) => entry.id === point.id)?.name ?? point.id
  return `${wheelSet.name}, ${point.side} wheel`
}
