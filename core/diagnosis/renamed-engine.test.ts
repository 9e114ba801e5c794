import { describe, expect, it } from 'vitest'
import { applyDifferences } from '../engine/apply-differences'
import { checkDescription } from '../engine/check-description'
import type { EngineDescription } from '../engine/description-schema'
import { fitDecoder } from '../engine/fit-decoder'
import { inPresentForm } from '../engine/older-description'
import { inFirstForm } from '../engine/older-description.test-data'
import { constructionPlans, describeConstruction } from '../knowledge/constructions'
import { diagnosisKnowledge } from '../knowledge/diagnosis-knowledge'
import { stripGoals } from '../strip/strip-goals'
import { Diagnosis } from './diagnosis'

/** Fields that hold the id of something in the description. */
const NAMING = new Set(
  'id unit access from to part of switch rotor truck tread armature field plus minus pads motor link wheelSet first second needs off on components chassis'.split(
    ' ',
  ),
)

/** The same engine by other names: every id another, in the same order of the alphabet. */
function renamed(description: EngineDescription): EngineDescription {
  const { id: _id, ...rest } = description
  const ids = [
    ...new Set(
      Object.values(rest).flatMap((list) => (Array.isArray(list) ? list.map(({ id }: { id: string }) => id) : [])),
    ),
  ].sort()
  const names = new Map(ids.map((id, index) => [id, `k${String(index).padStart(4, '0')}`]))
  const walk = (value: unknown, key: string): unknown => {
    if (typeof value === 'string') return NAMING.has(key) ? (names.get(value) ?? value) : value
    if (Array.isArray(value)) return value.map((entry) => walk(entry, key))
    if (value === null || typeof value !== 'object') return value
    return Object.fromEntries(
      Object.entries(value).map(([field, entry]) => [
        field,
        // A position belongs to its switch, and what an access leads to is a word of the trade.
        field === 'positions' || (key === 'leadsTo' && field === 'to') ? entry : walk(entry, field),
      ]),
    )
  }
  return { ...description, ...(walk(rest, '') as typeof rest) }
}

/** What a reader sees: sentences and figures, no ids. */
function legible(value: unknown): unknown[] {
  if (typeof value === 'number') return [Number(value.toPrecision(9))]
  if (typeof value === 'string') return value.includes(' ') ? [value] : []
  if (value === null || typeof value !== 'object') return []
  return Object.values(value).flatMap(legible)
}

const asDescribed = constructionPlans.map(({ id }) => [id, describeConstruction(id)] as const)
const opened = (description: EngineDescription): EngineDescription =>
  applyDifferences(
    description,
    description.motors
      .filter((motor) => motor.field === null && !motor.opens)
      .map(({ id }) => ({ kind: 'opened', motor: id, heldBy: 'tongues', minutes: 4 })),
  ).description

describe('an engine whose pieces are named otherwise', () => {
  it.each(asDescribed)('%s: is opened, searched and fitted with a decoder as before', (_id, description) => {
    for (const make of [(engine: EngineDescription) => engine, opened, fitDecoder]) {
      const [first, other] = [make(description), make(renamed(description))]
      expect(checkDescription(other).filter(({ fatal }) => fatal)).toEqual([])
      expect(legible(stripGoals(other))).toEqual(legible(stripGoals(first)))
      const asked = (engine: EngineDescription): unknown[] =>
        legible(
          new Diagnosis(engine, diagnosisKnowledge, { circumstances: ['complained-of'] }).report(
            { findings: [], events: [] },
            { off: [] },
          ),
        )
      expect(asked(other)).toEqual(asked(first))
    }
  })

  it('loses the tyre that sits on the wheel it is taken off', () => {
    const engine = renamed(describeConstruction('articulated'))
    const tyred = engine.wheelSets.find(({ left }) => left.tyre)
    const bare = applyDifferences(engine, [
      { kind: 'tyre', wheelSet: tyred?.id ?? '', side: 'left', fitted: false },
    ]).description
    expect(engine.parts.filter(({ id }) => bare.parts.every((part) => part.id !== id))).toMatchObject([
      { kind: 'tyre', of: tyred?.left.part },
    ])
  })

  it.each(asDescribed)(
    '%s: is understood from its older form, in which ids alone told what belongs where',
    (_id, now) => {
      for (const description of [now, fitDecoder(now)]) {
        expect(inPresentForm(inFirstForm(description))).toEqual(description)
      }
    },
  )
})
