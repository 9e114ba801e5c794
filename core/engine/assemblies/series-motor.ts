import { removal, type Draft } from './draft'
import type { EntryOf } from './plan-schema'
import { inSentence } from '../name-in-sentence'

type Entry = EntryOf<'series-motor'>

/** Where it is reached. */
interface Accesses {
  readonly terminals: string
  readonly brushes: string
  readonly commutator: string
}

/** An AC universal motor: field and armature in series through the sequence switch, one brush on the frame. */
export function addSeriesMotor(draft: Draft, entry: Entry): void {
  addBody(draft, entry)
  addArmature(draft, entry)
  const accesses = addAccesses(draft, entry)
  addBrushes(draft, entry, accesses)
  addFeed(draft, entry)
  addWinding(draft, entry)
  addReturn(draft, entry)
  addRotor(draft, entry)
  addCare(draft, entry, accesses)
}

function addBody(draft: Draft, entry: Entry): void {
  const { as: id, name, unit, behind = [], brushesBehind = behind } = entry
  const lower = inSentence(name)
  draft.part({
    id,
    name,
    kind: 'motor',
    unit,
    materials: ['steel', 'copper', 'brass'],
    heldBy: 'two screws',
    removal: removal({
      minutes: 4,
      refitMinutes: 8,
      needs: [...behind, [`${id}.armature-lead`]],
      tools: ['screwdriver'],
      risk: 0.03,
      replacement: 'rare',
      wayBack: 'Gears in mesh before the screws are drawn.',
    }),
  })
  draft.part({
    id: `${id}.brush-plate`,
    name: `Brush plate of the ${lower}`,
    kind: 'motor-part',
    unit,
    materials: ['phenolic-resin', 'brass'],
    heldBy: 'two screws',
    removal: removal({
      minutes: 1.5,
      refitMinutes: 3,
      needs: brushesBehind,
      tools: ['screwdriver'],
      risk: 0.06,
      replacement: 'rare',
      hazards: ['flies-away', 'brittle'],
      wayBack: 'Brushes held back with a loop of thread until the plate sits; springs over, not under, the brushes.',
    }),
  })
  draft.part({
    id: `${id}.field`,
    name: `Field coil of the ${lower}`,
    kind: 'motor-part',
    unit,
    materials: ['lacquered-wire', 'paper'],
  })
}

function addArmature(draft: Draft, entry: Entry): void {
  const { as: id, name, unit, behind = [] } = entry
  const lower = inSentence(name)
  draft.part({
    id: `${id}.armature`,
    name: `Armature of the ${lower}`,
    kind: 'motor-part',
    unit,
    materials: ['lacquered-wire', 'steel', 'copper'],
    removal: removal({
      minutes: 1,
      refitMinutes: 2,
      needs: [[`${id}.brush-plate`]],
      risk: 0.02,
      replacement: 'rare',
      wayBack: 'Ball and washers under the shaft end.',
    }),
  })
  draft.part({
    id: `${id}.armature-lead`,
    name: `Lead to the brush of the ${lower}`,
    kind: 'lead',
    unit,
    materials: ['copper'],
    removal: removal({
      minutes: 2,
      refitMinutes: 3,
      needs: behind,
      tools: ['soldering-iron'],
      hazards: ['hot-iron'],
      replacement: 'scrap-box',
    }),
  })
}

function addAccesses(draft: Draft, entry: Entry): Accesses {
  const { as: id, name, behind = [] } = entry
  const plate = `${id}.brush-plate`
  const lower = inSentence(name)
  const terminals = draft.accessTo('terminals', id, {
    id: `${id}.terminals`,
    name: `Terminals of the ${lower}`,
    off: behind,
  })
  draft.accessTo('motor-out', id, { id: `${id}.out`, name: `${name} out`, off: [[id]] })
  const brushes = draft.accessTo('brushes', id, {
    id: `${id}.brushes`,
    name: `Brushes of the ${lower}`,
    off: [[plate]],
  })
  const commutator = draft.accessTo('commutator', id, {
    id: `${id}.commutator`,
    name: `Commutator of the ${lower}`,
    off: [[plate]],
  })
  return { terminals, brushes, commutator }
}

function addBrushes(draft: Draft, entry: Entry, { terminals, commutator }: Accesses): void {
  const { as: id, name, unit } = entry
  const lower = inSentence(name)
  draft.node(`${id}.brush`, `${name}, insulated brush holder`, 'motor-lead', terminals)
  for (const pole of ['live', 'frame'] as const) {
    draft.part({
      id: `${id}.brush-${pole}`,
      name: `${pole === 'live' ? 'Live' : 'Frame'} brush of the ${lower}`,
      kind: 'motor-part',
      unit,
      materials: ['carbon', 'copper'],
      removal: removal({
        minutes: 0.5,
        refitMinutes: 1,
        needs: [[`${id}.brush-plate`]],
        tools: ['tweezers'],
        risk: 0.02,
        replacement: 'order',
        hazards: ['small-parts'],
      }),
    })
    draft.node(`${id}.bar-${pole}`, `Commutator under the ${pole} brush of the ${lower}`, 'commutator', commutator)
  }
}

