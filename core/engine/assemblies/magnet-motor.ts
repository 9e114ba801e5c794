import { removal, type Draft } from './draft'
import { armatureRemoval, brushRemoval, springRemoval } from './motor-removals'
import type { EntryOf } from './plan-schema'
import { inSentence } from '../name-in-sentence'

type Entry = EntryOf<'magnet-motor'>

/** Where its brushes and its commutator are reached; null on a can that does not open. */
interface Inside {
  readonly brushes: string | null
  readonly commutator: string | null
}

const opensAt = ({ style }: Entry): boolean => style !== 'can'

/** A brushed motor with a permanent magnet: leads, springs or cups, brushes, commutator, winding, magnet. */
export function addMagnetMotor(draft: Draft, entry: Entry): void {
  const terminals = addBody(draft, entry)
  addLeads(draft, entry)
  const inside = addAccesses(draft, entry)
  addMagnetAndArmature(draft, entry)
  for (const pole of ['plus', 'minus'] as const) addBrush(draft, entry, pole, inside)
  addWinding(draft, entry)
  if (entry.frame) addInsulation(draft, entry, entry.frame)
  addRotor(draft, entry)
  addTurnables(draft, entry, terminals)
  addCare(draft, entry, terminals, inside)
}

/** @returns the access to its terminals */
function addBody(draft: Draft, entry: Entry): string {
  const { as: id, name, unit, behind = [], minusBy = 'lead' } = entry
  const lower = inSentence(name)
  draft.part({
    id,
    name,
    kind: 'motor',
    unit,
    materials: ['steel', 'copper', entry.magnet ?? 'ferrite'],
    heldBy: entry.fixing ?? 'its screw',
    removal: removal({
      minutes: 3,
      refitMinutes: 6,
      needs: [...behind, [`${id}.lead-plus`], ...(minusBy === 'lead' ? [[`${id}.lead-minus`]] : [])],
      tools: ['screwdriver'],
      risk: 0.01,
      replacement: 'rare',
      hazards: ['strong-magnet'],
      wayBack: entry.wayBack ?? 'The same way up: turned over it runs the other way. Mesh set by its screw.',
    }),
  })
  const terminals = draft.accessTo('terminals', id, {
    id: `${id}.terminals`,
    name: `Terminals of the ${lower}`,
    off: entry.terminalsBehind ?? behind,
  })
  draft.accessTo('motor-out', id, { id: `${id}.out`, name: `${name} out`, off: [[id]] })
  draft.node(`${id}.plus`, `${name}, plus terminal`, 'motor-lead', terminals)
  draft.node(`${id}.minus`, `${name}, minus terminal`, 'motor-lead', terminals)
  return terminals
}

function addLeads(draft: Draft, entry: Entry): void {
  const { as: id, name, unit, plus, minus, behind = [], minusBy = 'lead' } = entry
  const lower = inSentence(name)
  const lead = (pole: 'plus' | 'minus', from: string): void => {
    draft.part({
      id: `${id}.lead-${pole}`,
      name: `Lead to the ${lower}, ${pole}`,
      kind: 'lead',
      unit,
      materials: ['copper'],
      removal: removal({
        minutes: 2,
        refitMinutes: 3,
        needs: behind,
        tools: ['soldering-iron'],
        hazards: ['hot-iron'],
        risk: 0.005,
        replacement: 'scrap-box',
        wayBack: 'To the terminal it came from: swapped, it runs backwards.',
      }),
    })
    draft.component({
      id: `${id}.lead-${pole}`,
      of: id,
      name: `Lead to the ${lower}, ${pole}`,
      kind: 'conductor',
      from,
      to: `${id}.${pole}`,
      ohms: 0.05,
      part: `${id}.lead-${pole}`,
      unit,
      faults: ['open', 'high-resistance', 'intermittent'],
    })
  }
  lead('plus', plus)
  if (minusBy === 'lead') lead('minus', minus)
  else
    draft.component({
      id: `${id}.lead-minus`,
      of: id,
      name: `Strap from the frame to the minus brush of the ${lower}`,
      kind: 'conductor',
      from: minus,
      to: `${id}.minus`,
      ohms: 0.1,
      part: id,
      unit,
      faults: ['open', 'high-resistance', 'intermittent'],
    })
}

