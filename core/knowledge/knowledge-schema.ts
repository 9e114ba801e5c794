import { Type, type Static } from 'typebox'
import { closed, OneOf } from '../schema/pieces'

/**
 * What the trade knows of faults, tests and remedies, as data. A fault names a role on the engine and what it does
 * there; which parts of a given engine play that role, and what a test then reads, is worked out from the engine.
 */

export const KNOWLEDGE_VERSION = 6

const Id = Type.String({ pattern: '^[a-z0-9][a-z0-9-]*$', maxLength: 60 })
const Words = Type.String({ minLength: 1, maxLength: 240 })
const Chance = Type.Number({ minimum: 0, maximum: 1 })

export const areas = [
  'outside',
  'pickup',
  'wiring',
  'board',
  'motor',
  'drive',
  'running-gear',
  'body',
  'switch',
  'assembly',
] as const
export type Area = (typeof areas)[number]

/** What a piece of the engine is in the chain; places-of.ts finds the pieces. */
export const placeRoles = [
  'engine',
  'outside',
  'treads',
  'axle-contacts',
  'linkage-contacts',
  'leads',
  'choke',
  'suppressor',
  'wheel-insulation',
  'other-insulation',
  'motor',
  'brush-springs',
  'brushes',
  'gaps',
  'winding',
  'winding-insulation',
  'field',
  'lamps',
  'decoder',
  'decoder-leads',
  'decoder-separation',
  'sequence',
  'sequence-coil',
  'relay',
  'relay-load',
  'worm-seat',
  'mesh',
  'joint',
  'muff',
  'rods',
  'driven-wheels',
  'wheel-sets',
  'tyres',
  'turnable',
] as const
export type PlaceRole = (typeof placeRoles)[number]

/** What is known of the engine and its past before any test; of one complained of, that something is wrong with it. */
export const circumstances = [
  'power-dc',
  'power-ac',
  'power-dcc',
  'damp-store',
  'attic-store',
  'dry-store',
  'idle-a-year',
  'idle-ten-years',
  'carpet',
  'garden',
  'exhibition',
  'worked-on-by-others',
  'just-refitted',
  'unknown-past',
  'short-lived-leads',
  'axle-cups',
  'straight-cut-gears',
  'old',
  'battery-inside',
  'lubricated-freely',
  'complained-of',
] as const
export type Circumstance = (typeof circumstances)[number]

/** Friction from this many times the motor's own on is meant to hold, not to drag: from memory. */
export const STUCK_TIMES = 10
/** How often what drags is so slight that nothing shows in the running, where the knowledge of the fault does not say: from memory. */
export const LIGHT_SHARE = 0.35

