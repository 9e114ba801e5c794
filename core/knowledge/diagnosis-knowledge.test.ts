import { Ajv } from 'ajv'
import { describe, expect, it } from 'vitest'
import { checkKnowledge } from './check-knowledge'
import { Diagnosis } from '../diagnosis/diagnosis'
import { areas, Knowledge } from './knowledge-schema'
import { constructionPlans, describeConstruction } from './constructions'
import { diagnosisKnowledge } from './diagnosis-knowledge'

const validate = new Ajv().compile(Knowledge)
const changed = (change: (copy: Knowledge) => void): Knowledge => {
  const copy = structuredClone(diagnosisKnowledge)
  change(copy)
  return copy
}
const first = <T>(list: readonly T[], test: (entry: T) => boolean): T => list.find(test) as T

describe('the knowledge that ships', () => {
  it('keeps its own schema and points nowhere empty', () => {
    expect(validate(diagnosisKnowledge), JSON.stringify(validate.errors)).toBe(true)
    expect(checkKnowledge(diagnosisKnowledge)).toEqual([])
  })

  it('holds faults of every area, tests and remedies enough, each with its source', () => {
    expect(diagnosisKnowledge.faults.length).toBeGreaterThanOrEqual(60)
    expect(diagnosisKnowledge.tests.length).toBeGreaterThanOrEqual(45)
    expect(new Set(diagnosisKnowledge.faults.map((fault) => fault.area))).toEqual(new Set(areas))
    for (const row of [...diagnosisKnowledge.faults, ...diagnosisKnowledge.tests, ...diagnosisKnowledge.remedies])
      expect(row.source.length).toBeGreaterThan(3)
  })

  it('makes every fault one of some construction, and every test one that can be made somewhere', () => {
    const seen = new Set<string>()
    for (const plan of constructionPlans) {
      for (const power of plan.power === 'dc' ? (['dc', 'dcc'] as const) : (['ac'] as const)) {
        const { engine } = new Diagnosis(describeConstruction(plan.id, power), diagnosisKnowledge, {
          circumstances: ['just-refitted'],
        })
        for (const suspect of engine.suspects) seen.add(suspect.fault.id)
        for (const test of engine.tests) seen.add(test.test.id)
      }
    }
    expect(diagnosisKnowledge.faults.filter((fault) => !seen.has(fault.id)).map((fault) => fault.id)).toEqual([])
    expect(diagnosisKnowledge.tests.filter((test) => !seen.has(test.id)).map((test) => test.id)).toEqual([])
  })

  it('refuses a chance of 1.2 by its schema', () => {
    expect(validate(changed((copy) => void Object.assign(copy.faults[0] as object, { prior: 1.2 })))).toBe(false)
    expect(
      validate(
        changed(
          (copy) =>
            void Object.assign(first(copy.faults, (fault) => fault.signs.length > 0).signs[0] as object, {
              chance: 1.2,
            }),
        ),
      ),
    ).toBe(false)
  })

  it('names remedies that wait for each other in a circle', () => {
    const flaws = checkKnowledge(
      changed((copy) => {
        first(copy.remedies, (remedy) => remedy.id === 'clean-commutator').after.push('clean-gaps')
      }),
    )
    expect(flaws.map((flaw) => flaw.place)).toContain('remedies/clean-gaps/after')
    expect(flaws[0]?.message).toContain('circle')
  })

  it('names ids that point nowhere, and are there twice', () => {
    expect(
      checkKnowledge(changed((copy) => void Object.assign(copy.faults[0] as object, { remedy: 'pray' })))[0],
    ).toMatchObject({ place: 'faults/track-dead/remedy', message: 'There is no remedy “pray”.' })
    expect(checkKnowledge(changed((copy) => void copy.tests.push(copy.tests[0] as never)))[0]?.message).toContain(
      'there twice',
    )
    expect(
      checkKnowledge(
        changed(
          (copy) =>
            void first(copy.faults, (fault) => fault.id === 'treads-film').signs.push({
              test: 'smell',
              outcome: 'sweet',
              chance: 0.5,
            }),
        ),
      )[0]?.message,
    ).toBe('The test “smell” has no outcome “sweet”.')
  })

  it('names the outcome a reading needs and does not have', () => {
    const flaws = checkKnowledge(
      changed((copy) => void first(copy.tests, (test) => test.id === 'track-run').outcomes.pop()),
    )
    expect(flaws).toEqual([
      { place: 'tests/track-run/outcomes', message: 'The outcome “trips” of “track-run” is missing.' },
    ])
  })

  it('refuses a sign that says a fault makes the engine look sound, and one on a test the circuit answers', () => {
    expect(
      checkKnowledge(
        changed(
          (copy) =>
            void first(copy.faults, (fault) => fault.id === 'treads-film').signs.push({
              test: 'smell',
              outcome: 'none',
              chance: 0.5,
            }),
        ),
      )[0]?.message,
    ).toContain('sound engine')
    expect(
      checkKnowledge(
        changed(
          (copy) =>
            void first(copy.faults, (fault) => fault.id === 'treads-film').signs.push({
              test: 'track-run',
              outcome: 'stands',
              chance: 0.5,
            }),
        ),
      )[0]?.message,
    ).toContain('read from the circuit')
  })

  it('refuses the file of a newer program', () => {
    expect(checkKnowledge({ ...diagnosisKnowledge, version: 99 })[0]?.message).toContain('newer form')
  })
})
