import { Type, type Static } from 'typebox'
import { materials } from '../../engine/description-schema'
import { closed, OneOf, OrNull } from '../../schema/pieces'

/** What is known of cleaning: what dirties, what cleans, and what harms what. A source stands in every row. */

const Id = Type.String({ pattern: '^[a-z0-9][a-z0-9-]*$', maxLength: 60 })
const Words = Type.String({ minLength: 1, maxLength: 200 })
const Remark = Type.String({ maxLength: 300 })
const Source = Type.String({ minLength: 1, maxLength: 120 })
const Minutes = Type.Number({ minimum: 0, maximum: 600 })

/** What is cleaned: parts of one kind, treated alike. */
export const cleaningSubjects = {
  everything: 'Everything',
  treads: 'Treads',
  'wheel-backs': 'Wheel backs',
  tyres: 'Tyres',
  contacts: 'Wipers and contacts',
  commutator: 'Commutator and gaps',
  brushes: 'Brushes',
  'motor-inside': 'Motor, inside',
  'motor-closed': 'Motor that does not open',
  'motor-bearings': 'Motor bearings',
  'live-bearings': 'Axle bearings that carry current',
  'axle-bearings': 'Axle bearings',
  'axle-boxes': 'Axle boxes of plastic',
  'gears-plastic': 'Plastic gears',
  'gears-metal': 'Metal gears and shafts',
  rods: 'Rods and valve gear',
  frame: 'Frame and weights',
  body: 'Body and details',
  'switch-contacts': 'Sequence switch contacts',
  wiring: 'Leads, board, lamps',
} as const
export type CleaningSubject = keyof typeof cleaningSubjects
export const cleaningSubjectIds = Object.keys(cleaningSubjects) as CleaningSubject[]

export const levels = { good: 'good', care: 'with care', never: 'never' } as const
export type Level = keyof typeof levels

export const Soil = Type.Object(
  {
    id: Id,
    words: Words,
    looks: Remark,
    /** Minutes a wheel set by the usual way. */
    minutes: Minutes,
    /** Minutes a piece of anything else. */
    minutesElsewhere: Minutes,
    /** 0 dust first, 1 fibres, 2 grease, 3 with the surface it lies on. */
    stage: Type.Integer({ minimum: 0, maximum: 3 }),
    source: Source,
  },
  closed,
)
export type Soil = Static<typeof Soil>

export const Agent = Type.Object(
  {
    id: Id,
    words: Words,
    flammable: Type.Boolean(),
    leavesWater: Type.Boolean(),
    /** Until power may be put on what it wetted. */
    driesMinutes: Minutes,
    /** In every shop: water and soap. */
    always: Type.Boolean(),
    caution: Remark,
    source: Source,
  },
  closed,
)
export type Agent = Static<typeof Agent>

export const manners = [
  'brush',
  'dry',
  'wipe',
  'scrape',
  'rub',
  'abrade',
  'rotary',
  'power',
  'bath',
  'bath-line',
] as const
export type Manner = (typeof manners)[number]

export const Method = Type.Object(
  {
    id: Id,
    words: Words,
    manner: OneOf(manners),
    /** Of a soil's usual minutes. */
    factor: Type.Number({ exclusiveMinimum: 0, maximum: 10 }),
    lookAfter: Remark,
    caution: Remark,
    source: Source,
  },
  closed,
)
export type Method = Static<typeof Method>

const rule = { what: Id, level: OneOf(['good', 'care', 'never'] as const), why: Words, source: Source }
/** What an agent or a tool does to a material; what is not listed is good. */
export const MaterialRule = Type.Object(
  {
    material: OneOf(materials),
    ...rule,
    /** Holds also where practice calls it good for the surface. */
    firm: Type.Optional(Type.Boolean()),
  },
  closed,
)
export type MaterialRule = Static<typeof MaterialRule>
/** What an agent or a tool does to a subject, whatever it is made of; some by a school alone. */
export const SubjectRule = Type.Object(
  {
    subject: OneOf(cleaningSubjectIds),
    ...rule,
    school: Type.Optional(Id),
    option: Type.Optional(Id),
  },
  closed,
)
export type SubjectRule = Static<typeof SubjectRule>

/** What takes a soil off these subjects, the usual way first; what harms stands in it too, to be refused with its reason. */
export const Ways = Type.Object(
  {
    soil: Id,
    subjects: Type.Array(OneOf(cleaningSubjectIds), { minItems: 1 }),
    ways: Type.Array(Type.Object({ agent: OrNull(Id), method: Id }, closed), { minItems: 1 }),
    /** The first is taken wherever it may be and is at hand, whatever another would save. */
    firstPreferred: Type.Optional(Type.Boolean()),
    source: Source,
  },
  closed,
)
export type Ways = Static<typeof Ways>

export const CareKnowledge = Type.Object(
  {
    soils: Type.Array(Soil),
    agents: Type.Array(Agent),
    methods: Type.Array(Method),
    materialRules: Type.Array(MaterialRule),
    subjectRules: Type.Array(SubjectRule),
    ways: Type.Array(Ways),
  },
  closed,
)
export type CareKnowledge = Static<typeof CareKnowledge>