/** What a fault does to the engine; the circuit and the drive then say what is read. */
export const Effect = Type.Union([
  /** Components of the place in a state: always, now and then, or as a film that comes and goes wheel by wheel. */
  Type.Object(
    {
      kind: Type.Literal('component'),
      state: OneOf(['open', 'high-resistance', 'shorted'] as const),
      shows: OneOf(['always', 'now-and-then', 'film'] as const),
      /** Of what passes badly: how often it only takes some of the volts, so that the machine runs, slower. */
      light: Type.Optional(Type.Number({ minimum: 0, maximum: 0.95 })),
    },
    closed,
  ),
  /** Magnet strength against a sound one; below nothing, treated the other way round. */
  Type.Object({ kind: Type.Literal('magnet'), strength: Type.Number({ minimum: -2, maximum: 2 }) }, closed),
  /** Friction at the motor, in times its own; the motor itself, or the train behind it. Light: how often it is so slight that nothing shows in the running; LIGHT_SHARE where nothing is said. */
  Type.Object(
    {
      kind: Type.Literal('drag'),
      times: Type.Number({ minimum: 0, maximum: 1000 }),
      light: Type.Optional(Type.Number({ minimum: 0, maximum: 0.95 })),
      where: OneOf(['motor', 'train'] as const),
      shows: OneOf(['always', 'now-and-then'] as const),
    },
    closed,
  ),
  /** One coil of the armature is bad. Light: how often only some of its turns are shorted. */
  Type.Object(
    {
      kind: Type.Literal('winding'),
      defect: OneOf(['coil-open', 'coil-shorted'] as const),
      light: Type.Optional(Type.Number({ minimum: 0, maximum: 0.95 })),
    },
    closed,
  ),
  /** Something conducts across one gap of the commutator. */
  Type.Object({ kind: Type.Literal('gap-bridge'), ohms: Type.Number({ exclusiveMinimum: 0, maximum: 1e4 }) }, closed),
  /** The drive does not carry here. */
  Type.Object({ kind: Type.Literal('slip') }, closed),
  /** Refitted the other way round. */
  Type.Object({ kind: Type.Literal('turned') }, closed),
  /** Track or controller gives nothing, or gives it badly. */
  Type.Object(
    {
      kind: Type.Literal('supply'),
      state: OneOf(['open', 'high-resistance'] as const),
      shows: OneOf(['always', 'now-and-then'] as const),
    },
    closed,
  ),
  /** A decoder that does not run on DC, or not at all; its functions may obey all the same. */
  Type.Object(
    {
      kind: Type.Literal('decoder'),
      runsOn: Type.Array(OneOf(['dc', 'dcc'] as const), { maxItems: 2 }),
      functions: Type.Optional(Type.Literal('obey')),
    },
    closed,
  ),
  /** A lamp that mostly stays dark at its function, with such a chance, though decoder and lamp have what they need. */
  Type.Object({ kind: Type.Literal('function-dark'), chance: Chance }, closed),
  /** Nothing the circuit would show. */
  Type.Object({ kind: Type.Literal('none') }, closed),
])
export type Effect = Static<typeof Effect>

export const Fault = Type.Object(
  {
    id: Id,
    /** With {place} where the place's name goes. */
    name: Words,
    area: OneOf(areas),
    role: OneOf(placeRoles),
    effect: Effect,
    /** Chance that a machine brought to a bench has it, for each place that plays the role. */
    prior: Type.Number({ exclusiveMinimum: 0, maximum: 0.6 }),
    raisedBy: Type.Array(
      Type.Object({ when: OneOf(circumstances), times: Type.Number({ exclusiveMinimum: 0, maximum: 50 }) }, closed),
      { maxItems: 12 },
    ),
    /** Signs it gives, each independently of what else is wrong (noisy-OR). Seen: that outcome is the thing itself, and who notes it has found it. */
    signs: Type.Array(
      Type.Object({ test: Id, outcome: Id, chance: Chance, seen: Type.Optional(Type.Boolean()) }, closed),
      { maxItems: 16 },
    ),
    remedy: Id,
    /** Where one place is seen to have it, chance that another of the same kind has it too: they ran through the same years. */
    alike: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 0.95 })),
    /** Only arises where parts were taken off and put back. */
    bornAtRefit: Type.Boolean(),
    /** Comes in with this remedy at the same place, and how often. */
    bornOf: Type.Optional(
      Type.Object({ remedy: Id, chance: Type.Number({ exclusiveMinimum: 0, maximum: 0.5 }) }, closed),
    ),
    source: Words,
  },
  closed,
)
export type Fault = Static<typeof Fault>

