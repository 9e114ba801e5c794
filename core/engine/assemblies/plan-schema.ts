import { Type, type Static } from 'typebox'
import { closed, OneOf } from '../../schema/pieces'
import { hazards, materials, partKinds, replaceabilities, stages, tools } from '../description-schema'

/**
 * A construction as it is written down: which assemblies it is made of, where they sit and what they join. Each
 * entry grows into parts, circuit, drive, precedence and care points of one description.
 */
const Id = Type.String({ pattern: '^[a-z0-9][a-z0-9.-]*$' })
const Words = Type.String({ minLength: 1 })
const Needs = Type.Array(Type.Array(Id, { minItems: 1 }))
const Materials = Type.Array(OneOf(materials), { minItems: 1 })
const Maybe = Type.Optional

export const PartEntry = Type.Object(
  {
    assembly: Type.Literal('part'),
    as: Id,
    name: Words,
    kind: OneOf(partKinds),
    unit: Id,
    materials: Materials,
    place: Maybe(Words),
    heldBy: Maybe(Words),
    grams: Maybe(Type.Number()),
    minutes: Maybe(Type.Number()),
    refit: Maybe(Type.Number()),
    behind: Maybe(Needs),
    tools: Maybe(Type.Array(OneOf(tools))),
    risk: Maybe(Type.Number()),
    replacement: Maybe(OneOf(replaceabilities)),
    hazards: Maybe(Type.Array(OneOf(hazards))),
    leaveAlone: Maybe(Words),
    wayBack: Maybe(Words),
  },
  closed,
)

export const ShellEntry = Type.Object(
  {
    assembly: Type.Literal('shell'),
    as: Id,
    name: Words,
    unit: Id,
    materials: Materials,
    grams: Maybe(Type.Number()),
    fasteners: Type.Array(
      Type.Object(
        {
          as: Id,
          name: Words,
          place: Words,
          kind: OneOf(['screw', 'clip', 'pin'] as const),
          behind: Maybe(Needs),
          wayBack: Maybe(Words),
        },
        closed,
      ),
    ),
    /** When one of several fasteners is enough; otherwise all of them. */
    either: Maybe(Needs),
    behind: Maybe(Needs),
    minutes: Maybe(Type.Number()),
    risk: Maybe(Type.Number()),
    wayBack: Maybe(Words),
    replacement: Maybe(OneOf(replaceabilities)),
  },
  closed,
)

const Side = Type.Object({ to: Id, by: OneOf(['wiper', 'cup', 'frame'] as const) }, closed)
export const WheelSetEntry = Type.Object(
  {
    assembly: Type.Literal('wheel-set'),
    as: Id,
    name: Words,
    unit: Id,
    truck: Id,
    xMm: Type.Number(),
    diameterMm: Type.Number(),
    /** Which wheel is insulated from the axle; `split` is an axle in two halves held apart by a muff or tube. */
    insulated: OneOf(['left', 'right', 'both', 'none', 'split', 'plastic'] as const),
    left: Maybe(Side),
    right: Maybe(Side),
    /** Where the axle itself leads through its bearings. */
    axle: Maybe(Id),
    tyre: Maybe(OneOf(['left', 'right', 'both'] as const)),
    behind: Maybe(Needs),
    tyreBehind: Maybe(Needs),
    wearing: Maybe(Type.Boolean()),
    wayBack: Maybe(Words),
    rim: Maybe(OneOf(materials)),
    fixed: Maybe(Words),
  },
  closed,
)

