import { Type, type Static } from 'typebox'
import { closed, OneOf, OrNull } from '../schema/pieces'

/**
 * One description of an engine, from which diagnosis, strip-down, care, stall risk and the simulated casualty all
 * take what they need to know. SI units unless the name says otherwise. Published as JSON Schema; the form in which
 * a construction is exported and imported.
 */

/** Raised when a description written for an older form could be misread. */
export const DESCRIPTION_VERSION = 2

const Id = Type.String({ pattern: '^[a-z0-9][a-z0-9.-]*$', maxLength: 80 })
const Words = Type.String({ minLength: 1, maxLength: 200 })
const Remark = Type.String({ maxLength: 400 })
/** Every inner list must be met; one of its members is enough: [["cap"], ["screw-left", "screw-right"]]. */
const Needs = Type.Array(Type.Array(Id, { minItems: 1, maxItems: 12 }), { maxItems: 40 })

export const materials = [
  'steel',
  'brass',
  'copper',
  'bronze',
  'nickel-silver',
  'white-metal',
  'aluminium',
  'carbon',
  'ferrite',
  'alnico',
  'acetal',
  'nylon',
  'styrene',
  'abs',
  'polycarbonate',
  'phenolic-resin',
  'rubber',
  'paper',
  'lacquered-wire',
  'glass',
  'felt',
  'lead',
  'painted',
  'printed',
  'unknown-plastic',
  'unknown',
] as const
export type Material = (typeof materials)[number]

export const partKinds = [
  'body',
  'detail',
  'fastener',
  'chassis',
  'weight',
  'motor',
  'motor-part',
  'board',
  'lead',
  'pickup',
  'lamp',
  'gear',
  'shaft',
  'axle',
  'wheel',
  'tyre',
  'rod',
  'coupling',
  'switch',
] as const
export type PartKind = (typeof partKinds)[number]

export const tools = [
  'screwdriver',
  'fine-screwdriver',
  'nut-spinner',
  'tweezers',
  'pliers',
  'clip-pliers',
  'soldering-iron',
  'wheel-puller',
  'press',
  'drill',
  'hook',
  'fingers',
] as const
export type Tool = (typeof tools)[number]

export const hazards = ['flies-away', 'eyes', 'brittle', 'hot-iron', 'strong-magnet', 'sharp', 'small-parts'] as const
export type Hazard = (typeof hazards)[number]

/** How hard it is to have the part again once it broke. */
export const replaceabilities = ['scrap-box', 'easy', 'order', 'rare', 'none'] as const
export type Replaceability = (typeof replaceabilities)[number]

export const componentStates = ['good', 'open', 'high-resistance', 'shorted', 'intermittent'] as const
export type ComponentState = (typeof componentStates)[number]

export const componentKinds = [
  'contact',
  'conductor',
  'insulation',
  'brush',
  'commutator',
  'winding',
  'field',
  'lamp',
  'capacitor',
  'resistor',
  'choke',
  'switch',
  'relay',
  'decoder',
] as const
export type ComponentKind = (typeof componentKinds)[number]

/** Where on the chain from rail to rail a node lies; the order of the drawing. */
export const stages = [
  'rail',
  'tread',
  'wheel',
  'pickup',
  'lead',
  'board',
  'motor-lead',
  'brush',
  'commutator',
  'auxiliary',
] as const
export type Stage = (typeof stages)[number]

export const Unit = Type.Object(
  {
    id: Id,
    name: Words,
    role: OneOf(['powered', 'collecting', 'dummy'] as const),
    massGrams: OrNull(Type.Number({ exclusiveMinimum: 0, maximum: 50_000 })),
    /** Points of the circuit that are its bare metal frame or block; none where the frame is plastic or not known. */
    chassis: Type.Optional(Type.Array(Id, { maxItems: 4 })),
  },
  closed,
)
export type Unit = Static<typeof Unit>

