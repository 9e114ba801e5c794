import type { ConstructionPlan, EntryOf, PlanEntry } from '../../engine/assemblies/plan-schema'
import { buildConstruction } from '../../engine/assemblies/build-construction'
import type { EngineDescription } from '../../engine/description-schema'
import { driveTrain } from '../../engine/drive-train'

/** Which wheels resist a finger: those the motor turns. */
export const wheelTraits = {
  'coupled-axles': 'Axles in the frame, joined by rods, all resist',
  'two-coupled-groups': 'Two groups of axles, each with its rods, resist',
  'frame-axles': 'Axles in the frame without rods resist',
  'one-axle': 'One axle of a bogie resists, the others roll',
  'one-bogie': 'The axles of one bogie resist, the others roll',
  'both-bogies': 'The axles of both bogies resist',
} as const
export type WheelTrait = keyof typeof wheelTraits

/** Where the motor sits. */
export const motorTraits = {
  'over-an-axle': 'In the body, right over a driven axle',
  'shaft-both-ways': 'In the middle, a shaft to each end',
  'shaft-one-way': 'In the body, one shaft to a bogie',
  'in-a-bogie': 'It is part of a bogie, or stands on it',
  'one-each': 'Two motors, one over each truck',
} as const
export type MotorTrait = keyof typeof motorTraits

/** What carries the current from the wheels. */
export const currentTraits = {
  wipers: 'Wipers on the wheels of both sides',
  'wipers-and-frame': 'Wipers on one side, the frame on the other',
  'frame-halves': 'The two halves of the frame',
  cups: 'Metal cups over the axle ends',
  'unit-each': 'One rail by the engine, the other by the tender',
  'truck-each': 'One rail by each bogie',
  'centre-rail': 'A roller or shoe on a centre rail',
} as const
export type CurrentTrait = keyof typeof currentTraits

/** What can be felt and seen of a construction before it is opened further than its lid. */
export interface ConstructionTraits {
  readonly wheels: WheelTrait
  readonly motor: MotorTrait
  readonly current: CurrentTrait
}

/**
 * What a construction shows to somebody who turns its wheels with a finger and looks for motor and pickups; derived
 * from the plan it is built from.
 *
 * @param plan of the construction
 */
export function traitsOf(plan: ConstructionPlan): ConstructionTraits {
  const description = buildConstruction(plan)
  return { wheels: wheelTraitOf(description), motor: motorTraitOf(description), current: currentTraitOf(plan) }
}

function drivenByTruck(description: EngineDescription): Map<string, readonly [driven: number, all: number]> {
  const { turning } = driveTrain(description)
  return new Map(
    description.trucks.map((truck) => {
      const own = description.wheelSets.filter((wheelSet) => wheelSet.truck === truck.id)
      return [truck.id, [own.filter((wheelSet) => turning.has(wheelSet.rotor)).length, own.length]]
    }),
  )
}

/** Whether a unit stands on several trucks: without rods they then swing, otherwise its axles run in the frame. */
function onSwingingTrucks(description: EngineDescription, truckId: string): boolean {
  const truck = description.trucks.find(({ id }) => id === truckId)
  return description.trucks.filter(({ unit }) => unit === truck?.unit).length > 1
}

function wheelTraitOf(description: EngineDescription): WheelTrait {
  const driven = [...drivenByTruck(description)].filter(([, [count]]) => count > 0)
  const coupled = new Set(
    description.links
      .filter((link) => link.kind === 'rods')
      .flatMap((link) => description.wheelSets.filter(({ rotor }) => rotor === link.from || rotor === link.to))
      .map((wheelSet) => wheelSet.truck),
  )
  if (coupled.size > 1) return 'two-coupled-groups'
  if (coupled.size === 1) return 'coupled-axles'
  if (driven.length > 1) return 'both-bogies'
  const [only] = driven
  if (!only || !onSwingingTrucks(description, only[0])) return 'frame-axles'
  const [count, all] = only[1]
  return count < all ? 'one-axle' : 'one-bogie'
}

function motorTraitOf(description: EngineDescription): MotorTrait {
  if (description.motors.length > 1) return 'one-each'
  const shafts = description.links.filter((link) => link.kind === 'joint').length
  if (shafts > 1) return 'shaft-both-ways'
  if (shafts === 1) return 'shaft-one-way'
  const carried = description.turnables.some(({ effects }) => effects.some(({ kind }) => kind === 'face-back'))
  return carried ? 'in-a-bogie' : 'over-an-axle'
}

function currentTraitOf({ entries, units }: ConstructionPlan): CurrentTrait {
  const of = <A extends PlanEntry['assembly']>(assembly: A): Array<EntryOf<A>> =>
    entries.filter((entry): entry is EntryOf<A> => entry.assembly === assembly)
  if (of('roller').length > 0) return 'centre-rail'
  const axles = of('wheel-set')
  const by = (way: 'wiper' | 'cup' | 'frame'): number =>
    axles.filter((axle) => axle.left?.by === way || axle.right?.by === way).length
  if (by('cup') > 0) return 'cups'
  if (by('frame') > 0) return 'frame-halves'
  const collecting = axles.filter((axle) => axle.left || axle.right || axle.axle)
  /** Rails that axles of one truck or unit collect: by the side that is not insulated, or has a wiper. */
  const sides = (axle: EntryOf<'wheel-set'>): string[] => [
    ...(axle.left || (axle.axle && axle.insulated === 'right') ? ['left'] : []),
    ...(axle.right || (axle.axle && axle.insulated === 'left') ? ['right'] : []),
  ]
  const oneSided = (within: (axle: EntryOf<'wheel-set'>) => string): boolean => {
    const groups = new Map<string, Set<string>>()
    for (const axle of collecting)
      groups.set(within(axle), new Set([...(groups.get(within(axle)) ?? []), ...sides(axle)]))
    return groups.size > 1 && [...groups.values()].every((rails) => rails.size === 1)
  }
  if (units.length > 1 && oneSided((axle) => axle.unit)) return 'unit-each'
  if (oneSided((axle) => axle.truck)) return 'truck-each'
  return collecting.some((axle) => axle.axle) ? 'wipers-and-frame' : 'wipers'
}
