import type { EngineDescription, Material, Part } from '../engine/description-schema'
import { plastics } from '../engine/plastics'
import { driveTrain } from '../engine/drive-train'
import { inSentence } from '../engine/name-in-sentence'
import { cleaningSubjects, type CleaningSubject } from '../knowledge/care/care-schema'

/** Parts of one unit that are cleaned alike. */
export interface CleaningGroup {
  readonly id: string
  readonly subject: CleaningSubject
  readonly unit: string
  readonly words: string
  readonly parts: readonly string[]
  /** Wheel sets, gears, contacts: what minutes are counted by. */
  readonly pieces: number
  /** What a cloth or a tool touches. */
  readonly touched: readonly Material[]
  /** What gets wet when it is wiped. */
  readonly wet: readonly Material[]
  /** What gets wet when it lies in a bath, with all that hangs on it. */
  readonly soaked: readonly Material[]
  /** Turned by the motor, so that it can be cleaned turning; null where it is no wheel. */
  readonly driven: boolean | null
}

/**
 * What can be dirty on this engine, group by group: from its parts, their materials and how it is driven. Of wheels
 * that the motor turns and wheels that only roll, each are a group of their own.
 *
 *
 * @example cleaningGroups(describeConstruction('tank-can')).length // 13
 */
export function cleaningGroups(description: EngineDescription): CleaningGroup[] {
  return description.units.flatMap((unit) => groupsOfUnit(description, unit))
}

/** Dusting a whole unit takes about as long as so many of its pieces. Judged. */
const LOOSE_PIECES = 4

type Draft = Omit<CleaningGroup, 'id' | 'unit' | 'words' | 'touched' | 'wet' | 'soaked' | 'parts' | 'driven'> & {
  readonly parts: ReadonlyArray<Part | undefined>
  readonly tag?: string
  readonly said?: string
  readonly driven?: boolean
  /** Where only this much of a part is meant: the copper of an armature. */
  readonly touched?: readonly Material[]
  readonly wet?: readonly Material[]
  readonly soaked?: readonly Material[]
}

function groupsOfUnit(description: EngineDescription, unit: EngineDescription['units'][number]): CleaningGroup[] {
  const here = description.parts.filter((part) => part.unit === unit.id)
  const prefix = description.units.length > 1 ? `${unit.name}: ` : ''
  return [
    // Loose dirt is brushed off everything at once.
    { subject: 'everything', parts: here, pieces: LOOSE_PIECES } satisfies Draft,
    ...wheelDrafts(description, unit.id),
    ...motorDrafts(description, unit.id),
    ...bearingDrafts(description, unit.id),
    ...plainDrafts(description, here),
  ].flatMap(({ tag, said, driven = null, touched, wet, soaked, ...draft }) => {
    const parts = draft.parts.flatMap((part) => (part ? [part] : []))
    if (parts.length === 0 || draft.pieces === 0) return []
    const made = materialsOf(parts)
    const words = said ?? cleaningSubjects[draft.subject]
    return [
      {
        ...draft,
        id: [draft.subject, tag, unit.id].filter(Boolean).join('@'),
        unit: unit.id,
        words: prefix ? `${prefix}${inSentence(words)}` : words,
        parts: [...new Set(parts.map((part) => part.id))],
        touched: touched ?? made,
        wet: wet ?? made,
        soaked: soaked ?? made,
        driven,
      },
    ]
  })
}

const materialsOf = (parts: readonly Part[]): Material[] => [...new Set(parts.flatMap((part) => part.materials))]

/** Treads, backs and tyres; a bath wets the whole wheel set and what is pressed on its axle. */
function wheelDrafts(description: EngineDescription, unit: string): Draft[] {
  const parts = new Map(description.parts.map((part) => [part.id, part]))
  const motions = new Map(driveTrain(description).wheels.map((wheel) => [wheel.wheelSet, wheel.driven]))
  const sets = description.wheelSets.filter((set) => set.unit === unit)
  const hung = (set: EngineDescription['wheelSets'][number]): Part[] => {
    const turning = description.links.flatMap((link) =>
      ['press-fit', 'muff'].includes(link.kind) && (link.from === set.rotor || link.to === set.rotor)
        ? [link.from, link.to]
        : [],
    )
    const rotors = description.rotors.filter((rotor) => rotor.id === set.rotor || turning.includes(rotor.id))
    return [...rotors.map((rotor) => rotor.part), set.left.part, set.right.part].flatMap((id) => parts.get(id) ?? [])
  }
  const soaked = (of: typeof sets): Material[] => [
    ...new Set([
      ...materialsOf(of.flatMap(hung)),
      ...(of.some((set) => set.left.tyre || set.right.tyre) ? (['rubber'] as const) : []),
    ]),
  ]
  const wheels = (of: typeof sets, sides: (wheel: (typeof sets)[number]['left']) => boolean): Part[] =>
    of.flatMap((set) => [set.left, set.right].filter(sides).flatMap((wheel) => parts.get(wheel.part) ?? []))
  const [driven, idle] = [true, false].map((turns) =>
    sets.filter((set) => (motions.get(set.id) ?? false) === turns),
  ) as [typeof sets, typeof sets]
  const tyred = sets.filter((set) => set.left.tyre || set.right.tyre)
  const tread = (of: typeof sets, tag: string, said: string, turns: boolean): Draft => ({
    subject: 'treads',
    tag,
    said,
    parts: wheels(of, (wheel) => !wheel.tyre),
    pieces: of.length,
    driven: turns,
    soaked: soaked(of),
  })
  return [
    tread(driven, 'driven', idle.length > 0 ? 'Treads of the driven wheels' : 'Treads', true),
    tread(idle, 'idle', driven.length > 0 ? 'Treads of the wheels that only roll' : 'Treads', false),
    {
      subject: 'wheel-backs',
      parts: wheels(sets, () => true),
      pieces: sets.length,
      soaked: soaked(sets),
    },
    {
      subject: 'tyres',
      parts: wheels(tyred, (wheel) => wheel.tyre),
      pieces: tyred.length,
      touched: ['rubber'],
      wet: ['rubber'],
      soaked: ['rubber'],
    },
  ]
}

