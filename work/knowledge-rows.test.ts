import { expect, it } from 'vitest'
import { describeConstruction } from '../core/knowledge/constructions'
import { diagnosisKnowledge } from '../core/knowledge/diagnosis-knowledge'
import { asShipped, changedKnowledge, leftOut, noChanges } from '../core/knowledge/knowledge-changes'
import type { Fault } from '../core/knowledge/knowledge-schema'
import { knowledgeRows } from './knowledge-rows'

const description = describeConstruction('tank-can')
const first = diagnosisKnowledge.faults[0] as Fault
const rowsWith = (changes: typeof noChanges) =>
  knowledgeRows('faults', changedKnowledge(diagnosisKnowledge, changes), changes, description)

it('a row is as it ships, changed with what it was, of the copy’s own, or left out', () => {
  expect(new Set(rowsWith(noChanges).map(({ state }) => state))).toEqual(new Set(['as shipped']))
  const changes = {
    ...noChanges,
    faults: [
      { ...first, prior: 0.42 },
      { ...first, id: 'own-fault' },
    ],
  }
  const rows = rowsWith(changes)
  const changed = rows.find(({ id }) => id === first.id)
  expect(changed).toMatchObject({ state: 'changed', figures: ['42 %'] })
  expect(changed?.shipped).not.toEqual(['42 %'])
  expect(rows.find(({ id }) => id === 'own-fault')?.state).toBe('own')
  expect(rowsWith(leftOut(diagnosisKnowledge, noChanges, 'faults', first.id)).at(-1)).toMatchObject({
    id: first.id,
    state: 'left out',
  })
})

it('a row left out is named where it ships and gone where it was the copy’s own; set back nothing is left of either', () => {
  const own = { ...noChanges, faults: [{ ...first, id: 'own-fault' }] }
  expect(leftOut(diagnosisKnowledge, own, 'faults', 'own-fault')).toEqual(noChanges)
  const without = leftOut(
    diagnosisKnowledge,
    leftOut(diagnosisKnowledge, noChanges, 'faults', first.id),
    'faults',
    first.id,
  )
  expect(without.without.faults).toEqual([first.id])
  expect(asShipped(without, 'faults', first.id)).toEqual(noChanges)
})

it('what an engine has no place for concerns it not', () => {
  const rows = rowsWith(noChanges)
  expect(rows.find(({ id }) => id.startsWith('sequence'))?.concerns).toBe(false)
  expect(rows.filter(({ concerns }) => concerns).length).toBeGreaterThan(20)
})