function addAccesses(draft: Draft, entry: Entry): Inside {
  if (!opensAt(entry)) return { brushes: null, commutator: null }
  const { as: id, behind = [], brushesBehind = behind } = entry
  const lower = inSentence(entry.name)
  return {
    brushes: draft.accessTo('brushes', id, {
      id: `${id}.brushes`,
      name: `Brushes of the ${lower}`,
      off: [...brushesBehind, [`${id}.spring-plus`], [`${id}.spring-minus`]],
    }),
    commutator: draft.accessTo('commutator', id, {
      id: `${id}.commutator`,
      name: `Commutator of the ${lower}`,
      off: [...brushesBehind, [`${id}.brush-plus`], [`${id}.brush-minus`]],
    }),
  }
}

function addMagnetAndArmature(draft: Draft, entry: Entry): void {
  const { as: id, name, unit, style, behind = [] } = entry
  const opens = opensAt(entry)
  const lower = inSentence(name)
  draft.part({
    id: `${id}.magnet`,
    name: `Magnet of the ${lower}`,
    kind: 'motor-part',
    unit,
    materials: [entry.magnet ?? 'ferrite'],
    removal:
      opens && style === 'open-frame'
        ? removal({
            minutes: 4,
            refitMinutes: 6,
            needs: [[id]],
            tools: ['screwdriver'],
            risk: 0.05,
            replacement: 'rare',
            hazards: ['strong-magnet'],
            leaveAlone: 'Off its poles it loses strength: keep a keeper across it.',
            wayBack: 'Polarity as marked with the compass.',
          })
        : null,
  })
  draft.part({
    id: `${id}.armature`,
    name: `Armature of the ${lower}`,
    kind: 'motor-part',
    unit,
    materials: ['lacquered-wire', 'steel', 'copper'],
    removal: opens
      ? armatureRemoval(
          style === 'side-brush'
            ? [[`${id}.brush-plus`], [`${id}.brush-minus`], ...behind]
            : [[id], [`${id}.brush-plus`], [`${id}.brush-minus`]],
        )
      : null,
  })
}

function addWinding(draft: Draft, entry: Entry): void {
  const { as: id, name, unit } = entry
  const lower = inSentence(name)
  draft.component({
    id: `${id}.gaps`,
    of: id,
    name: `Gaps of the commutator of the ${lower}`,
    kind: 'commutator',
    from: `${id}.bar-plus`,
    to: `${id}.bar-minus`,
    ohms: null,
    highOhms: Math.max(2, entry.ohms / 3),
    part: `${id}.armature`,
    unit,
    faults: ['high-resistance'],
  })
  draft.component({
    id: `${id}.winding`,
    of: id,
    name: `Winding of the ${lower}`,
    kind: 'winding',
    from: `${id}.bar-plus`,
    to: `${id}.bar-minus`,
    ohms: entry.ohms,
    highOhms: entry.ohms * 2,
    part: `${id}.armature`,
    unit,
    faults: ['open', 'high-resistance', 'shorted'],
  })
}

function addInsulation(draft: Draft, entry: Entry, frame: string): void {
  const { as: id, name, unit, feed = 'spring', minusBy = 'lead' } = entry
  const lower = inSentence(name)
  draft.component({
    id: `${id}.winding-frame`,
    of: id,
    name: `Winding clear of the frame of the ${lower}`,
    kind: 'insulation',
    from: `${id}.bar-plus`,
    to: frame,
    ohms: null,
    part: `${id}.armature`,
    unit,
    faults: ['shorted'],
  })
  if (feed === 'spring' && minusBy === 'strap')
    draft.component({
      id: `${id}.spring-frame`,
      of: id,
      name: `Insulation under the plus brush spring of the ${lower}`,
      kind: 'insulation',
      from: `${id}.plus`,
      to: frame,
      ohms: null,
      part: `${id}.spring-plus`,
      unit,
      faults: ['shorted'],
    })
}

function addRotor(draft: Draft, entry: Entry): void {
  const { as: id, name, unit, style } = entry
  const lower = inSentence(name)
  draft.rotors.push({
    id: `${id}.armature`,
    name: `Armature of the ${lower}`,
    kind: 'armature',
    part: `${id}.armature`,
    unit,
  })
  draft.motors.push({
    id,
    name,
    kind: style,
    part: id,
    armature: `${id}.winding`,
    field: null,
    backEmf: entry.backEmf,
    coulombTorque: entry.coulomb,
    viscousTorque: entry.viscous,
    segments: entry.segments,
    rotor: `${id}.armature`,
    feeds: { plus: `${id}.lead-plus`, minus: `${id}.lead-minus` },
    opens: opensAt(entry),
  })
}

