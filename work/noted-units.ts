import type { EngineDescription, Part, Unit } from '../core/engine/description-schema'
import type { EngineUnit } from '../messages/book-entries'

/**
 * A description with the units that were noted of this very engine: each bears the name it was given, and what the
 * construction knows nothing of (a dummy, a second tender, a trailer) stands behind the others with a body and a
 * frame of its own.
 */
export function withNotedUnits(description: EngineDescription, noted: readonly EngineUnit[]): EngineDescription {
  const free = [...noted]
  const take = (unit: Unit): EngineUnit | undefined => {
    const alike = (entry: EngineUnit): boolean => entry.powered === (unit.role === 'powered')
    const named = free.findIndex((entry) => entry.name.toLowerCase() === unit.name.toLowerCase())
    const index = named >= 0 ? named : free.findIndex(alike)
    return index < 0 ? undefined : free.splice(index, 1)[0]
  }
  const units = description.units.map((unit) => ({ ...unit, name: take(unit)?.name ?? unit.name }))
  const added = free.map((entry): Unit => ({
    id: `unit.${entry.id}`,
    name: entry.name,
    role: entry.powered ? 'powered' : 'dummy',
    massGrams: null,
  }))
  if (added.length === 0) return { ...description, units }
  return { ...description, units: [...units, ...added], parts: [...description.parts, ...added.flatMap(partsOfUnit)] }
}

/** What any unit has, as far as nobody has said more; minutes and risk judged for a shell on two screws. */
function partsOfUnit({ id, name }: Unit): Part[] {
  const lower = name.toLowerCase()
  const alike = { unit: id, materials: ['unknown'] as Part['materials'], place: '', massGrams: null }
  return [
    { ...alike, id: `${id}.frame`, name: `Frame of the ${lower}`, kind: 'chassis', heldBy: '', removal: null },
    {
      ...alike,
      id: `${id}.body`,
      name: `Body of the ${lower}`,
      kind: 'body',
      heldBy: 'not looked at yet',
      removal: {
        minutes: 2,
        refitMinutes: 3,
        needs: [],
        tools: ['screwdriver'],
        risk: 0.02,
        replacement: 'rare',
        hazards: [],
        leaveAlone: '',
        wayBack: 'Wires clear of moving parts before it is pressed home.',
      },
    },
  ]
}
