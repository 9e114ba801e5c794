import { expect, it, vi } from 'vitest'
import { describeConstruction } from '../knowledge/constructions'
import { diagnosisKnowledge } from '../knowledge/diagnosis-knowledge'
import { CompiledEngine } from './compiled-engine'
import { Diagnosis } from './diagnosis'
import type { SearchHistory } from './history'

const begun: SearchHistory = { findings: [{ id: 'a', test: 'track-run', outcome: 'falters', state: 0 }, { id: 'b', test: 'track-current', outcome: 'flickers', state: 0 }], events: [] }

it('what was foreseen of an advised test takes little working out when it comes, and every answer is the same as unforeseen', () => {
  const description = describeConstruction('narrow-gauge')
  const [foreseen, fresh] = [new Diagnosis(description, diagnosisKnowledge), new Diagnosis(description, diagnosisKnowledge)]
  const report = foreseen.report(begun)
  expect(fresh.report(begun)).toEqual(report)
  expect(report.advice.kind).toBe('test')
  const advised = report.next.find(({ id }) => report.advice.kind === 'test' && id === report.advice.test)
  if (!advised) throw new Error('What is advised is offered.')
  for (const _ of foreseen.foresee(begun, report.state, advised)) void _
  expect(foreseen.report(begun)).toEqual(report)
  const chances = vi.spyOn(CompiledEngine.prototype, 'trueChances')
  try {
    for (const outcome of advised.outcomes) {
      const history = { ...begun, findings: [...begun.findings, { id: 'c', test: advised.id, outcome: outcome.id, state: 0 }] }
      chances.mockClear()
      const answer = foreseen.report(history)
      const workedOut = chances.mock.calls.length
      expect(answer).toEqual(fresh.report(history))
      const unforeseen = chances.mock.calls.length - workedOut
      expect(unforeseen).toBeGreaterThan(100)
      if (outcome.chance > 0.1) expect(workedOut).toBeLessThan(0.05 * unforeseen)
    }
  } finally {
    chances.mockRestore()
  }
}, 60_000)