/** How a test is read. All but `signs` are predicted from the engine's circuit and drive. */
export const Reading = Type.Union([
  Type.Object({ kind: Type.Literal('signs') }, closed),
  Type.Object(
    {
      kind: Type.Literal('motion'),
      feed: OneOf([
        'track',
        'track-rocked',
        'wheels',
        'pickups',
        'motor-leads',
        'terminals',
        'brushes',
        'dcc-track',
        'decoder-bypassed',
      ] as const),
    },
    closed,
  ),
  Type.Object(
    {
      kind: Type.Literal('current'),
      feed: OneOf(['track', 'terminals'] as const),
      resolutionAmps: Type.Number({ exclusiveMinimum: 0, maximum: 1 }),
    },
    closed,
  ),
  Type.Object({ kind: Type.Literal('direction'), feed: OneOf(['track'] as const) }, closed),
  Type.Object({ kind: Type.Literal('lamp'), feed: OneOf(['track'] as const) }, closed),
  Type.Object({ kind: Type.Literal('motor-volts'), feed: OneOf(['track'] as const) }, closed),
  Type.Object({ kind: Type.Literal('wheels-turn'), feed: OneOf(['terminals', 'track'] as const) }, closed),
  Type.Object({ kind: Type.Literal('rail-ohms') }, closed),
  Type.Object({ kind: Type.Literal('motor-ohms') }, closed),
  Type.Object({ kind: Type.Literal('wheel-continuity') }, closed),
  Type.Object({ kind: Type.Literal('component-ohms'), expect: OneOf(['closed', 'open'] as const) }, closed),
  /** Lamps by their functions on a DCC track: the decoder must have current and hear, and each lamp be whole. */
  Type.Object({ kind: Type.Literal('functions') }, closed),
  /** On the programming track; a decoder answers with a pulse of current through the motor, so both must be reached. */
  Type.Object(
    { kind: Type.Literal('programming'), reads: OneOf(['anything', 'dc-operation', 'address'] as const) },
    closed,
  ),
])
export type Reading = Static<typeof Reading>

/** What the bench must have for it. */
export const equipment = [
  'eyes',
  'ohmmeter',
  'voltmeter',
  'ammeter',
  'milliammeter',
  'supply',
  'track',
  'caliper',
  'dcc-system',
  'programming-track',
  'second-engine',
  'loupe',
] as const
export type Equipment = (typeof equipment)[number]

/** Where a test or a remedy has to get to. */
export const reaches = [
  'as-it-stands',
  'place',
  'part-out',
  'inside',
  'terminals',
  'brushes',
  'commutator',
  'motor-out',
] as const
export type Reach = (typeof reaches)[number]

/** What the hands do once; many things can be noted at it at no further price. */
export const Act = Type.Object(
  {
    id: Id,
    name: Words,
    how: Words,
    minutes: Type.Number({ exclusiveMinimum: 0, maximum: 240 }),
    caution: Type.String({ maxLength: 240 }),
    /** It is entered wheel by wheel, on a sheet of its own. */
    byWheel: Type.Optional(Type.Boolean()),
    source: Words,
  },
  closed,
)
export type Act = Static<typeof Act>

/** An observation: what can be noted at an act, or by itself where it belongs to none. */
export const Test = Type.Object(
  {
    id: Id,
    name: Words,
    /** What to do and where to touch. */
    how: Words,
    /** The act it is made at; without one it is an act of its own. */
    act: Type.Optional(Id),
    /** Made once for every place that plays this role. */
    role: OneOf(placeRoles),
    reading: Reading,
    minutes: Type.Number({ exclusiveMinimum: 0, maximum: 240 }),
    reach: OneOf(reaches),
    /** It needs the engine complete on its wheels. */
    whole: Type.Boolean(),
    /** It can only be judged while the motor turns. */
    needsRunning: Type.Boolean(),
    equipment: Type.Array(OneOf(equipment), { minItems: 1, maxItems: 4 }),
    caution: Type.String({ maxLength: 240 }),
    /** The first is what a sound engine gives; of signs the later one hides the earlier. */
    outcomes: Type.Array(
      Type.Object(
        {
          id: Id,
          name: Words,
          /** Of signs: how often it is seen with nothing wrong. */
          leak: Chance,
          /** How often on machines of a kind: a train of straight-cut gears growls with nothing wrong. */
          usual: Type.Optional(
            Type.Object({ when: OneOf(circumstances), leak: Type.Number({ minimum: 0, maximum: 0.95 }) }, closed),
          ),
          /** As who brings it in puts it, and how often that is wrong; without it, as it is seen over the counter. */
          told: Type.Optional(
            Type.Object(
              { words: Words, wrong: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 0.5 })) },
              closed,
            ),
          ),
        },
        closed,
      ),
      { minItems: 2, maxItems: 6 },
    ),
    /** How often it is misread for any of the others. */
    misread: Type.Number({ exclusiveMinimum: 0, maximum: 0.4 }),
    /** Made again at Prove, where everything has to pass. */
    proves: Type.Boolean(),
    /** Only where one of these holds; empty: always. */
    onlyWhen: Type.Array(OneOf(circumstances), { maxItems: 4 }),
    source: Words,
  },
  closed,
)
export type Test = Static<typeof Test>