function addTurnables(draft: Draft, entry: Entry, terminals: string): void {
  const { as: id, name, minusBy = 'lead' } = entry
  const lower = inSentence(name)
  draft.turnables.push({
    id: `${id}.magnet-turned`,
    name: `Magnet of the ${lower} the other way round, or remagnetised so`,
    minutes: 5,
    access: `${id}.out`,
    effects: [{ kind: 'turn-magnet', motor: id }],
  })
  if (minusBy === 'lead')
    draft.turnables.push({
      id: `${id}.leads-swapped`,
      name: `Leads to the ${lower} swapped`,
      minutes: 6,
      access: terminals,
      effects: [{ kind: 'swap-ends', end: 'to', first: `${id}.lead-plus`, second: `${id}.lead-minus` }],
    })
}

function addCare(draft: Draft, entry: Entry, terminals: string, { brushes, commutator }: Inside): void {
  const { as: id } = entry
  draft.carePoints.push(
    { id: `${id}.bearing-far`, kind: 'motor-bearing-far', part: id, access: terminals },
    { id: `${id}.bearing-commutator`, kind: 'motor-bearing-commutator', part: id, access: terminals },
  )
  if (opensAt(entry))
    draft.carePoints.push(
      { id: `${id}.commutator-care`, kind: 'commutator', part: `${id}.armature`, access: commutator },
      { id: `${id}.brushes-care`, kind: 'brushes', part: `${id}.brush-plus`, access: brushes },
    )
}

function addBrush(draft: Draft, entry: Entry, pole: 'plus' | 'minus', { brushes, commutator }: Inside): void {
  const { as: id, name, unit, style, feed = 'spring', behind = [], brushesBehind = behind } = entry
  const opens = opensAt(entry)
  const of = `${pole} brush of the ${inSentence(name)}`
  const spring = `${id}.spring-${pole}`
  const brush = `${id}.brush-${pole}`
  const cap = `${id}.cap-${pole}`
  if (style === 'side-brush') addCap(draft, entry, pole)
  draft.part({
    id: spring,
    name: `Spring of the ${of}`,
    kind: 'motor-part',
    unit,
    materials: ['bronze'],
    removal: opens ? springRemoval(style === 'side-brush' ? [[cap]] : brushesBehind) : null,
  })
  draft.part({
    id: brush,
    name: `${of.charAt(0).toUpperCase()}${of.slice(1)}`,
    kind: 'motor-part',
    unit,
    materials: ['carbon'],
    removal: opens ? brushRemoval([[spring]]) : null,
  })
  draft.node(`${id}.at-${pole}`, `${of.charAt(0).toUpperCase()}${of.slice(1)}`, 'brush', brushes)
  draft.node(`${id}.bar-${pole}`, `Commutator under the ${of}`, 'commutator', commutator)
  draft.component({
    id: spring,
    of: id,
    name: `${feed === 'spring' ? 'Spring' : 'Cup'} to the ${of}`,
    kind: 'contact',
    from: `${id}.${pole}`,
    to: `${id}.at-${pole}`,
    ohms: 0.1,
    part: spring,
    unit,
    faults: ['open', 'high-resistance', 'intermittent'],
  })
  draft.component({
    id: brush,
    of: id,
    name: `${of.charAt(0).toUpperCase()}${of.slice(1)} on the commutator`,
    kind: 'brush',
    from: `${id}.at-${pole}`,
    to: `${id}.bar-${pole}`,
    ohms: 0.4,
    part: brush,
    unit,
    faults: ['open', 'high-resistance', 'intermittent'],
  })
}

function addCap(draft: Draft, entry: Entry, pole: 'plus' | 'minus'): void {
  const { as: id, name, unit, behind = [], brushesBehind = behind } = entry
  draft.part({
    id: `${id}.cap-${pole}`,
    name: `Cap of the ${pole} brush of the ${inSentence(name)}`,
    kind: 'motor-part',
    unit,
    materials: ['phenolic-resin', 'brass'],
    removal: removal({
      minutes: 0.5,
      refitMinutes: 0.5,
      needs: brushesBehind,
      tools: ['screwdriver'],
      risk: 0.05,
      replacement: 'rare',
      hazards: ['flies-away', 'brittle', 'eyes'],
      wayBack: 'A finger over it until the thread takes; never by force.',
    }),
  })
}
