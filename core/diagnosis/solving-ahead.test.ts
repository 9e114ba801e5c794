import { expect, it, vi } from 'vitest'
import { describeConstruction } from '../knowledge/constructions'
import { diagnosisKnowledge } from '../knowledge/diagnosis-knowledge'
import { Diagnosis } from './diagnosis'
import { SignatureSolver } from './electrical-signature'

it('once everything is solved ahead no answer solves a circuit any more, and the answers are the same', () => {
  const description = describeConstruction('narrow-gauge')
  const [ahead, live] = [new Diagnosis(description, diagnosisKnowledge), new Diagnosis(description, diagnosisKnowledge)]
  const shares = [...ahead.prepareAhead()]
  expect(shares).toEqual([...shares].sort((first, second) => first - second))
  const solve = vi.spyOn(SignatureSolver.prototype, 'solve')
  try {
    const findings = [
      { id: '1', test: 'track-run', outcome: 'falters', state: 0 },
      { id: '2', test: 'track-current', outcome: 'flickers', state: 0 },
      { id: '3', test: 'track-rocked', outcome: 'runs', state: 0 },
    ]
    const answer = ahead.report({ findings, events: [] })
    const solvedAfterwards = solve.mock.calls.length
    const expected = live.report({ findings, events: [] })
    // Frictions that add up to a grade no single one has are few; all the rest was there.
    expect(solvedAfterwards).toBeLessThan(0.1 * (solve.mock.calls.length - solvedAfterwards))
    expect(answer).toEqual(expected)
  } finally {
    solve.mockRestore()
  }
}, 60_000)
