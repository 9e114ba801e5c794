import { expect, it } from 'vitest'
import { SeededRandom } from '../../../bench/casualty/random'
import { describeConstruction } from '../../knowledge/constructions'
import { diagnosisKnowledge } from '../../knowledge/diagnosis-knowledge'
import { CompiledEngine } from '../compiled-engine'
import { Diagnosis } from '../diagnosis'
import type { TestFinding } from '../history'
import { Evidence } from './evidence'
import { PopulationChain } from './population-chain'
import { populationOf } from './population'
import { slotsOf, type Option, type Slots } from './slots'
import { SetWeigher } from './weighed-sets'

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

it('draws sets as the definition has them, where two things show only together', () => {
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
  const evidence = new Evidence(engine, slots, findings)
  const { sets } = populationOf(evidence)
  const found = new Float64Array(engine.suspects.length)
  for (const { core } of sets)
    for (const option of core)
      if (option >= 0) {
        const { suspect } = evidence.options[option] as Option
        found[suspect] = (found[suspect] as number) + 1 / sets.length
      }
  // Eighty sets, each a few times: a share is known to about four in a hundred, and the worst of a hundred to thrice that.
  for (const [suspect, { id }] of engine.suspects.entries())
    expect(Math.abs((found[suspect] as number) - (truth[suspect] as number)), id).toBeLessThan(0.16)
  const off = found.reduce((sum, chance, suspect) => sum + Math.abs(chance - (truth[suspect] as number)), 0)
  expect(off / found.length).toBeLessThan(0.02)
}, 60_000)

it('weighs a change of a set as it weighs the whole set anew', () => {
  const engine = new CompiledEngine(describeConstruction('open-frame'), diagnosisKnowledge, ['idle-ten-years'])
  const findings: TestFinding[] = [
    ['track-run', 'falters', 0],
    ['track-current', 'flickers', 0],
    ['track-run', 'runs', 1],
    ['track-current', 'usual', 1],
  ].map(([test = '', outcome = '', state]) => ({
    id: `${test}${state}`,
    test: String(test),
    outcome: String(outcome),
    state: Number(state),
  }))
  const slots = slotsOf(engine, [{ kind: 'repaired', suspect: 'treads-film@treads.frame-axles', state: 1 }])
  const evidence = new Evidence(engine, slots, findings)
  const weigher = new SetWeigher(evidence)
  const random = new SeededRandom(3)
  let set = weigher.weigh(new Int16Array(slots.slots.length).fill(-1))
  for (let step = 0; step < 300; step++) {
    const option = Math.floor(random.next() * evidence.options.length)
    const slot = evidence.slotOf[option] as number
    const change = [[slot, set.core[slot] === option ? -1 : option]] as const
    set = weigher.changed(set, change, Number.NEGATIVE_INFINITY) as typeof set
    expect(set.log).toBeCloseTo(evidence.logOf(set.core), 9)
    // What cannot be reached is refused, and nothing that can.
    const back = [[slot, -1]] as const
    const whole = weigher.changed(set, back, Number.NEGATIVE_INFINITY) as typeof set
    expect(weigher.changed(set, back, whole.log - 1e-9)?.log).toBe(whole.log)
    expect(weigher.changed(set, back, whole.log + 1e-9)).toBeNull()
  }
})

it('weighs what was noted twice the same, whatever was weighed before of what was noted once', () => {
  const engine = new CompiledEngine(describeConstruction('open-frame'), diagnosisKnowledge, ['idle-ten-years'])
  const twice: TestFinding[] = [0, 1].map((state) => ({
    id: String(state),
    test: 'track-run',
    outcome: 'runs',
    state,
  }))
  const slots = slotsOf(engine, [{ kind: 'repaired', suspect: 'treads-film@treads.frame-axles', state: 1 }])
  for (const findings of [twice.slice(0, 1), twice]) {
    const evidence = new Evidence(engine, slots, findings)
    const weigher = new SetWeigher(evidence)
    for (const option of evidence.options.keys()) {
      const core = new Int16Array(slots.slots.length).fill(-1)
      core[evidence.slotOf[option] as number] = option
      expect(weigher.weigh(core).log).toBeCloseTo(evidence.logOf(core), 9)
    }
  }
})

it('believes nothing because one of few sets holds it: what is rare there is as likely as the sets without it leave it', () => {
  let compared = 0
  for (const construction of ['tender-pickup', 'open-frame', 'centre-motor', 'split-frame'] as const) {
    const diagnosis = new Diagnosis(describeConstruction(construction), diagnosisKnowledge)
    const dirty = diagnosis.engine.suspects.find(({ fault }) => fault.id === 'treads-film')?.id ?? ''
    const belief = diagnosis.believe({
      findings: [0, 1].map((state) => ({ id: String(state), test: 'track-run', outcome: 'falters', state })),
      events: [
        { kind: 'confirmed', suspect: dirty, state: 0 },
        { kind: 'repaired', suspect: dirty, state: 1 },
      ],
    })
    const sets = belief.sampled?.sets ?? []
    const { options } = belief.evidence
    for (const [suspect, chance] of belief.marginals.entries()) {
      const held = sets.filter(({ core }) =>
        core.some((option) => {
          const at = options[option]
          return at?.suspect === suspect && at.bornAt <= 1 && at.goneAt > 1
        }),
      ).length
      expect(Math.abs(chance - held / sets.length)).toBeLessThan(0.2)
      compared++
    }
  }
  expect(compared).toBeGreaterThan(200)
}, 60_000)

it('holds every set that is left after a look and a repair in one of the ways it can be', () => {
  const engine = new CompiledEngine(describeConstruction('open-frame'), diagnosisKnowledge, ['complained-of'])
  const brush = 'brush-worn@motor.brushes'
  const chain = new PopulationChain(engine)
  const { evidence, sets } = chain.after({
    findings: [
      { id: 'a', test: 'track-run', outcome: 'falters', state: 0 },
      { id: 'b', test: 'track-run', outcome: 'runs', state: 1 },
    ],
    events: [
      { kind: 'confirmed', suspect: brush, state: 0 },
      { kind: 'repaired', suspect: brush, state: 1 },
    ],
  })
  for (const { core } of sets)
    for (const [slot, { given, suspect }] of evidence.slots.slots.entries()) {
      const held = core[slot] as number
      if (given) expect(held).toBeGreaterThanOrEqual(0)
      if (held >= 0) expect(evidence.options[held]?.suspect).toBe(suspect)
    }
  const slot = evidence.slots.slots.findIndex(({ suspect }) => engine.suspects[suspect]?.id === brush)
  const gone = sets.filter(({ core }) => evidence.options[core[slot] as number]?.goneAt === 1)
  expect(gone.length / sets.length).toBeGreaterThan(0.8)
})
