import { buildConstruction } from '../engine/assemblies/build-construction'
import type { ConstructionPlan } from '../engine/assemblies/plan-schema'
import type { EngineDescription } from '../engine/description-schema'
import { fitDecoder } from '../engine/fit-decoder'
import articulated from './constructions/articulated.json'
import axleCup from './constructions/axle-cup.json'
import centreMotor from './constructions/centre-motor.json'
import motorBogieUnit from './constructions/motor-bogie-unit.json'
import narrowGauge from './constructions/narrow-gauge.json'
import openFrame from './constructions/open-frame.json'
import other from './constructions/other.json'
import sideBrushBogie from './constructions/side-brush-bogie.json'
import splitFrame from './constructions/split-frame.json'
import tankCan from './constructions/tank-can.json'
import tankOpen from './constructions/tank-open.json'
import tenderPickup from './constructions/tender-pickup.json'
import threeRailSingle from './constructions/three-rail-single.json'
import threeRailTwin from './constructions/three-rail-twin.json'

/** The generic construction that stands in where none is known. */
export const UNKNOWN_CONSTRUCTION = 'other'

/** Every construction that ships, as written down; all invented, generic machines. */
export const constructionPlans = [
  openFrame,
  tenderPickup,
  splitFrame,
  tankCan,
  tankOpen,
  articulated,
  sideBrushBogie,
  centreMotor,
  motorBogieUnit,
  axleCup,
  narrowGauge,
  threeRailSingle,
  threeRailTwin,
  other,
] as unknown as readonly ConstructionPlan[]

const built = new Map<string, EngineDescription>()

/**
 * The description of a construction, with a decoder where the engine runs on DCC.
 *
 * @param id of a construction; an unknown one gives the generic machine
 * @example describeConstruction('tank-can').motors[0].kind // 'can'
 */
export function describeConstruction(id: string, power: 'dc' | 'ac' | 'dcc' = 'dc'): EngineDescription {
  const plan =
    constructionPlans.find((entry) => entry.id === id) ??
    constructionPlans.find((entry) => entry.id === UNKNOWN_CONSTRUCTION)
  if (!plan) throw new RangeError('The generic construction is missing.')
  const withDecoder = power === 'dcc' && plan.power === 'dc'
  const key = withDecoder ? `${plan.id}+decoder` : plan.id
  const known = built.get(key)
  if (known) return known
  const description = withDecoder ? fitDecoder(buildConstruction(plan)) : buildConstruction(plan)
  built.set(key, description)
  return description
}