export const LeadEntry = Type.Object(
  {
    assembly: Type.Literal('lead'),
    as: Id,
    name: Words,
    unit: Id,
    from: Id,
    to: Id,
    behind: Maybe(Needs),
    by: Maybe(OneOf(['solder', 'screw', 'strip', 'plug'] as const)),
  },
  closed,
)
export const ContactEntry = Type.Object(
  {
    assembly: Type.Literal('contact'),
    as: Id,
    name: Words,
    unit: Id,
    from: Id,
    to: Id,
    part: Maybe(Id),
    ohms: Maybe(Type.Number()),
  },
  closed,
)
export const InsulationEntry = Type.Object(
  { assembly: Type.Literal('insulation'), as: Id, name: Words, unit: Id, from: Id, to: Id, part: Maybe(Id) },
  closed,
)
export const NodeEntry = Type.Object(
  { assembly: Type.Literal('node'), as: Id, name: Words, stage: OneOf(stages), access: Maybe(Id) },
  closed,
)
export const AccessEntry = Type.Object(
  {
    assembly: Type.Literal('access'),
    as: Id,
    name: Words,
    off: Needs,
    on: Maybe(Type.Array(Id)),
    leadsTo: Maybe(Type.Literal('inside')),
  },
  closed,
)
export const TruckEntry = Type.Object(
  {
    assembly: Type.Literal('truck'),
    as: Id,
    name: Words,
    unit: Id,
    turns: Maybe(Type.Boolean()),
    access: Maybe(Id),
    carriesMotor: Maybe(Type.Boolean()),
  },
  closed,
)
export const SuppressorEntry = Type.Object(
  { assembly: Type.Literal('suppressor'), as: Id, name: Words, unit: Id, from: Id, to: Id, behind: Maybe(Needs) },
  closed,
)
export const ChokeEntry = Type.Object(
  { assembly: Type.Literal('choke'), as: Id, name: Words, unit: Id, from: Id, to: Id, behind: Maybe(Needs) },
  closed,
)
export const LampEntry = Type.Object(
  {
    assembly: Type.Literal('lamp'),
    as: Id,
    name: Words,
    unit: Id,
    from: Id,
    to: Id,
    volts: Type.Number(),
    amps: Type.Number(),
    kind: OneOf(['filament', 'led'] as const),
    behind: Maybe(Needs),
    shell: Maybe(Id),
  },
  closed,
)
export const RollerEntry = Type.Object(
  {
    assembly: Type.Literal('roller'),
    as: Id,
    name: Words,
    unit: Id,
    xMm: Type.Number(),
    to: Id,
    behind: Maybe(Needs),
    slides: Maybe(Type.Boolean()),
  },
  closed,
)

export const MagnetMotorEntry = Type.Object(
  {
    assembly: Type.Literal('magnet-motor'),
    as: Id,
    name: Words,
    unit: Id,
    style: OneOf(['open-frame', 'side-brush', 'can'] as const),
    plus: Id,
    minus: Id,
    ohms: Type.Number(),
    backEmf: Type.Number(),
    coulomb: Type.Number(),
    viscous: Type.Number(),
    segments: Type.Integer(),
    /** The node of the frame the motor sits in, where it is metal. */
    frame: Maybe(Id),
    /** How current reaches the minus brush: by a lead, or by the frame it is screwed to. */
    minusBy: Maybe(OneOf(['lead', 'strap'] as const)),
    feed: Maybe(OneOf(['spring', 'cup'] as const)),
    behind: Maybe(Needs),
    brushesBehind: Maybe(Needs),
    /** Where they lie more openly than the motor itself. */
    terminalsBehind: Maybe(Needs),
    magnet: Maybe(OneOf(['ferrite', 'alnico'] as const)),
    fixing: Maybe(Words),
    wayBack: Maybe(Words),
  },
  closed,
)

export const SeriesMotorEntry = Type.Object(
  {
    assembly: Type.Literal('series-motor'),
    as: Id,
    name: Words,
    unit: Id,
    hot: Id,
    fieldIn: Id,
    fieldOut: Id,
    armatureIn: Id,
    frame: Id,
    fieldOhms: Type.Number(),
    ohms: Type.Number(),
    backEmf: Type.Number(),
    coulomb: Type.Number(),
    viscous: Type.Number(),
    segments: Type.Integer(),
    behind: Maybe(Needs),
    brushesBehind: Maybe(Needs),
  },
  closed,
)

