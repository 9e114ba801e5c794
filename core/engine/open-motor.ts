import { armatureRemoval, brushRemoval, springRemoval } from './assemblies/motor-removals'
import type { Access, CarePoint, EngineDescription, Motor, Part, Removal } from './description-schema'
import { inSentence } from './name-in-sentence'

/** Judged: tongues bent up once more may break, and such a can is not sold any longer. */
const PLATE_BREAKS = 0.08

/**
 * A motor described as closed, opened: an end plate comes off it once it is out, and behind it lie springs, brushes and
 * commutator.
 *
 * @param description the engine
 * @param motor of it, with a permanent magnet and closed
 * @param plate how its end plate is held, and the minutes to have it off
 */
export function openMotor(
  description: EngineDescription,
  motor: Motor,
  plate: { readonly heldBy: string; readonly minutes: number },
): EngineDescription {
  const { unit } = description.parts.find((part) => part.id === motor.part) as Part
  const lower = inSentence(motor.name)
  const endPlate: Part = {
    id: `${motor.id}.end-plate`,
    name: `End plate of the ${lower}`,
    kind: 'motor-part',
    unit,
    materials: ['unknown-plastic', 'steel'],
    place: 'on the brush end of the can',
    heldBy: plate.heldBy,
    massGrams: null,
    removal: {
      minutes: plate.minutes,
      refitMinutes: plate.minutes,
      needs: [[motor.part]],
      tools: ['fine-screwdriver'],
      risk: PLATE_BREAKS,
      replacement: 'rare',
      hazards: ['brittle', 'flies-away', 'eyes'],
      leaveAlone: '',
      wayBack: 'Brushes held back with a loop of wire while the commutator goes in; its mark against that of the can.',
    },
  }
  const removals = new Map<string, Removal>([
    ...(['plus', 'minus'] as const).flatMap((pole) => [
      [`${motor.id}.spring-${pole}`, springRemoval([[endPlate.id]])] as const,
      [`${motor.id}.brush-${pole}`, brushRemoval([[`${motor.id}.spring-${pole}`]])] as const,
    ]),
    [`${motor.id}.armature`, armatureRemoval([[endPlate.id]])] as const,
  ])
  const access = (id: string, name: string): Access => ({ id, name, off: [[endPlate.id]], on: [] })
  const brushes = access(`${motor.id}.brushes`, `Brushes of the ${lower}`)
  const commutator = access(`${motor.id}.commutator`, `Commutator of the ${lower}`)
  const behind = new Map<string, string>([
    [`${motor.id}.at-plus`, brushes.id],
    [`${motor.id}.at-minus`, brushes.id],
    [`${motor.id}.bar-plus`, commutator.id],
    [`${motor.id}.bar-minus`, commutator.id],
  ])
  const care: CarePoint[] = [
    { id: `${motor.id}.commutator-care`, kind: 'commutator', part: `${motor.id}.armature`, access: commutator.id },
    { id: `${motor.id}.brushes-care`, kind: 'brushes', part: `${motor.id}.brush-plus`, access: brushes.id },
  ]
  // A can put in the place of a motor that opened: the ways to its inside are there already.
  if (description.accesses.some(({ id }) => id === brushes.id))
    return { ...description, motors: opened(description.motors, motor) }
  return {
    ...description,
    parts: [
      ...description.parts.map((part) => ({ ...part, removal: removals.get(part.id) ?? part.removal })),
      endPlate,
    ],
    accesses: [...description.accesses, brushes, commutator],
    nodes: description.nodes.map((node) => ({ ...node, access: behind.get(node.id) ?? node.access })),
    motors: opened(description.motors, motor),
    carePoints: [...description.carePoints, ...care],
  }
}

const opened = (motors: readonly Motor[], motor: Motor): Motor[] =>
  motors.map((entry) => (entry.id === motor.id ? { ...motor, opens: true } : entry))
