import { expect, it } from 'vitest'
import { SeededRandom } from '../../../bench/casualty/random'
import { describeConstruction } from '../../knowledge/constructions'
import { diagnosisKnowledge } from '../../knowledge/diagnosis-knowledge'
import { CompiledEngine } from '../compiled-engine'
import type { TestFinding } from '../history'
import { Belief } from './belief'
import { Evidence } from './evidence'
import { slotsOf, type Slots } from './slots'

const DRAWN = 6000

/** Chance of every suspect by the definition alone: full sets drawn as likely as they were before, each weighed by the findings. */
function bySetsDrawn(engine: CompiledEngine, { slots }: Slots, findings: readonly TestFinding[]): Float64Array {
  const random = new SeededRandom(11)
  const seen = findings.map(({ test, outcome }) => {
    const index = engine.indexOfTest(test)
    return { index, outcome: engine.indexOfOutcome(index, outcome) }
  })
  const out = new Float64Array(8)
  const there = new Float64Array(engine.suspects.length)
  let whole = 0
  for (let draw = 0; draw < DRAWN; draw++) {
    const chosen = slots.flatMap(({ options }) => {
      let rest = random.next() * (1 + options.reduce((sum, { weight }) => sum + weight, 0)) - 1
      const option = rest < 0 ? undefined : options.find(({ weight }) => (rest -= weight) <= 0)
      return option ? [option] : []
    })
    const suspects = chosen.map(({ suspect }) => suspect)
    const variants = chosen.flatMap(({ variant }) => (variant >= 0 ? [variant] : []))
    const row = engine.circuitRow(variants, variants.length)
    const weight = seen.reduce((product, { index, outcome }) => {
      engine.chances(index, suspects, row, out)
      return product * (out[outcome] as number)
    }, 1)
    whole += weight
    for (const suspect of suspects) there[suspect] = (there[suspect] as number) + weight
  }
  return there.map((weight) => weight / whole)
}

it('brings the belief nearer to that of full sets drawn one by one, where two things show only together', () => {
  // Both bogies collect from both rails: one that is dirty shows nothing, and either may be, with much else.
  const engine = new CompiledEngine(describeConstruction('centre-motor'), diagnosisKnowledge, [
    'idle-ten-years',
    'damp-store',
  ])
  const findings: TestFinding[] = [
    ['track-run', 'falters'],
    ['track-current', 'flickers'],
    ['lamp-on-track', 'flickers'],
  ].map(([test = '', outcome = '']) => ({ id: test, test, outcome, state: 0 }))
  const slots = slotsOf(engine, [])
  const truth = bySetsDrawn(engine, slots, findings)
  const off = (draws: number): number => {
    const belief = new Belief(
      new Evidence(engine, slots, findings),
      { findings, events: [] },
      { cores: 90, leaves: 260, least: 0.003, draws },
    )
    return truth.reduce((sum, chance, suspect) => sum + Math.abs(chance - (belief.marginals[suspect] as number)), 0)
  }
  expect(off(1200)).toBeLessThan(0.75 * off(0))
}, 60_000)
