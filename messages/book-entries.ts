import { Type, type Static } from 'typebox'
import { OwnCareRows, PointAmount } from '../core/knowledge/care/own-care-rows'
import { circumstances } from '../core/knowledge/knowledge-schema'
import { arrivalFates, arrivalKinds, componentKinds, constructions, motorKinds, powers } from './vocabulary'
import { closed, Day, Id, Line, Money, NeededLine, OneOf, OrNull, Prose } from './parts'

/** Owners, engine types, engines, components and arrivals as they are written into the book. */

export const OwnerFields = Type.Object(
  {
    name: NeededLine(120),
    email: Line(160),
    phone: Line(60),
    address: Line(400),
    notes: Prose,
    isShop: Type.Boolean(),
  },
  closed,
)
export type OwnerFields = Static<typeof OwnerFields>

export const EngineTypeFields = Type.Object(
  {
    maker: NeededLine(80),
    name: NeededLine(120),
    variantMarks: Line(200),
    yearsMade: Line(40),
    gaugeMm: OrNull(Type.Number({ exclusiveMinimum: 0, maximum: 200 })),
    scaleId: OrNull(Line(20)),
    power: OneOf(powers),
    nominalVolts: Type.Number({ exclusiveMinimum: 0, maximum: 40 }),
    construction: OneOf(constructions),
    motorKind: OneOf(motorKinds),
    poles: OrNull(Type.Integer({ minimum: 2, maximum: 13 })),
    gearRatio: OrNull(Type.Number({ exclusiveMinimum: 0, maximum: 500 })),
    wheelDiameterMm: OrNull(Type.Number({ exclusiveMinimum: 0, maximum: 200 })),
    pickupLayout: Line(300),
    notes: Prose,
    /** What the maker says of its points: it goes before the general card. Added later. */
    makersAdvice: Type.Optional(OrNull(Type.Array(PointAmount, { maxItems: 30 }))),
    /** What this shop does otherwise on this type when it cleans and oils. Added later. */
    careRows: Type.Optional(OrNull(OwnCareRows)),
  },
  closed,
)
export type EngineTypeFields = Static<typeof EngineTypeFields>

export const EngineUnit = Type.Object(
  {
    id: Id,
    name: NeededLine(80),
    powered: Type.Boolean(),
    marks: Line(200),
  },
  closed,
)
export type EngineUnit = Static<typeof EngineUnit>

export const EngineFields = Type.Object(
  {
    ownerId: Id,
    typeId: Id,
    nickname: Line(80),
    runningNumber: Line(40),
    marks: Line(300),
    condition: Prose,
    history: Prose,
    differences: Prose,
    units: Type.Array(EngineUnit, { minItems: 1, maxItems: 12 }),
  },
  closed,
)
export type EngineFields = Static<typeof EngineFields>

export const ComponentFields = Type.Object(
  {
    kind: OneOf(componentKinds),
    description: NeededLine(200),
    fittedOn: OrNull(Day),
    removedOn: OrNull(Day),
    notes: Line(400),
  },
  closed,
)
export type ComponentFields = Static<typeof ComponentFields>

export const ArrivalItem = Type.Object(
  {
    id: Id,
    kind: OneOf(arrivalKinds),
    what: NeededLine(200),
    fate: OrNull(OneOf(arrivalFates)),
  },
  closed,
)
export type ArrivalItem = Static<typeof ArrivalItem>

/** An observation as who brings it in tells it, or as it is seen over the counter: an outcome of a test of the knowledge. */
export const ToldObservation = Type.Object(
  { test: NeededLine(60), outcome: NeededLine(60), words: NeededLine(240) },
  closed,
)
export type ToldObservation = Static<typeof ToldObservation>

export const JobFields = Type.Object(
  {
    complaint: NeededLine(1000),
    trial: Line(400),
    trialAttempts: Type.Integer({ minimum: 1, maximum: 100 }),
    wanted: Line(1000),
    moneyLimit: OrNull(Money),
    sentimental: Type.Boolean(),
    consent: Line(400),
    conditionOnArrival: Prose,
    dueOn: OrNull(Day),
    estimateMinutes: OrNull(Type.Integer({ minimum: 0, maximum: 60_000 })),
    arrivals: Type.Array(ArrivalItem, { maxItems: 200 }),
    /** Added later. */
    told: Type.Optional(OrNull(Type.Array(ToldObservation, { maxItems: 60 }))),
    /** The parcel it came in with others. Added later. */
    parcelId: Type.Optional(OrNull(Id)),
    /** Its surroundings and who worked on it, where somebody said so; without it the words of the take-in are read. Added later. */
    past: Type.Optional(OrNull(Type.Array(OneOf(circumstances), { maxItems: 30 }))),
  },
  closed,
)
export type JobFields = Static<typeof JobFields>
