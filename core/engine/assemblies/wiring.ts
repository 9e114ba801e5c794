import { removal, type Draft } from './draft'
import type { EntryOf } from './plan-schema'

const leadRemoval = {
  solder: {
    minutes: 2,
    refitMinutes: 3,
    tools: ['soldering-iron'],
    hazards: ['hot-iron'],
    wayBack: 'Tin first, then join; which lead goes where is marked before it comes off.',
  },
  screw: {
    minutes: 1,
    refitMinutes: 1,
    tools: ['screwdriver'],
    hazards: [],
    wayBack: 'Tag under the screw head, bare metal on bare metal.',
  },
  strip: {
    minutes: 1,
    refitMinutes: 2,
    tools: ['tweezers'],
    hazards: [],
    wayBack: 'The strip lies on the side it came from: mirrored it turns the direction round.',
  },
  plug: { minutes: 0.5, refitMinutes: 0.5, tools: ['tweezers'], hazards: [], wayBack: '' },
} as const

/** A wire or strip between two points; a part of its own that can be undone. */
export function addLead(draft: Draft, entry: EntryOf<'lead'>): void {
  const { as: id, name, unit, from, to, by = 'solder' } = entry
  const usual = leadRemoval[by]
  draft.part({
    id,
    name,
    kind: 'lead',
    unit,
    materials: [by === 'strip' ? 'bronze' : 'copper'],
    removal: removal({
      ...usual,
      tools: [...usual.tools],
      hazards: [...usual.hazards],
      needs: entry.behind ?? [],
      risk: 0.005,
      replacement: 'scrap-box',
    }),
  })
  draft.component({
    id,
    name,
    kind: 'conductor',
    from,
    to,
    ohms: 0.05,
    part: id,
    unit,
    faults: ['open', 'high-resistance', 'intermittent'],
  })
}

/** Two pieces of metal that touch: a drawbar, a screw, a pivot, frame halves. */
export function addContact(draft: Draft, entry: EntryOf<'contact'>): void {
  const { as: id, name, unit, from, to, part = null, ohms = 0.2 } = entry
  draft.component({
    id,
    name,
    kind: 'contact',
    from,
    to,
    ohms,
    part,
    unit,
    faults: ['open', 'high-resistance', 'intermittent'],
  })
}

/** What keeps two points apart. */
export function addInsulation(draft: Draft, entry: EntryOf<'insulation'>): void {
  const { as: id, name, unit, from, to, part = null } = entry
  draft.component({
    id,
    name,
    kind: 'insulation',
    from,
    to,
    ohms: null,
    part,
    unit,
    faults: ['shorted', 'high-resistance'],
  })
}

export function addSuppressor(draft: Draft, entry: EntryOf<'suppressor'>): void {
  const { as: id, name, unit, from, to } = entry
  draft.part({
    id,
    name,
    kind: 'board',
    unit,
    materials: ['unknown'],
    place: 'across the motor',
    removal: removal({
      minutes: 2,
      refitMinutes: 3,
      needs: entry.behind ?? [],
      tools: ['soldering-iron'],
      hazards: ['hot-iron'],
      replacement: 'easy',
    }),
  })
  draft.component({
    id,
    name,
    kind: 'capacitor',
    from,
    to,
    ohms: null,
    part: id,
    unit,
    faults: ['shorted', 'high-resistance'],
  })
}

export function addChoke(draft: Draft, entry: EntryOf<'choke'>): void {
  const { as: id, name, unit, from, to } = entry
  draft.part({
    id,
    name,
    kind: 'board',
    unit,
    materials: ['lacquered-wire', 'ferrite'],
    removal: removal({
      minutes: 2,
      refitMinutes: 3,
      needs: entry.behind ?? [],
      tools: ['soldering-iron'],
      hazards: ['hot-iron'],
      replacement: 'easy',
    }),
  })
  draft.component({ id, name, kind: 'choke', from, to, ohms: 0.3, part: id, unit, faults: ['open', 'high-resistance'] })
}

/** A lamp; `shell` names the frame its case might touch. */
export function addLamp(draft: Draft, entry: EntryOf<'lamp'>): void {
  const { as: id, name, unit, from, to, volts, amps, kind } = entry
  draft.part({
    id,
    name,
    kind: 'lamp',
    unit,
    materials: ['glass'],
    removal: removal({
      minutes: 1,
      refitMinutes: 1,
      needs: entry.behind ?? [],
      tools: ['tweezers'],
      risk: 0.03,
      replacement: 'easy',
      wayBack: 'Its shell clear of the frame.',
    }),
  })
  draft.component({
    id,
    name,
    kind: 'lamp',
    from,
    to,
    ohms: volts / amps,
    part: id,
    unit,
    faults: ['open', 'shorted'],
    lamp: { volts, amps, kind },
  })
  if (entry.shell)
    draft.component({
      id: `${id}.shell`,
      name: `${name}: shell clear of the frame`,
      kind: 'insulation',
      from,
      to: entry.shell,
      ohms: null,
      part: id,
      unit,
      faults: ['shorted'],
    })
}
