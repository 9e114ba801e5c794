import { removal, type Draft } from './draft'
import type { EntryOf } from './plan-schema'
import { farHalfOf } from './running-gear'
import { inSentence } from '../name-in-sentence'

/** A worm on a shaft and the gear it turns; the gear's rotor is an axle, or made here. */
export function addWorm(draft: Draft, entry: EntryOf<'worm'>): void {
  const { as: id, name, unit, on, onto } = entry
  draft.part({
    id,
    name,
    kind: 'gear',
    unit,
    materials: ['brass'],
    removal: removal({
      minutes: 3,
      refitMinutes: 6,
      needs: entry.behind ?? [],
      tools: ['press'],
      risk: 0.1,
      replacement: 'rare',
      leaveAlone: 'Pressed on its shaft and seldom the fault.',
    }),
  })
  draft.part({
    id: `${id}.gear`,
    name: entry.gearName,
    kind: 'gear',
    unit,
    materials: entry.gearMaterials,
    removal: removal({
      minutes: 5,
      refitMinutes: 10,
      needs: entry.behind ?? [],
      tools: ['press'],
      risk: 0.15,
      replacement: 'rare',
      leaveAlone: 'Pressed: off only to replace it.',
      wayBack: entry.wayBack ?? '',
    }),
  })
  draft.rotors.push({ id, name, kind: 'worm', part: id, unit })
  draft.links.push({
    id: `${id}.seat`,
    name: `${name} on its shaft`,
    kind: 'press-fit',
    from: on,
    to: id,
    teethFrom: null,
    teethTo: null,
    reverses: false,
    part: id,
  })
  // A gear in a tower turns by itself; on an axle it is the axle that turns.
  if (onto === `${id}.gear`) draft.rotors.push({ id: onto, name: entry.gearName, kind: 'gear', part: onto, unit })
  draft.links.push({
    id: `${id}.mesh`,
    name: `${name} on the ${inSentence(entry.gearName)}`,
    kind: 'worm',
    from: id,
    to: onto,
    teethFrom: entry.starts,
    teethTo: entry.teeth,
    reverses: false,
    part: `${id}.gear`,
  })
  draft.carePoints.push({ id: `${id}.care`, kind: 'worm', part: id, access: null })
}

/** A shaft with its joint from one turning part to the next. */
export function addShaft(draft: Draft, entry: EntryOf<'shaft'>): void {
  const { as: id, name, unit, from, to } = entry
  draft.part({
    id,
    name,
    kind: 'shaft',
    unit,
    materials: ['acetal'],
    heldBy: 'its balls in their cups',
    removal: removal({
      minutes: 0.5,
      refitMinutes: 1.5,
      needs: entry.behind ?? [],
      risk: 0.01,
      replacement: 'order',
      hazards: ['small-parts'],
      wayBack:
        entry.wayBack ?? 'Both balls in their cups before the motor is screwed down: slide it in already coupled.',
    }),
  })
  draft.rotors.push({ id: to, name: entry.toName, kind: 'shaft', part: id, unit })
  draft.links.push({
    id: `${id}.joint`,
    name,
    kind: 'joint',
    from,
    to,
    teethFrom: null,
    teethTo: null,
    reverses: false,
    part: id,
  })
  draft.carePoints.push({ id: `${id}.care`, kind: 'universal-joint', part: id, access: null })
}

/** A train of spur gears, each meshing with the one before; a gear that carries an axle names its rotor. */
export function addTrain(draft: Draft, entry: EntryOf<'train'>): void {
  let from = entry.from
  for (const gear of entry.gears) {
    const id = gear.as
    const onAxle = gear.rotor !== undefined
    draft.part({
      id,
      name: gear.name,
      kind: 'gear',
      unit: entry.unit,
      materials: gear.materials,
      removal: onAxle
        ? removal({
            minutes: 5,
            refitMinutes: 10,
            needs: entry.behind ?? [],
            tools: ['press'],
            risk: 0.15,
            replacement: 'rare',
            leaveAlone: 'Pressed on its axle: off only to replace it.',
          })
        : removal({
            minutes: 1,
            refitMinutes: 1.5,
            needs: entry.behind ?? [],
            tools: ['tweezers'],
            risk: 0.03,
            replacement: 'order',
            hazards: ['small-parts'],
            wayBack: entry.wayBack ?? 'The same face up; turns freely by hand before the next goes in.',
          }),
    })
    const to = gear.rotor ?? id
    if (!onAxle) draft.rotors.push({ id, name: gear.name, kind: gear.kind, part: id, unit: entry.unit })
    draft.links.push({
      id: `${id}.mesh`,
      name: `Mesh of the ${inSentence(gear.name)}`,
      kind: 'mesh',
      from,
      to,
      teethFrom: gear.meshes[0],
      teethTo: gear.meshes[1],
      reverses: true,
      part: id,
    })
    from = to
  }
  draft.carePoints.push({
    id: `${entry.as}.care`,
    kind: 'gear-train',
    part: entry.gears[0]?.as ?? entry.as,
    access: null,
  })
}

/** Coupling rods on both sides: all named axles turn alike. Halves of split axles have the rods of their own side. */
export function addRods(draft: Draft, entry: EntryOf<'rods'>): void {
  const { as: id, name, unit, axles } = entry
  draft.part({
    id,
    name,
    kind: 'rod',
    unit,
    materials: ['nickel-silver'],
    heldBy: 'its crank pins',
    removal: removal({
      minutes: 2.5,
      refitMinutes: 5,
      needs: entry.behind ?? [],
      tools: ['nut-spinner'],
      risk: 0.03,
      replacement: 'rare',
      hazards: ['small-parts'],
      wayBack: entry.wayBack ?? 'Joints outward, oil holes up; turn the wheels a full turn by hand after each side.',
    }),
  })
  const split = axles.every((axle) => draft.rotors.some((rotor) => rotor.id === farHalfOf(axle)))
  const couple = (coupled: readonly string[], prefix: string, side: string): void => {
    for (const [index, axle] of coupled.slice(1).entries()) {
      draft.links.push({
        id: `${prefix}.${index + 1}`,
        name: `${name}${side}${coupled.length > 2 ? `, part ${index + 1}` : ''}`,
        kind: 'rods',
        from: coupled[index] as string,
        to: axle,
        teethFrom: null,
        teethTo: null,
        reverses: false,
        part: id,
      })
    }
  }
  couple(axles, id, split ? ', near side' : '')
  if (split) couple(axles.map(farHalfOf), `${id}.far`, ', far side')
  draft.carePoints.push({ id: `${id}.care`, kind: 'rods', part: id, access: null })
}