export const Removal = Type.Object(
  {
    minutes: Type.Number({ minimum: 0, maximum: 600 }),
    refitMinutes: Type.Number({ minimum: 0, maximum: 600 }),
    needs: Needs,
    tools: Type.Array(OneOf(tools), { maxItems: 6 }),
    /** Chance that it breaks or is lost coming off, judged for an aged example. */
    risk: Type.Number({ minimum: 0, maximum: 1 }),
    replacement: OneOf(replaceabilities),
    hazards: Type.Array(OneOf(hazards), { maxItems: 7 }),
    /** Why it is better left alone; empty when it need not be. */
    leaveAlone: Remark,
    /** Which way round, over or under what: read on the way back. */
    wayBack: Remark,
  },
  closed,
)
export type Removal = Static<typeof Removal>

export const Part = Type.Object(
  {
    id: Id,
    name: Words,
    kind: OneOf(partKinds),
    unit: Id,
    /** The part it sits on: a tyre its wheel. */
    of: Type.Optional(Id),
    materials: Type.Array(OneOf(materials), { minItems: 1, maxItems: 6 }),
    place: Remark,
    heldBy: Remark,
    massGrams: OrNull(Type.Number({ minimum: 0, maximum: 20_000 })),
    /** Null: it never comes off by itself. */
    removal: OrNull(Removal),
  },
  closed,
)
export type Part = Static<typeof Part>

/** A place one must reach: what must be off, and what must still be on. */
export const Access = Type.Object(
  {
    id: Id,
    name: Words,
    off: Needs,
    on: Type.Array(Id, { maxItems: 40 }),
    /** What tests and remedies ask for it by, and of which motor. */
    leadsTo: Type.Optional(
      Type.Object(
        {
          to: OneOf(['inside', 'terminals', 'brushes', 'commutator', 'motor-out'] as const),
          motor: OrNull(Id),
        },
        closed,
      ),
    ),
  },
  closed,
)
export type Access = Static<typeof Access>

export const CircuitNode = Type.Object(
  {
    id: Id,
    name: Words,
    stage: OneOf(stages),
    /** How a probe gets there: an access, or null when it can be touched as the engine stands. */
    access: OrNull(Id),
  },
  closed,
)
export type CircuitNode = Static<typeof CircuitNode>

export const CircuitComponent = Type.Object(
  {
    id: Id,
    name: Words,
    kind: OneOf(componentKinds),
    from: Id,
    to: Id,
    /** Resistance while good, Ω; null where it is open while good (insulation, capacitor, relay contact at rest). */
    ohms: OrNull(Type.Number({ minimum: 0, maximum: 1e8 })),
    /** Resistance in the states that have one of their own; otherwise the kind's usual value. */
    highOhms: OrNull(Type.Number({ minimum: 0, maximum: 1e8 })),
    part: OrNull(Id),
    unit: Id,
    /** The motor, wheel set or switch it is a piece of. */
    of: Type.Optional(Id),
    /** What it is besides its kind. */
    role: Type.Optional(OneOf(['axle-cup', 'decoder-rail-lead', 'decoder-motor-lead', 'decoder-separation'] as const)),
    /** What may be wrong with it. */
    faults: Type.Array(OneOf(componentStates.slice(1) as Array<Exclude<ComponentState, 'good'>>), { maxItems: 4 }),
    /** Passes only in these positions of a switch. */
    closedIn: OrNull(Type.Object({ switch: Id, positions: Type.Array(Id, { minItems: 1, maxItems: 8 }) }, closed)),
    lamp: OrNull(
      Type.Object(
        {
          volts: Type.Number({ exclusiveMinimum: 0, maximum: 60 }),
          amps: Type.Number({ exclusiveMinimum: 0, maximum: 5 }),
          kind: OneOf(['filament', 'led'] as const),
        },
        closed,
      ),
    ),
  },
  closed,
)
export type CircuitComponent = Static<typeof CircuitComponent>

