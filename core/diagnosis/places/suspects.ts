import { suspectId } from '../../knowledge/suspect-id'
import type { EngineDescription } from '../../engine/description-schema'
import {
  EXCHANGE_MOTOR,
  type Circumstance,
  type Fault,
  type Knowledge,
  type Remedy,
} from '../../knowledge/knowledge-schema'
import type { Place } from './places-of'
import { reachOf } from './places-of'

/** A fault at a place of this engine. */
export interface Suspect {
  readonly id: string
  readonly fault: Fault
  readonly place: Place
  /** As a sentence would name it. */
  readonly name: string
  /** Chance before any finding. */
  readonly prior: number
  readonly remedy: Remedy
  /** Suspects with the same key are mended together. */
  readonly mendedBy: string
  /** What must be off for the remedy. */
  readonly goal: readonly (readonly string[])[]
}

/** No place is so bad that a fault there is taken for granted. */
const HIGHEST_PRIOR = 0.6
const LOWEST_PRIOR = 1e-5

/**
 * Every fault of the knowledge at every place of the engine where it can be.
 *
 * @param description the engine
 * @param places of the engine
 * @param knowledge checked
 * @param circumstances what is known of its past
 * @param learned factors on the odds by fault id, from the shop's own confirmed faults
 */
export function suspectsOf(
  description: EngineDescription,
  places: readonly Place[],
  knowledge: Knowledge,
  circumstances: ReadonlySet<Circumstance>,
  learned: Readonly<Record<string, number>> = {},
): Suspect[] {
  const remedies = new Map(knowledge.remedies.map((remedy) => [remedy.id, remedy]))
  return knowledge.faults.flatMap((fault) =>
    places
      .filter((place) => place.role === fault.role && canHave(description, fault, place))
      .map((place): Suspect => {
        const closed = fromOutside.has(fault.remedy) ? null : closedMotorOf(description, place)
        const remedy = remedies.get(closed ? EXCHANGE_MOTOR : fault.remedy) as Remedy
        return {
          id: suspectId(fault.id, place.id),
          fault,
          place,
          name: fault.name.replace('{place}', place.name),
          prior: priorOf(fault, circumstances, learned),
          remedy,
          mendedBy: `${remedy.id}@${closed ?? mendedAt(place, places)}`,
          goal: reachOf(description, place, remedy.reach) ?? reachOf(description, place, 'motor-out') ?? [],
        }
      }),
  )
}

/** What is wrong inside a motor that does not open is one thing to whoever mends it: the motor is exchanged. Its bearings are oiled, and its armature worked loose, from outside all the same. */
const fromOutside: ReadonlySet<string> = new Set(['oil-bearings', 'free-armature'])
const inside: ReadonlySet<Place['role']> = new Set([
  'brushes',
  'brush-springs',
  'gaps',
  'winding',
  'winding-insulation',
  'motor',
])

function closedMotorOf(description: EngineDescription, place: Place): string | null {
  const motor = description.motors.find((entry) => entry.id === place.motor)
  return motor && !motor.opens && inside.has(place.role) ? motor.id : null
}

/** Whoever winds an armature anew insulates it too: to him coils and insulation are one. */
function mendedAt(place: Place, places: readonly Place[]): string {
  const winding =
    place.role === 'winding-insulation'
      ? places.find(({ role, motor }) => role === 'winding' && motor === place.motor)
      : undefined
  return (winding ?? place).id
}

function priorOf(
  fault: Fault,
  circumstances: ReadonlySet<Circumstance>,
  learned: Readonly<Record<string, number>>,
): number {
  let odds = fault.prior / (1 - fault.prior)
  for (const { when, times } of fault.raisedBy) if (circumstances.has(when)) odds *= times
  odds *= learned[fault.id] ?? 1
  return Math.min(HIGHEST_PRIOR, Math.max(LOWEST_PRIOR, odds / (1 + odds)))
}

/** The description says what may be wrong with a component; a fault of another state is not one of this engine. */
function canHave(description: EngineDescription, fault: Fault, place: Place): boolean {
  const { effect } = fault
  // A wound field has no magnet to grow weak.
  if (effect.kind === 'magnet')
    return description.motors.some((motor) => motor.id === place.motor && motor.field === null)
  if (effect.kind !== 'component') return true
  const wanted = effect.state === 'open' && effect.shows !== 'always' ? ['open', 'intermittent'] : [effect.state]
  return place.components.some((id) =>
    description.components.find((component) => component.id === id)?.faults.some((state) => wanted.includes(state)),
  )
}
