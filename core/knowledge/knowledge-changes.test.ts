import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { diagnosisKnowledge } from './diagnosis-knowledge'
import { checkKnowledge } from './check-knowledge'
import { changedKnowledge, changesBetween, countChanges, noChanges } from './knowledge-changes'
import type { Knowledge } from './knowledge-schema'

const sorted = (knowledge: Knowledge): Knowledge => ({
  ...knowledge,
  faults: [...knowledge.faults].sort(byId),
  tests: [...knowledge.tests].sort(byId),
  remedies: [...knowledge.remedies].sort(byId),
})
const byId = (first: { id: string }, second: { id: string }): number => (first.id < second.id ? -1 : 1)
const [firstFault] = diagnosisKnowledge.faults

describe('a copy of the knowledge', () => {
  it('is what its changes make of what ships, whatever was changed, added and left out', () => {
    const which = fc.subarray([...diagnosisKnowledge.faults.keys()], { maxLength: 8 })
    fc.assert(
      fc.property(
        which,
        which,
        fc.double({ min: 0.001, max: 0.5, noNaN: true }),
        fc.boolean(),
        (changed, gone, prior, adds) => {
          const faults = diagnosisKnowledge.faults
            .map((fault, index) => (changed.includes(index) ? { ...fault, prior } : fault))
            .filter((_, index) => !gone.includes(index))
          const added = adds && firstFault ? [{ ...firstFault, id: 'own-fault' }] : []
          const copy = { ...diagnosisKnowledge, faults: [...faults, ...added] }
          expect(sorted(changedKnowledge(diagnosisKnowledge, changesBetween(diagnosisKnowledge, copy)))).toEqual(
            sorted(copy),
          )
        },
      ),
      { numRuns: 60 },
    )
  })

  it('of nothing changed is what ships, however its fields are ordered', () => {
    const turned = {
      ...diagnosisKnowledge,
      tests: diagnosisKnowledge.tests.map((test) => Object.fromEntries(Object.entries(test).reverse()) as typeof test),
    }
    expect(countChanges(changesBetween(diagnosisKnowledge, turned))).toBe(0)
    expect(changedKnowledge(diagnosisKnowledge, noChanges)).toEqual(diagnosisKnowledge)
    expect(changedKnowledge(diagnosisKnowledge, null)).toBe(diagnosisKnowledge)
  })

  it('that leaves out a remedy somebody needs says which fault misses it', () => {
    const copy = changedKnowledge(diagnosisKnowledge, {
      ...noChanges,
      without: { ...noChanges.without, remedies: ['clean-treads'] },
    })
    expect(checkKnowledge(copy).map((flaw) => flaw.message)).toContain('There is no remedy “clean-treads”.')
  })
})