export const Remedy = Type.Object(
  {
    id: Id,
    name: Words,
    minutes: Type.Number({ minimum: 0, maximum: 600 }),
    reach: OneOf(reaches),
    parts: Type.Array(Words, { maxItems: 6 }),
    products: Type.Array(Words, { maxItems: 6 }),
    caution: Type.String({ maxLength: 240 }),
    /** Chance that the fault is gone afterwards. */
    success: Type.Number({ exclusiveMinimum: 0, maximum: 1 }),
    /** Remedies that belong to it and come first. */
    after: Type.Array(Id, { maxItems: 4 }),
    /** The school of practice that changes how it is done; empty: none. */
    school: Type.String({ maxLength: 40 }),
    source: Words,
  },
  closed,
)
export type Remedy = Static<typeof Remedy>

export const Knowledge = Type.Object(
  {
    version: Type.Integer({ minimum: 1 }),
    /** Chance that something no row names is wrong. */
    unlisted: Type.Number({ exclusiveMinimum: 0, maximum: 0.3 }),
    acts: Type.Array(Act, { maxItems: 100 }),
    faults: Type.Array(Fault, { minItems: 1, maxItems: 400 }),
    tests: Type.Array(Test, { minItems: 1, maxItems: 300 }),
    remedies: Type.Array(Remedy, { minItems: 1, maxItems: 300 }),
  },
  closed,
)
export type Knowledge = Static<typeof Knowledge>

/** Outcomes a reading can have, in order; the first is the sound one. None where the test names its own signs. */
export function outcomesOfReading(reading: Reading): readonly string[] | null {
  if (reading.kind === 'signs') return null
  return reading.kind === 'programming' ? outcomesOfProgramming[reading.reads] : outcomesByKind[reading.kind]
}

const outcomesOfProgramming: Readonly<Record<Extract<Reading, { kind: 'programming' }>['reads'], readonly string[]>> = {
  anything: ['answers', 'silent'],
  'dc-operation': ['dc-on', 'dc-off', 'silent'],
  address: ['as-called', 'another', 'silent'],
}

const outcomesByKind: Readonly<Record<Exclude<Reading['kind'], 'signs' | 'programming'>, readonly string[]>> = {
  motion: ['runs', 'falters', 'stands', 'trips'],
  current: ['usual', 'nothing', 'flickers', 'high'],
  direction: ['right', 'wrong'],
  lamp: ['bright', 'dim', 'dark', 'flickers'],
  functions: ['lights', 'dark'],
  'motor-volts': ['full', 'low', 'none', 'jumps'],
  'wheels-turn': ['all', 'some', 'none'],
  'rail-ohms': ['usual', 'low', 'open', 'jumps'],
  'motor-ohms': ['usual', 'low', 'high', 'open'],
  'wheel-continuity': ['all', 'some', 'none'],
  'component-ohms': ['as-it-should', 'wrong', 'jumps'],
}

/** Words a test may have between two that it needs: a needle or a coarse display shows no “little much”, nor what lamps alone take. */
export function furtherOutcomesOf(reading: Reading): readonly string[] {
  return reading.kind === 'current' ? ['raised', 'little'] : []
}

/** The remedy of whatever is wrong inside a motor that does not open: to whoever mends it that is one thing. */
export const EXCHANGE_MOTOR = 'exchange-motor'