/** What leads to the armature: the field, the lead and the live brush. */
function addFeed(draft: Draft, entry: Entry): void {
  const { as: id, name, unit, fieldIn, fieldOut, armatureIn } = entry
  const lower = inSentence(name)
  draft.component({
    id: `${id}.field`,
    of: id,
    name: `Field coil of the ${lower}`,
    kind: 'field',
    from: fieldIn,
    to: fieldOut,
    ohms: entry.fieldOhms,
    highOhms: entry.fieldOhms * 4,
    part: `${id}.field`,
    unit,
    faults: ['open', 'shorted', 'high-resistance'],
  })
  draft.component({
    id: `${id}.armature-lead`,
    of: id,
    name: `Lead to the brush of the ${lower}`,
    kind: 'conductor',
    from: armatureIn,
    to: `${id}.brush`,
    ohms: 0.05,
    part: `${id}.armature-lead`,
    unit,
    faults: ['open', 'high-resistance', 'intermittent'],
  })
  draft.component({
    id: `${id}.brush-live`,
    of: id,
    name: `Live brush of the ${lower} on the commutator`,
    kind: 'brush',
    from: `${id}.brush`,
    to: `${id}.bar-live`,
    ohms: 0.3,
    part: `${id}.brush-live`,
    unit,
    faults: ['open', 'high-resistance', 'intermittent'],
  })
}

function addWinding(draft: Draft, entry: Entry): void {
  const { as: id, name, unit } = entry
  const lower = inSentence(name)
  draft.component({
    id: `${id}.winding`,
    of: id,
    name: `Winding of the ${lower}`,
    kind: 'winding',
    from: `${id}.bar-live`,
    to: `${id}.bar-frame`,
    ohms: entry.ohms,
    highOhms: entry.ohms * 2,
    part: `${id}.armature`,
    unit,
    faults: ['open', 'high-resistance', 'shorted'],
  })
  draft.component({
    id: `${id}.gaps`,
    of: id,
    name: `Gaps of the commutator of the ${lower}`,
    kind: 'commutator',
    from: `${id}.bar-live`,
    to: `${id}.bar-frame`,
    ohms: null,
    highOhms: Math.max(0.5, entry.ohms / 3),
    part: `${id}.armature`,
    unit,
    faults: ['high-resistance'],
  })
}

/** What leads from it to the frame, and what keeps the live side clear of it. */
function addReturn(draft: Draft, entry: Entry): void {
  const { as: id, name, unit, frame } = entry
  const lower = inSentence(name)
  draft.component({
    id: `${id}.brush-frame`,
    of: id,
    name: `Frame brush of the ${lower} on the commutator`,
    kind: 'brush',
    from: `${id}.bar-frame`,
    to: frame,
    ohms: 0.3,
    part: `${id}.brush-frame`,
    unit,
    faults: ['open', 'high-resistance', 'intermittent'],
  })
  draft.component({
    id: `${id}.holder-frame`,
    of: id,
    name: `Insulation of the live brush holder of the ${lower}`,
    kind: 'insulation',
    from: `${id}.brush`,
    to: frame,
    ohms: null,
    part: `${id}.brush-plate`,
    unit,
    faults: ['shorted'],
  })
}

function addRotor(draft: Draft, entry: Entry): void {
  const { as: id, name, unit } = entry
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
    kind: 'ac-series',
    part: id,
    armature: `${id}.winding`,
    field: `${id}.field`,
    backEmf: entry.backEmf,
    coulombTorque: entry.coulomb,
    viscousTorque: entry.viscous,
    segments: entry.segments,
    rotor: `${id}.armature`,
    feeds: { plus: `${id}.armature-lead`, minus: `${id}.brush-frame` },
    opens: true,
  })
}

function addCare(draft: Draft, { as: id }: Entry, { terminals, brushes, commutator }: Accesses): void {
  draft.carePoints.push(
    { id: `${id}.bearing-far`, kind: 'motor-bearing-far', part: id, access: terminals },
    { id: `${id}.bearing-commutator`, kind: 'motor-bearing-commutator', part: id, access: terminals },
    { id: `${id}.commutator-care`, kind: 'commutator', part: `${id}.armature`, access: commutator },
    { id: `${id}.brushes-care`, kind: 'brushes', part: `${id}.brush-live`, access: brushes },
  )
}