export const SequenceSwitchEntry = Type.Object(
  {
    assembly: Type.Literal('sequence-switch'),
    as: Id,
    name: Words,
    unit: Id,
    hot: Id,
    fieldIn: Id,
    fieldOut: Id,
    armatureIn: Id,
    frame: Id,
    behind: Maybe(Needs),
  },
  closed,
)
export const HornEntry = Type.Object(
  { assembly: Type.Literal('horn'), as: Id, name: Words, unit: Id, hot: Id, frame: Id, behind: Maybe(Needs) },
  closed,
)

export const WormEntry = Type.Object(
  {
    assembly: Type.Literal('worm'),
    as: Id,
    name: Words,
    unit: Id,
    on: Id,
    starts: Type.Integer(),
    onto: Id,
    teeth: Type.Integer(),
    gearName: Words,
    gearMaterials: Materials,
    behind: Maybe(Needs),
    wayBack: Maybe(Words),
  },
  closed,
)
export const ShaftEntry = Type.Object(
  {
    assembly: Type.Literal('shaft'),
    as: Id,
    name: Words,
    unit: Id,
    from: Id,
    to: Id,
    toName: Words,
    behind: Maybe(Needs),
    wayBack: Maybe(Words),
  },
  closed,
)
export const TrainEntry = Type.Object(
  {
    assembly: Type.Literal('train'),
    as: Id,
    unit: Id,
    from: Id,
    gears: Type.Array(
      Type.Object(
        {
          as: Id,
          name: Words,
          kind: OneOf(['gear', 'idler', 'axle'] as const),
          meshes: Type.Tuple([Type.Integer(), Type.Integer()]),
          materials: Materials,
          rotor: Maybe(Id),
        },
        closed,
      ),
      { minItems: 1 },
    ),
    behind: Maybe(Needs),
    wayBack: Maybe(Words),
  },
  closed,
)
export const RodsEntry = Type.Object(
  {
    assembly: Type.Literal('rods'),
    as: Id,
    name: Words,
    unit: Id,
    axles: Type.Array(Id, { minItems: 2 }),
    behind: Maybe(Needs),
    wayBack: Maybe(Words),
  },
  closed,
)
export const TurnableEntry = Type.Object(
  {
    assembly: Type.Literal('turnable'),
    as: Id,
    name: Words,
    minutes: Type.Number(),
    access: Maybe(Id),
    swapTo: Maybe(Type.Tuple([Id, Id])),
    swapFrom: Maybe(Type.Tuple([Id, Id])),
  },
  closed,
)

export const PlanEntry = Type.Union([
  PartEntry,
  ShellEntry,
  WheelSetEntry,
  LeadEntry,
  ContactEntry,
  InsulationEntry,
  NodeEntry,
  AccessEntry,
  TruckEntry,
  SuppressorEntry,
  ChokeEntry,
  LampEntry,
  RollerEntry,
  MagnetMotorEntry,
  SeriesMotorEntry,
  SequenceSwitchEntry,
  HornEntry,
  WormEntry,
  ShaftEntry,
  TrainEntry,
  RodsEntry,
  TurnableEntry,
])
export type PlanEntry = Static<typeof PlanEntry>
export type EntryOf<A extends PlanEntry['assembly']> = Extract<PlanEntry, { assembly: A }>

export const ConstructionPlan = Type.Object(
  {
    id: Id,
    name: Words,
    summary: Words,
    source: Words,
    power: OneOf(['dc', 'ac'] as const),
    units: Type.Array(
      Type.Object(
        {
          id: Id,
          name: Words,
          role: OneOf(['powered', 'collecting', 'dummy'] as const),
          grams: Type.Number(),
          chassis: Maybe(Type.Array(Id)),
        },
        closed,
      ),
      { minItems: 1 },
    ),
    entries: Type.Array(PlanEntry, { minItems: 1 }),
  },
  closed,
)
export type ConstructionPlan = Static<typeof ConstructionPlan>
