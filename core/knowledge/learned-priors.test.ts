import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { describeConstruction } from './constructions'
import { diagnosisKnowledge } from './diagnosis-knowledge'
import { Diagnosis } from '../diagnosis/diagnosis'
import { learnedPriors, updatedChance } from './learned-priors'
import { reliability, wilsonInterval } from './reliability'

const description = describeConstruction('side-brush-bogie')
const none = { jobs: 0, found: {} }

describe('what closed jobs teach', () => {
  // Derived: Beta(1, 19) with 3 of 10 found has the mean (1 + 3) / (20 + 10).
  it('is the conjugate update of a chance by counts', () => {
    expect(updatedChance(0.05, 20, 3, 10)).toBeCloseTo(4 / 30, 12)
    expect(updatedChance(0.05, 20, 0, 0)).toBe(0.05)
  })

  // Derived by integration instead of by the formula: the mean of prior density × likelihood on a grid.
  it('agrees with the posterior mean worked out on a grid', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 0.5, noNaN: true }),
        fc.integer({ min: 0, max: 12 }),
        fc.integer({ min: 0, max: 12 }),
        (mean, found, missed) => {
          const [a, b] = [20 * mean, 20 * (1 - mean)]
          let [weight, sum] = [0, 0]
          for (let step = 1; step < 4000; step++) {
            const p = step / 4000
            const density = Math.exp((a - 1 + found) * Math.log(p) + (b - 1 + missed) * Math.log(1 - p))
            weight += density
            sum += density * p
          }
          expect(updatedChance(mean, 20, found, found + missed)).toBeCloseTo(sum / weight, 3)
        },
      ),
      { numRuns: 40 },
    )
  })

  it('moves nothing before the first job, raises what was found and lowers what was not', () => {
    expect(learnedPriors(description, diagnosisKnowledge, none, none)).toEqual([])
    const learned = new Map(
      learnedPriors(description, diagnosisKnowledge, none, { jobs: 4, found: { 'tyre-perished': 4 } }).map((entry) => [
        entry.fault,
        entry,
      ]),
    )
    expect(learned.get('tyre-perished')?.factor).toBeGreaterThan(2)
    expect(learned.get('gap-bridged')?.factor).toBeLessThan(1)
    expect(learned.get('tyre-perished')).toMatchObject({ found: 4, places: 4 })
    // A fault this construction cannot have is not judged from it.
    expect(learned.has('horn-dead')).toBe(false)
  })

  it('the type outweighs the construction where both were seen', () => {
    const factor = (construction: number, type: number) =>
      learnedPriors(
        description,
        diagnosisKnowledge,
        { jobs: 5, found: { 'tyre-perished': construction } },
        { jobs: 5, found: { 'tyre-perished': type } },
      ).find((entry) => entry.fault === 'tyre-perished')?.factor ?? 0
    expect(factor(0, 5)).toBeGreaterThan(factor(5, 0))
  })

  it('reaches the diagnosis: what the shop keeps finding is suspected sooner', () => {
    const chance = (learned: Record<string, number>): number =>
      new Diagnosis(description, diagnosisKnowledge, { learned }).engine.suspects.find(
        (suspect) => suspect.fault.id === 'tyre-perished',
      )?.prior ?? 0
    const learned = Object.fromEntries(
      learnedPriors(description, diagnosisKnowledge, none, { jobs: 6, found: { 'tyre-perished': 6 } }).map((entry) => [
        entry.fault,
        entry.factor,
      ]),
    )
    expect(chance(learned)).toBeGreaterThan(1.5 * chance({}))
  })
})

describe('how often what was said was so', () => {
  // Published: Newcombe 1998, Statistics in Medicine 17: 857–872, Table I, 81 of 263: 0.2553 to 0.3662.
  it('gives Wilson’s interval', () => {
    const [low, high] = wilsonInterval(81, 263)
    expect(low).toBeCloseTo(0.2553, 4)
    expect(high).toBeCloseTo(0.3662, 4)
  })

  it('puts every prediction in one band and counts those that were right', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ chance: fc.double({ min: 0, max: 1, noNaN: true }), right: fc.boolean() }), {
          maxLength: 60,
        }),
        (predictions) => {
          const bands = reliability(predictions)
          expect(bands.reduce((sum, band) => sum + band.count, 0)).toBe(predictions.length)
          expect(bands.reduce((sum, band) => sum + band.right, 0)).toBe(
            predictions.filter((entry) => entry.right).length,
          )
          for (const band of bands)
            expect(band.low <= band.right / band.count + 1e-12 && band.right / band.count <= band.high + 1e-12).toBe(
              true,
            )
        },
      ),
    )
  })

  it('shows forecasts that come true as often as they say as close to the line', () => {
    let seed = 1
    const uniform = (): number => (seed = (seed * 48271) % 2147483647) / 2147483647
    const predictions = Array.from({ length: 20_000 }, () => {
      const chance = uniform()
      return { chance, right: uniform() < chance }
    })
    for (const band of reliability(predictions))
      expect(Math.abs(band.right / band.count - band.meanChance)).toBeLessThan(0.03)
  })
})