/** Forward, neutral, reverse, neutral: stepped by each interruption, it sends the current one way or the other through the field. */
export function addSequenceSwitch(draft: Draft, entry: EntryOf<'sequence-switch'>): void {
  const { as: id, name, unit, hot, fieldIn, fieldOut, armatureIn, frame, behind = [] } = entry
  draft.part({
    id,
    name,
    kind: 'switch',
    unit,
    materials: ['phenolic-resin', 'bronze', 'steel', 'lacquered-wire'],
    heldBy: 'two screws or bent tabs',
    removal: removal({
      minutes: 4,
      refitMinutes: 8,
      needs: behind,
      tools: ['screwdriver', 'soldering-iron'],
      risk: 0.08,
      replacement: 'rare',
      hazards: ['hot-iron', 'brittle'],
      wayBack: 'Drum in its teeth, fingers on the drum, lever in its slot.',
    }),
  })
  const access = draft.access(`${id}.contacts`, `Contacts of the ${inSentence(name)}`, behind)
  draft.node(fieldIn, 'Field, first end', 'board', access)
  draft.node(fieldOut, 'Field, second end', 'board', access)
  draft.node(armatureIn, 'Lead to the brushes', 'board', access)
  const finger = (key: string, words: string, from: string, to: string, position: string): void =>
    draft.component({
      id: `${id}.${key}`,
      of: id,
      name: `${name}: ${words}`,
      kind: 'switch',
      from,
      to,
      ohms: 0.1,
      part: id,
      unit,
      faults: ['open', 'high-resistance', 'intermittent'],
      closedIn: { switch: id, positions: [position] },
    })
  finger('forward-in', 'supply to the field, forward', hot, fieldIn, 'forward')
  finger('forward-out', 'field to the brushes, forward', fieldOut, armatureIn, 'forward')
  finger('reverse-in', 'supply to the field, reverse', hot, fieldOut, 'reverse')
  finger('reverse-out', 'field to the brushes, reverse', fieldIn, armatureIn, 'reverse')
  draft.component({
    id: `${id}.coil`,
    of: id,
    name: `Coil of the ${inSentence(name)}`,
    kind: 'relay',
    from: hot,
    to: frame,
    ohms: 60,
    part: id,
    unit,
    faults: ['open', 'shorted'],
  })
  draft.switches.push({
    id,
    kind: 'sequence',
    name,
    part: id,
    rest: 'forward',
    positions: [
      { id: 'forward', name: 'Forward' },
      { id: 'neutral-after-forward', name: 'Neutral after forward' },
      { id: 'reverse', name: 'Reverse' },
      { id: 'neutral-after-reverse', name: 'Neutral after reverse' },
    ],
  })
  draft.carePoints.push({ id: `${id}.contact-care`, kind: 'switch-contacts', part: id, access })
}

/** A horn behind its relay. */
export function addHorn(draft: Draft, entry: EntryOf<'horn'>): void {
  const { as: id, name, unit, hot, frame, behind = [] } = entry
  draft.part({
    id,
    name,
    kind: 'switch',
    unit,
    materials: ['steel', 'lacquered-wire', 'bronze'],
    removal: removal({
      minutes: 3,
      refitMinutes: 5,
      needs: behind,
      tools: ['screwdriver', 'soldering-iron'],
      hazards: ['hot-iron'],
      risk: 0.03,
      replacement: 'rare',
    }),
  })
  const access = draft.access(`${id}.contacts`, `Relay of the ${inSentence(name)}`, behind)
  draft.node(`${id}.fed`, `${name}, fed side`, 'auxiliary', access)
  draft.component({
    id: `${id}.coil`,
    of: `${id}.relay`,
    name: `Coil of the relay of the ${inSentence(name)}`,
    kind: 'relay',
    from: hot,
    to: frame,
    ohms: 220,
    part: id,
    unit,
    faults: ['open', 'shorted'],
  })
  draft.component({
    id: `${id}.contact`,
    of: `${id}.relay`,
    name: `Contact of the relay of the ${inSentence(name)}`,
    kind: 'switch',
    from: hot,
    to: `${id}.fed`,
    ohms: 0.2,
    part: id,
    unit,
    faults: ['open', 'high-resistance', 'shorted'],
    closedIn: { switch: `${id}.relay`, positions: ['pulled'] },
  })
  draft.component({
    id: `${id}.load`,
    name,
    kind: 'resistor',
    from: `${id}.fed`,
    to: frame,
    ohms: 18,
    part: id,
    unit,
    faults: ['open', 'shorted'],
  })
  draft.switches.push({
    id: `${id}.relay`,
    name: `Relay of the ${inSentence(name)}`,
    part: id,
    kind: 'relay',
    rest: 'at-rest',
    positions: [
      { id: 'at-rest', name: 'At rest' },
      { id: 'pulled', name: 'Pulled in' },
    ],
  })
  draft.carePoints.push({ id: `${id}.contact-care`, kind: 'switch-contacts', part: id, access })
}
