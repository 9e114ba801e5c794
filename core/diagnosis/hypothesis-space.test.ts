import { expect, it } from 'vitest'
import { describeConstruction } from '../knowledge/constructions'
import { diagnosisKnowledge } from '../knowledge/diagnosis-knowledge'
import { CompiledEngine } from './compiled-engine'
import { HypothesisSpace } from './hypothesis-space'

it('a column holds, for every test and outcome, what the chances of all outcomes hold; they add up to one', () => {
  const engine = new CompiledEngine(describeConstruction('tank-can'), diagnosisKnowledge)
  const given = engine.suspects.find((suspect) => suspect.place.role === 'leads')?.id ?? ''
  const space = new HypothesisSpace(engine, [{ kind: 'confirmed', suspect: given, state: 0 }])
  const sets = Int32Array.from([...space.sets.rankTriples(space.sets.odds).take(40), ...Array.from({ length: 60 }, (_, index) => Math.floor((index * space.sets.base) / 60))])
  for (const [test, { test: { outcomes } }] of engine.tests.entries()) {
    const chances = space.chancesAgain(0, test, [])
    const columns = outcomes.map((_, outcome) => space.column(0, test, outcome))
    for (const column of columns) column.fill(sets)
    for (const set of sets) {
      const expected = chances(set).slice(0, outcomes.length)
      for (const [outcome, column] of columns.entries()) expect(column.values[set]).toBeCloseTo(expected[outcome] as number, 9)
      expect(expected.reduce((sum, chance) => sum + chance, 0)).toBeCloseTo(1, 6)
    }
  }
})
