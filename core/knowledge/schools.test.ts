import { describe, expect, it } from 'vitest'
import { checkKnowledge } from './check-knowledge'
import { practised } from './schools-of-practice'
import { constructionPlans, describeConstruction } from './constructions'
import { diagnosisKnowledge } from './diagnosis-knowledge'
import { schools } from './schools'

const everyChoice = schools.flatMap((school) => school.options.map((option) => ({ [school.id]: option.id })))
const remedyUnder = (
  chosen: Readonly<Record<string, string>>,
  id: string,
  construction: string,
  power: 'dc' | 'dcc' = 'dc',
) =>
  practised(diagnosisKnowledge, schools, chosen, describeConstruction(construction, power)).remedies.find(
    (remedy) => remedy.id === id,
  )

describe('schools of practice', () => {
  it('are the eleven on which practitioners disagree, each with two sides or more, told apart', () => {
    expect(schools).toHaveLength(11)
    for (const { options } of schools) {
      expect(options.length).toBeGreaterThan(1)
      expect(new Set(options.map((option) => option.id)).size).toBe(options.length)
    }
  })

  it('change remedies that there are, and every remedy that names a school is one of theirs', () => {
    const ids = new Set(diagnosisKnowledge.remedies.map((remedy) => remedy.id))
    for (const { remedy } of schools.flatMap((school) => school.options.flatMap((option) => option.changes)))
      expect(ids).toContain(remedy)
    for (const remedy of diagnosisKnowledge.remedies)
      if (remedy.school !== '') expect(schools.map((school) => school.id)).toContain(remedy.school)
  })

  it.each(everyChoice)('change advice and no fact: %o', (chosen) => {
    for (const plan of constructionPlans) {
      const held = practised(diagnosisKnowledge, schools, chosen, describeConstruction(plan.id, plan.power))
      expect(held.faults).toBe(diagnosisKnowledge.faults)
      expect(held.tests).toBe(diagnosisKnowledge.tests)
      expect(
        held.remedies.map(({ id, success, reach, after, source }) => ({ id, success, reach, after, source })),
      ).toEqual(
        diagnosisKnowledge.remedies.map(({ id, success, reach, after, source }) => ({
          id,
          success,
          reach,
          after,
          source,
        })),
      )
      expect(checkKnowledge(held)).toEqual([])
    }
  })

  it('have a choke renewed on DC and bridged where a decoder is fitted, until the shop removes them anyway', () => {
    expect(remedyUnder({}, 'bridge-choke', 'centre-motor')?.name).toBe('Renew the choke')
    expect(remedyUnder({}, 'bridge-choke', 'centre-motor', 'dcc')?.name).toContain('Bridge the choke')
    expect(remedyUnder({ suppressor: 'remove' }, 'bridge-choke', 'centre-motor')?.name).toBe('Bridge the choke')
  })

  it('do not follow household oil where anything oil reaches is plastic', () => {
    const metal = constructionPlans
      .map((plan) => describeConstruction(plan.id, plan.power))
      .filter((description) =>
        practised(diagnosisKnowledge, schools, { lubricant: 'household' }, description).remedies.some((remedy) =>
          remedy.products.includes('petroleum jelly'),
        ),
      )
    for (const { parts } of metal)
      expect(parts.filter((part) => part.kind === 'gear').flatMap((part) => part.materials)).not.toContain('nylon')
    const plastic =
      constructionPlans
        .map((plan) => plan.id)
        .find((id) =>
          describeConstruction(id).parts.some((part) => part.kind === 'gear' && part.materials.includes('nylon')),
        ) ?? ''
    expect(remedyUnder({ lubricant: 'household' }, 'clean-gears', plastic)?.products).toEqual(['plastic-safe grease'])
  })

  it('glue in twelve minutes what another sleeves in twenty-five, and call it temporary', () => {
    expect(remedyUnder({ 'split-gear': 'glue' }, 'new-gear', 'centre-motor')).toMatchObject({
      minutes: 12,
      parts: [],
      name: expect.stringContaining('temporary'),
    })
    expect(remedyUnder({ 'split-gear': 'sleeve' }, 'new-gear', 'centre-motor')?.minutes).toBe(25)
  })
})
