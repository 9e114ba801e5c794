import fc from 'fast-check'
import { expect, it } from 'vitest'
import { describeConstruction } from '../knowledge/constructions'
import { diagnosisKnowledge } from '../knowledge/diagnosis-knowledge'
import { Belief } from './belief'
import { CompiledEngine } from './compiled-engine'
import type { TestFinding } from './history'
import { HypothesisSpace } from './hypothesis-space'

it('a belief is the same whether its findings came one by one, after others, or all at once', () => {
  const engine = new CompiledEngine(describeConstruction('narrow-gauge'), diagnosisKnowledge)
  const shared = new HypothesisSpace(engine, [])
  const findings = fc
    .array(fc.tuple(fc.nat(engine.tests.length - 1), fc.nat(7)), { minLength: 1, maxLength: 5 })
    .map((drawn) =>
      drawn.map(([test, drawnOutcome], index): TestFinding => {
        const {
          id,
          test: { outcomes },
        } = engine.tests[test] as CompiledEngine['tests'][number]
        return { id: String(index), test: id, outcome: outcomes[drawnOutcome % outcomes.length]?.id ?? '', state: 0 }
      }),
    )
  fc.assert(
    fc.property(findings, (history) => {
      for (let count = 1; count < history.length; count++)
        new Belief(shared, { findings: history.slice(0, count), events: [] })
      const grown = new Belief(shared, { findings: history, events: [] })
      const whole = new Belief(new HypothesisSpace(engine, []), { findings: history, events: [] })
      const [one, other] = [grown.marginals, whole.marginals]
      for (const [suspect, chance] of other.entries()) expect(one[suspect]).toBeCloseTo(chance, 6)
      expect(grown.nothingHidden).toBeCloseTo(whole.nothingHidden, 6)
    }),
    { numRuns: 25 },
  )
})