/** A switch with positions: the sequence switch of an AC machine, a decoder that passes or not, a return switch. */
export const CircuitSwitch = Type.Object(
  {
    id: Id,
    name: Words,
    /** A drum that steps at each interruption, a relay, or what a decoder lets through. */
    kind: Type.Optional(OneOf(['sequence', 'relay', 'decoder'] as const)),
    positions: Type.Array(Type.Object({ id: Id, name: Words }, closed), { minItems: 1, maxItems: 8 }),
    /** Position while nothing else is said. */
    rest: Id,
    part: OrNull(Id),
  },
  closed,
)
export type CircuitSwitch = Static<typeof CircuitSwitch>

export const Motor = Type.Object(
  {
    id: Id,
    name: Words,
    kind: OneOf(['open-frame', 'side-brush', 'can', 'coreless', 'ac-series'] as const),
    part: Id,
    /** The component that is its armature winding. */
    armature: Id,
    /** The component that is its wound field; null with a permanent magnet. */
    field: OrNull(Id),
    /** V·s/rad with a permanent magnet; V·s/(rad·A) of field current with a wound field. */
    backEmf: Type.Number({ exclusiveMinimum: 0, maximum: 10 }),
    /** Friction at the motor shaft of motor and train together, N·m and N·m·s/rad. */
    coulombTorque: Type.Number({ minimum: 0, maximum: 1 }),
    viscousTorque: Type.Number({ exclusiveMinimum: 0, maximum: 1 }),
    segments: Type.Integer({ minimum: 3, maximum: 13 }),
    rotor: Id,
    /** The last components before its two terminals, plus side first: what is cut when a decoder goes in. */
    feeds: Type.Object({ plus: Id, minus: Id }, closed),
    /** False for a closed can: brushes and commutator cannot be reached. */
    opens: Type.Boolean(),
  },
  closed,
)
export type Motor = Static<typeof Motor>

export const Rotor = Type.Object(
  {
    id: Id,
    name: Words,
    kind: OneOf(['armature', 'shaft', 'worm', 'gear', 'idler', 'axle'] as const),
    part: Id,
    unit: Id,
  },
  closed,
)
export type Rotor = Static<typeof Rotor>

export const DriveLink = Type.Object(
  {
    id: Id,
    name: Words,
    kind: OneOf(['worm', 'mesh', 'press-fit', 'joint', 'muff', 'rods', 'belt'] as const),
    from: Id,
    to: Id,
    /** Starts of a worm or teeth of a gear; null where both turn alike. */
    teethFrom: OrNull(Type.Number({ exclusiveMinimum: 0, maximum: 500 })),
    teethTo: OrNull(Type.Number({ exclusiveMinimum: 0, maximum: 500 })),
    reverses: Type.Boolean(),
    part: OrNull(Id),
  },
  closed,
)
export type DriveLink = Static<typeof DriveLink>

export const Wheel = Type.Object(
  {
    part: Id,
    insulated: Type.Boolean(),
    tyre: Type.Boolean(),
    /** The component that is this wheel's touch on the rail; null when it cannot collect. */
    tread: OrNull(Id),
  },
  closed,
)
export type Wheel = Static<typeof Wheel>

export const WheelSet = Type.Object(
  {
    id: Id,
    name: Words,
    rotor: Id,
    unit: Id,
    truck: Id,
    /** Distance of the axle from the front of its unit, mm. */
    xMm: Type.Number({ minimum: 0, maximum: 2000 }),
    diameterMm: Type.Number({ exclusiveMinimum: 0, maximum: 200 }),
    left: Wheel,
    right: Wheel,
    /** 1 when a positive turn of its rotor moves the engine forward, −1 otherwise. */
    forward: OneOf(['with', 'against'] as const),
  },
  closed,
)
export type WheelSet = Static<typeof WheelSet>

export const Truck = Type.Object({ id: Id, name: Words, unit: Id }, closed)
export type Truck = Static<typeof Truck>