/** A motor that opens by its commutator, brushes and bore; one that does not as a whole. */
function motorDrafts(description: EngineDescription, unit: string): Draft[] {
  const parts = new Map(description.parts.map((part) => [part.id, part]))
  const motors = description.motors.filter((motor) => parts.get(motor.part)?.unit === unit)
  const points = (kind: string): Part[] =>
    description.carePoints.flatMap((point) => {
      const part = parts.get(point.part)
      return point.kind === kind && part?.unit === unit ? [part] : []
    })
  const open = motors.filter((motor) => motor.opens).map((motor) => parts.get(motor.part))
  const closed = motors.filter((motor) => !motor.opens).map((motor) => parts.get(motor.part))
  const commutators = points('commutator')
  const brushes = points('brushes')
  const carbon =
    brushes.length > 0
      ? description.parts.filter((part) => part.unit === unit && part.materials.includes('carbon'))
      : []
  const winding = (of: ReadonlyArray<Part | undefined>): Material[] => [
    ...new Set<Material>([...materialsOf(of.flatMap((part) => part ?? [])), 'lacquered-wire', 'carbon']),
  ]
  return [
    {
      subject: 'commutator',
      parts: commutators,
      pieces: commutators.length,
      touched: ['copper'],
      wet: ['copper', 'lacquered-wire'],
      soaked: winding(commutators),
    },
    {
      subject: 'brushes',
      parts: carbon,
      pieces: brushes.length,
      touched: ['carbon'],
      wet: ['carbon'],
      soaked: ['carbon'],
    },
    { subject: 'motor-inside', parts: open, pieces: open.length, soaked: winding(open) },
    {
      subject: 'motor-closed',
      parts: closed,
      pieces: closed.length,
      touched: ['steel'],
      wet: ['steel'],
      soaked: ['steel'],
    },
  ]
}

function bearingDrafts(description: EngineDescription, unit: string): Draft[] {
  const parts = new Map(description.parts.map((part) => [part.id, part]))
  const at = (kinds: readonly string[]): Part[] =>
    description.carePoints.flatMap((point) => {
      const part = parts.get(point.part)
      return kinds.includes(point.kind) && part?.unit === unit ? [part] : []
    })
  // A bearing is a hole in what carries it: the frame gets wet with it.
  const frame = description.parts.filter((part) => part.unit === unit && part.kind === 'chassis')
  const bearing = (subject: CleaningSubject, kinds: readonly string[], carried: readonly Part[]): Draft => {
    const found = at(kinds)
    const made = materialsOf([...found, ...carried])
    return { subject, parts: found, pieces: found.length, touched: made, wet: made, soaked: made }
  }
  const plasticFrame = frame.some((part) => part.materials.some((material) => plastics.has(material)))
  return [
    bearing('motor-bearings', ['motor-bearing-far', 'motor-bearing-commutator'], []),
    bearing('live-bearings', ['axle-bearing-live'], frame),
    bearing(plasticFrame ? 'axle-boxes' : 'axle-bearings', ['axle-bearing'], frame),
    bearing('axle-boxes', ['axle-box-worn'], frame),
    bearing('switch-contacts', ['switch-contacts'], []),
  ].reduce<Draft[]>((drafts, draft) => {
    const same = drafts.findIndex((other) => other.subject === draft.subject)
    if (same < 0) return [...drafts, draft]
    const other = drafts[same] as Draft
    const merged = { ...other, parts: [...other.parts, ...draft.parts], pieces: other.pieces + draft.pieces }
    return drafts.map((entry, index) => (index === same ? merged : entry))
  }, [])
}

function plainDrafts(description: EngineDescription, here: readonly Part[]): Draft[] {
  const of = (...kinds: ReadonlyArray<Part['kind']>): Part[] => here.filter((part) => kinds.includes(part.kind))
  const isPlastic = (part: Part): boolean => part.materials.some((material) => plastics.has(material))
  const gears = of('gear')
  const [plastic, metal] = [gears.filter(isPlastic), [...gears.filter((part) => !isPlastic(part)), ...of('shaft')]]
  const contacts = of('pickup')
  const switches = description.switches.flatMap((entry) => here.find((part) => part.id === entry.part) ?? [])
  const inSwitch = new Set(switches.map((part) => part.id))
  return [
    { subject: 'contacts', parts: contacts, pieces: contacts.length },
    { subject: 'gears-plastic', parts: plastic, pieces: plastic.length },
    { subject: 'gears-metal', parts: metal, pieces: metal.length },
    { subject: 'rods', parts: of('rod'), pieces: of('rod').length },
    { subject: 'frame', parts: of('chassis', 'weight', 'coupling'), pieces: 1 },
    { subject: 'body', parts: of('body', 'detail'), pieces: 1 },
    { subject: 'wiring', parts: of('lead', 'board', 'lamp').filter((part) => !inSwitch.has(part.id)), pieces: 1 },
  ]
}
