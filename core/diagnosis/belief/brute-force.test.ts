import { describe, expect, it } from 'vitest'
import { SeededRandom } from '../../../bench/casualty/random'
import { describeConstruction } from '../../knowledge/constructions'
import { diagnosisKnowledge } from '../../knowledge/diagnosis-knowledge'
import type { Knowledge } from '../../knowledge/knowledge-schema'
import { CompiledEngine } from '../compiled-engine'
import type { EngineEvent, TestFinding } from '../history'
import { Belief } from './belief'
import { Evidence } from './evidence'
import { ODD_OF_STANDING, WHEELS_OF_STANDING } from './said-of-standing'
import { slotsOf, type Option } from './slots'

/**
 * Belief against every subset there is: on engines cut down to some fourteen faults each set is weighed one by one, by
 * the definition alone: its odds times the chance of every finding in the state it was made in.
 */
const kept = [
  'treads-film',
  'lead-off',
  'lead-poor',
  'brush-worn',
  'gap-bridged',
  'bearing-dry',
  'tyre-perished',
  'grease-hard',
]

function smallEngine(construction: string): CompiledEngine {
  const knowledge: Knowledge = {
    ...diagnosisKnowledge,
    faults: diagnosisKnowledge.faults.filter(({ id }) => kept.includes(id)),
    unlisted: 0.01,
  }
  return new CompiledEngine(describeConstruction(construction), knowledge)
}

/** Chance of every suspect now, and of the findings, by going through all sets. */
function byEverySet(
  engine: CompiledEngine,
  slots: ReturnType<typeof slotsOf>,
  findings: readonly TestFinding[],
  state: number,
): { readonly marginals: Float64Array; readonly sets: number } {
  const marginals = new Float64Array(engine.suspects.length)
  let [whole, sets] = [0, 0]
  const out = new Float64Array(8)
  const visit = (slot: number, chosen: readonly Option[], weight: number): void => {
    const here = slots.slots[slot]
    if (here) {
      if (!here.given) visit(slot + 1, chosen, weight)
      for (const option of here.options) visit(slot + 1, [...chosen, option], weight * option.weight)
      return
    }
    sets++
    let likelihood = weight
    for (const finding of findings) {
      const present = chosen.filter(({ bornAt, goneAt }) => bornAt <= finding.state && finding.state < goneAt)
      const variants = present.flatMap(({ variant }) => (variant < 0 ? [] : [variant]))
      const test = engine.indexOfTest(finding.test)
      const row = engine.circuitRow(variants, variants.length)
      engine.chances(
        test,
        present.map(({ suspect }) => suspect),
        row,
        out,
      )
      const { test: known, place } = engine.tests[test] as (typeof engine.tests)[number]
      const outcome = engine.indexOfOutcome(test, finding.outcome)
      if (known.needsRunning && !row.turns) {
        if (known.reading.kind !== 'wheels-turn') likelihood *= outcome > 0 ? ODD_OF_STANDING : 1
        else if (place.role === 'engine') likelihood *= WHEELS_OF_STANDING
      }
      likelihood *= out[outcome] as number
    }
    whole += likelihood
    for (const { suspect, bornAt, goneAt } of chosen)
      if (bornAt <= state && state < goneAt) marginals[suspect] = (marginals[suspect] as number) + likelihood
  }
  visit(0, [], 1)
  return { marginals: marginals.map((sum) => sum / whole), sets }
}

describe('belief on engines of few faults', () => {
  it.each([
    ['side-brush-bogie', 1],
    ['open-frame', 2],
    ['tank-can', 3],
    ['open-frame', 4],
    ['side-brush-bogie', 5],
  ])(
    'is that of every set there is (%s, seed %i)',
    (construction, seed) => {
      const engine = smallEngine(construction)
      const random = new SeededRandom(seed)
      const asked = engine.tests.filter(
        ({ test }) => test.act === 'on-the-track' || test.act === 'look-under' || test.reading.kind === 'motion',
      )
      const tests = Array.from({ length: 5 }, () => random.pick(asked))
      const findings = [...new Map(tests.map((test) => [test.id, test])).values()].map(
        ({ id, test }, index): TestFinding => ({
          id: String(index),
          test: id,
          outcome: random.pick(test.outcomes).id,
          state: 0,
        }),
      )
      const slots = slotsOf(engine, [])
      const belief = new Belief(new Evidence(engine, slots, findings), { findings, events: [] }, null, {
        cores: 4000,
        leaves: 12_000,
        least: 1e-6,
        checked: false,
      })
      const { marginals, sets } = byEverySet(engine, slots, findings, 0)
      expect(sets).toBeGreaterThan(500)
      for (const [suspect, { id }] of engine.suspects.entries())
        expect(Math.abs((belief.marginals[suspect] as number) - (marginals[suspect] as number)), id).toBeLessThan(0.005)
      // What a search on the bench can afford is near it too.
      const quick = new Belief(new Evidence(engine, slots, findings), { findings, events: [] })
      for (const [suspect, { id }] of engine.suspects.entries())
        expect(Math.abs((quick.marginals[suspect] as number) - (marginals[suspect] as number)), id).toBeLessThan(0.03)
    },
    300_000,
  )

  it('keeps the odds between what a repair mended and what it did not', () => {
    const engine = smallEngine('open-frame')
    const events: EngineEvent[] = [{ kind: 'repaired', suspect: 'treads-film@treads.frame-axles', state: 1 }]
    const findings: TestFinding[] = [
      { id: 'a', test: 'track-run', outcome: 'stands', state: 0 },
      { id: 'b', test: 'pickups-run', outcome: 'runs', state: 1 },
    ]
    const slots = slotsOf(engine, events)
    const { marginals } = byEverySet(engine, slots, findings, 1)
    const belief = new Belief(new Evidence(engine, slots, findings), { findings, events }, null, {
      cores: 4000,
      leaves: 12_000,
      least: 1e-6,
      checked: false,
    })
    for (const [suspect, { id }] of engine.suspects.entries())
      expect(Math.abs((belief.marginals[suspect] as number) - (marginals[suspect] as number)), id).toBeLessThan(0.005)
  }, 300_000)
})