/** Centre roller or shoe of a three-rail machine. */
export const CentrePickup = Type.Object(
  {
    id: Id,
    name: Words,
    unit: Id,
    xMm: Type.Number({ minimum: 0, maximum: 2000 }),
    tread: Id,
    part: Id,
    /** A shoe slides on the rail; left out, it is a roller that turns on a spindle. */
    slides: Type.Optional(Type.Boolean()),
  },
  closed,
)
export type CentrePickup = Static<typeof CentrePickup>

/** Something that can be refitted the other way round, and what that does. */
export const Turnable = Type.Object(
  {
    id: Id,
    name: Words,
    /** What mending it by hand takes, without getting there. */
    minutes: Type.Number({ minimum: 0, maximum: 600 }),
    access: OrNull(Id),
    effects: Type.Array(
      Type.Union([
        /** Treads that come to lie on the other rail. */
        Type.Object(
          { kind: Type.Literal('swap-rails'), components: Type.Array(Id, { minItems: 1, maxItems: 60 }) },
          closed,
        ),
        Type.Object(
          { kind: Type.Literal('swap-ends'), end: OneOf(['from', 'to'] as const), first: Id, second: Id },
          closed,
        ),
        Type.Object({ kind: Type.Literal('turn-magnet'), motor: Id }, closed),
        Type.Object({ kind: Type.Literal('turn-link'), link: Id }, closed),
        /** An axle put in the other way round: its wheels change sides, what touches them stays. */
        Type.Object({ kind: Type.Literal('turn-wheel-set'), wheelSet: Id }, closed),
        /** A truck that carries its own motor, facing the other way: it pulls the other way. */
        Type.Object({ kind: Type.Literal('face-back'), truck: Id }, closed),
      ]),
      { minItems: 1, maxItems: 60 },
    ),
  },
  closed,
)
export type Turnable = Static<typeof Turnable>

export const carePointKinds = [
  'motor-bearing-far',
  'motor-bearing-commutator',
  'worm',
  'gear-train',
  'universal-joint',
  'axle-bearing',
  'axle-bearing-live',
  'rods',
  'axle-box-worn',
  'collecting-contact',
  'commutator',
  'brushes',
  'switch-contacts',
] as const
export const CarePoint = Type.Object({ id: Id, kind: OneOf(carePointKinds), part: Id, access: OrNull(Id) }, closed)
export type CarePoint = Static<typeof CarePoint>

export const EngineDescription = Type.Object(
  {
    version: Type.Integer({ minimum: 1 }),
    id: Id,
    name: Words,
    summary: Remark,
    source: Words,
    power: OneOf(['dc', 'ac', 'dcc'] as const),
    units: Type.Array(Unit, { minItems: 1, maxItems: 12 }),
    parts: Type.Array(Part, { minItems: 1, maxItems: 400 }),
    accesses: Type.Array(Access, { maxItems: 80 }),
    nodes: Type.Array(CircuitNode, { minItems: 2, maxItems: 400 }),
    components: Type.Array(CircuitComponent, { minItems: 1, maxItems: 600 }),
    switches: Type.Array(CircuitSwitch, { maxItems: 12 }),
    /** The two nodes a track supplies: two rails, or centre and outer. */
    rails: Type.Object({ plus: Id, minus: Id }, closed),
    motors: Type.Array(Motor, { maxItems: 6 }),
    rotors: Type.Array(Rotor, { maxItems: 120 }),
    links: Type.Array(DriveLink, { maxItems: 160 }),
    trucks: Type.Array(Truck, { maxItems: 24 }),
    wheelSets: Type.Array(WheelSet, { maxItems: 60 }),
    centrePickups: Type.Array(CentrePickup, { maxItems: 12 }),
    turnables: Type.Array(Turnable, { maxItems: 40 }),
    carePoints: Type.Array(CarePoint, { maxItems: 120 }),
    /** Where the rails enter a decoder, and the access to its pads; left out where there is none. */
    decoder: Type.Optional(Type.Object({ plus: Id, minus: Id, pads: Id }, closed)),
  },
  closed,
)
export type EngineDescription = Static<typeof EngineDescription>
