import { Type, type Static } from 'typebox'
import { closed, OrNull } from '../schema/pieces'
import { materials } from './description-schema'

/**
 * How a type departs from its construction, or one engine from its type. Kept as differences, so that what was made
 * and what this example became stay apart; applied in order, each in the trade's own terms.
 */
const Id = Type.String({ pattern: '^[a-z0-9][a-z0-9.-]*$', maxLength: 80 })
const Words = Type.String({ minLength: 1, maxLength: 120, pattern: '\\S' })

export const Difference = Type.Union([
  Type.Object(
    {
      kind: Type.Literal('motor'),
      motor: Id,
      name: Words,
      motorKind: Type.Unsafe<'open-frame' | 'side-brush' | 'can' | 'coreless'>({
        type: 'string',
        enum: ['open-frame', 'side-brush', 'can', 'coreless'],
      }),
      ohms: Type.Number({ exclusiveMinimum: 0, maximum: 1000 }),
      backEmf: Type.Number({ exclusiveMinimum: 0, maximum: 1 }),
      segments: Type.Integer({ minimum: 3, maximum: 13 }),
    },
    closed,
  ),
  Type.Object({ kind: Type.Literal('gear-ratio'), turns: Type.Number({ exclusiveMinimum: 0, maximum: 500 }) }, closed),
  Type.Object(
    {
      kind: Type.Literal('gear'),
      link: Id,
      teethFrom: Type.Integer({ minimum: 1, maximum: 500 }),
      teethTo: Type.Integer({ minimum: 1, maximum: 500 }),
    },
    closed,
  ),
  Type.Object(
    {
      kind: Type.Literal('wheels'),
      wheelSets: Type.Array(Id, { minItems: 1, maxItems: 60 }),
      diameterMm: OrNull(Type.Number({ exclusiveMinimum: 0, maximum: 200 })),
    },
    closed,
  ),
  Type.Object(
    {
      kind: Type.Literal('tyre'),
      wheelSet: Id,
      side: Type.Unsafe<'left' | 'right'>({ type: 'string', enum: ['left', 'right'] }),
      fitted: Type.Boolean(),
    },
    closed,
  ),
  Type.Object(
    {
      kind: Type.Literal('pickup'),
      wheelSet: Id,
      side: Type.Unsafe<'left' | 'right'>({ type: 'string', enum: ['left', 'right'] }),
      to: Id,
    },
    closed,
  ),
  Type.Object(
    {
      kind: Type.Literal('resistor'),
      component: Id,
      ohms: Type.Number({ exclusiveMinimum: 0, maximum: 1e6 }),
      name: Words,
    },
    closed,
  ),
  Type.Object({ kind: Type.Literal('omitted'), part: Id, bridged: Type.Boolean() }, closed),
  Type.Object(
    { kind: Type.Literal('weight'), unit: Id, grams: Type.Number({ minimum: -5000, maximum: 5000 }), place: Words },
    closed,
  ),
  Type.Object(
    {
      kind: Type.Literal('material'),
      part: Id,
      materials: Type.Array(Type.Unsafe<(typeof materials)[number]>({ type: 'string', enum: [...materials] }), {
        minItems: 1,
        maxItems: 6,
      }),
    },
    closed,
  ),
  /** Held otherwise than described: another number or kind of screws, glue, rivets. */
  Type.Object(
    {
      kind: Type.Literal('fastened'),
      part: Id,
      heldBy: Words,
      /** Off, and on again; null leaves them as they were. */
      minutes: OrNull(Type.Number({ minimum: 0, maximum: 600 })),
      refitMinutes: OrNull(Type.Number({ minimum: 0, maximum: 600 })),
    },
    closed,
  ),
  /** Something the description does not have lies over the part and comes off first. */
  Type.Object(
    {
      kind: Type.Literal('covered'),
      part: Id,
      name: Words,
      heldBy: Words,
      minutes: Type.Number({ minimum: 0, maximum: 600 }),
    },
    closed,
  ),
  /** A motor described as closed that opens all the same: brushes and commutator can be reached behind its end plate. */
  Type.Object(
    { kind: Type.Literal('opened'), motor: Id, heldBy: Words, minutes: Type.Number({ minimum: 0, maximum: 600 }) },
    closed,
  ),
  Type.Object({ kind: Type.Literal('decoder') }, closed),
])
export type Difference = Static<typeof Difference>
export type DifferenceKind = Difference['kind']
export const Differences = Type.Array(Difference, { maxItems: 80 })
