import { driveTrain } from '../drive-train'
import type { EngineDescription } from '../description-schema'
import { addPart, addShell } from './bodywork'
import { Draft } from './draft'
import { addRods, addShaft, addTrain, addWorm } from './gearing'
import { addMagnetMotor } from './magnet-motor'
import type { ConstructionPlan, PlanEntry } from './plan-schema'
import { addAllWheelSetsTurned, addRoller, addTruck, addWheelSet, type Rails } from './running-gear'
import { addHorn, addSequenceSwitch, addSeriesMotor } from './series-motor'
import { addChoke, addContact, addInsulation, addLamp, addLead, addSuppressor } from './wiring'

/**
 * Grows a plan into the full description: every entry adds its parts, circuit, drive, precedence and care points.
 * Plus is the right rail (NEM 631: plus on the right drives forward), or the centre rail of three.
 */
export function buildConstruction(plan: ConstructionPlan): EngineDescription {
  const draft = new Draft()
  const rails = addRails(draft, plan.power)
  for (const entry of plan.entries) addEntry(draft, entry, rails)
  addAllWheelSetsTurned(draft)
  const { id, name, summary, source, power } = plan
  const built = draft.finish({
    id,
    name,
    summary,
    source,
    power,
    rails: { plus: rails.plus, minus: rails.left },
    units: plan.units.map(({ grams, ...unit }) => ({ ...unit, massGrams: grams })),
  })
  return facingForward(built)
}

function addRails(draft: Draft, power: ConstructionPlan['power']): Rails {
  if (power === 'ac') {
    draft.node('rail.centre', 'Centre rail', 'rail')
    draft.node('rail.outer', 'Outer rails', 'rail')
    return { left: 'rail.outer', right: 'rail.outer', plus: 'rail.centre' }
  }
  draft.node('rail.right', 'Right rail', 'rail')
  draft.node('rail.left', 'Left rail', 'rail')
  return { left: 'rail.left', right: 'rail.right', plus: 'rail.right' }
}

function addEntry(draft: Draft, entry: PlanEntry, rails: Rails): void {
  switch (entry.assembly) {
    case 'part':
      return addPart(draft, entry)
    case 'shell':
      return addShell(draft, entry)
    case 'wheel-set':
      return addWheelSet(draft, entry, rails)
    case 'truck':
      return addTruck(draft, entry)
    case 'roller':
      return addRoller(draft, entry, rails)
    case 'lead':
      return addLead(draft, entry)
    case 'contact':
      return addContact(draft, entry)
    case 'insulation':
      return addInsulation(draft, entry)
    case 'suppressor':
      return addSuppressor(draft, entry)
    case 'choke':
      return addChoke(draft, entry)
    case 'lamp':
      return addLamp(draft, entry)
    case 'magnet-motor':
      return addMagnetMotor(draft, entry)
    case 'series-motor':
      return addSeriesMotor(draft, entry)
    case 'sequence-switch':
      return addSequenceSwitch(draft, entry)
    case 'horn':
      return addHorn(draft, entry)
    case 'worm':
      return addWorm(draft, entry)
    case 'shaft':
      return addShaft(draft, entry)
    case 'train':
      return addTrain(draft, entry)
    case 'rods':
      return addRods(draft, entry)
    case 'node':
      return draft.node(entry.as, entry.name, entry.stage, entry.access ?? null)
    case 'access':
      return void (entry.leadsTo
        ? draft.accessTo(entry.leadsTo, null, { id: entry.as, name: entry.name, off: entry.off, on: entry.on ?? [] })
        : draft.access(entry.as, entry.name, entry.off, entry.on ?? []))
    case 'turnable': {
      const { as: id, name, minutes, access = null, swapTo, swapFrom } = entry
      const pair = swapTo ?? swapFrom
      if (!pair) throw new RangeError(`“${id}” names nothing to turn.`)
      draft.turnables.push({
        id,
        name,
        minutes,
        access,
        effects: [{ kind: 'swap-ends', end: swapTo ? 'to' : 'from', first: pair[0], second: pair[1] }],
      })
    }
  }
}

/** As made, a positive turn of the motor drives every wheel forward, whatever its gears turn on the way. */
function facingForward(description: EngineDescription): EngineDescription {
  const train = driveTrain(description)
  return {
    ...description,
    wheelSets: description.wheelSets.map((wheelSet) => ({
      ...wheelSet,
      forward: (train.turning.get(wheelSet.rotor)?.turnsPerMotorTurn ?? 1) < 0 ? 'against' : 'with',
    })),
  }
}
