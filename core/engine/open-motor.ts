import { armatureRemoval, brushRemoval, springRemoval } from './assemblies/motor-removals'
import { accessTo } from './access-to'
import type { Access, CarePoint, CircuitComponent, EngineDescription, Motor, Part, Removal } from './description-schema'
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
 * @example
 * openMotor(describeConstruction('tank-can'), describeConstruction('tank-can').motors[0], {
 *   heldBy: 'tongues',
 *   minutes: 4,
 * }).motors[0].opens // true
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
  // A can put in the place of a motor that opened: the ways to its inside are there already.
  if (accessTo(description, 'brushes', motor.id)) return { ...description, motors: opened(description.motors, motor) }
  const own = description.components.filter(({ of }) => of === motor.id)
  const brushes = own.filter(({ kind }) => kind === 'brush')
  const springOf = (brush: CircuitComponent): string | null =>
    own.find(({ kind, from, to }) => kind === 'contact' && [from, to].includes(brush.from))?.part ?? null
  const armature = own.find(({ id }) => id === motor.armature)?.part ?? motor.part
  const removals = new Map<string, Removal>([
    ...brushes.flatMap((brush) => {
      const spring = springOf(brush)
      return [
        ...(spring ? [[spring, springRemoval([[endPlate.id]])] as const] : []),
        ...(brush.part ? [[brush.part, brushRemoval([[spring ?? endPlate.id]])] as const] : []),
      ]
    }),
    [armature, armatureRemoval([[endPlate.id]])] as const,
  ])
  const access = (to: 'brushes' | 'commutator', name: string): Access => ({
    id: `${motor.id}.${to}`,
    name,
    off: [[endPlate.id]],
    on: [],
    leadsTo: { to, motor: motor.id },
  })
  const toBrushes = access('brushes', `Brushes of the ${lower}`)
  const toCommutator = access('commutator', `Commutator of the ${lower}`)
  const behind = new Map(
    brushes.flatMap((brush) => [[brush.from, toBrushes.id] as const, [brush.to, toCommutator.id] as const]),
  )
  const care: CarePoint[] = [
    { id: `${motor.id}.commutator-care`, kind: 'commutator', part: armature, access: toCommutator.id },
    { id: `${motor.id}.brushes-care`, kind: 'brushes', part: brushes[0]?.part ?? motor.part, access: toBrushes.id },
  ]
  return {
    ...description,
    parts: [
      ...description.parts.map((part) => ({ ...part, removal: removals.get(part.id) ?? part.removal })),
      endPlate,
    ],
    accesses: [...description.accesses, toBrushes, toCommutator],
    nodes: description.nodes.map((node) => ({ ...node, access: behind.get(node.id) ?? node.access })),
    motors: opened(description.motors, motor),
    carePoints: [...description.carePoints, ...care],
  }
}

const opened = (motors: readonly Motor[], motor: Motor): Motor[] =>
  motors.map((entry) => (entry.id === motor.id ? { ...motor, opens: true } : entry))
