import { expect, it } from 'vitest'
import { careKnowledge } from '../knowledge/care/care-knowledge'
import suggestions from '../knowledge/care/suggestions.json'
import { constructionPlans, describeConstruction } from '../knowledge/constructions'
import { diagnosisKnowledge } from '../knowledge/diagnosis-knowledge'
import { circumstances } from '../knowledge/knowledge-schema'
import { cleaningGroups } from './cleaning-groups'
import { suggestedSoils } from './suggested-soils'

it('a garden runner is suspected of black paste on treads and backs, a free oiler’s of oil where current passes', () => {
  const groups = cleaningGroups(describeConstruction('tank-open'))
  expect(suggestedSoils(groups, ['garden']).get('wheel-backs@locomotive')).toEqual(['black-paste'])
  const oiled = suggestedSoils(groups, ['lubricated-freely', 'gap-bridged'])
  expect(oiled.get('commutator@locomotive')).toEqual(['carbon', 'oil-film'])
  expect(suggestedSoils(groups, []).size).toBe(0)
})

it('every sign is a fault, a circumstance or what a strip shows, and every suggested soil can be taken off there', () => {
  const signs = new Set<string>([...diagnosisKnowledge.faults.map((fault) => fault.id), ...circumstances, 'glued'])
  expect(suggestions.filter((row) => !signs.has(row.sign))).toEqual([])
  for (const plan of constructionPlans)
    for (const group of cleaningGroups(describeConstruction(plan.id)))
      for (const soil of suggestedSoils([group], [...signs]).get(group.id) ?? [])
        expect([
          group.subject,
          soil,
          careKnowledge.ways.some((row) => row.soil === soil && row.subjects.includes(group.subject)),
        ]).toEqual([group.subject, soil, true])
})
