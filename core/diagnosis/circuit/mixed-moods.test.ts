import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { mixMoods, type Moods } from './mixed-moods'

const OUTCOMES = 3
const UNSTEADY = 2
const UNSTEADY_SEEN = 0.85

const likeliest = (chances: readonly number[]): number => chances.indexOf(Math.max(...chances))

/** As it is meant: each thing in each of its moods, and of what wavers every state at the moment of reading as likely. */
function byHand(readings: readonly number[][], moods: readonly Moods[], fallsTo: readonly number[]): number[] {
  const out = [0, 0, 0]
  const walk = (bit: number, weight: number, broken: number, wavering: readonly number[]): void => {
    const mood = moods[bit]
    if (mood) {
      walk(bit + 1, weight * mood[0], broken | (1 << bit), wavering)
      walk(bit + 1, weight * mood[1], broken, [...wavering, bit])
      walk(bit + 1, weight * mood[2], broken, wavering)
      return
    }
    const reached = wavering.reduce<number[]>(
      (subsets, which) => [...subsets, ...subsets.map((subset) => subset | (1 << which))],
      [broken],
    )
    const shown = reached.map((subset) => likeliest(readings[subset] as number[]))
    const changes =
      new Set(shown).size > 1 && (fallsTo.length === 0 || shown.some((outcome) => fallsTo.includes(outcome)))
    const seen = changes ? UNSTEADY_SEEN : 0
    out[UNSTEADY] = (out[UNSTEADY] as number) + weight * seen
    for (const subset of reached)
      for (let at = 0; at < OUTCOMES; at++)
        out[at] =
          (out[at] as number) + (weight * (1 - seen) * ((readings[subset] as number[])[at] as number)) / reached.length
  }
  walk(0, 1, 0, [])
  return out
}

const share = fc.integer({ min: 1, max: 9 })
const parts = fc.tuple(share, share, share).map((three) => {
  const sum = three[0] + three[1] + three[2]
  return [three[0] / sum, three[1] / sum, three[2] / sum] as const
})

describe('what is seen where things come and go', () => {
  it('is that of every thing broken, wavering or made, each for itself', () => {
    fc.assert(
      fc.property(
        fc
          .integer({ min: 0, max: 3 })
          .chain((things) =>
            fc.tuple(
              fc.array(parts, { minLength: 2 ** things, maxLength: 2 ** things }),
              fc.array(parts, { minLength: things, maxLength: things }),
            ),
          ),
        fc.constantFrom<number[]>([], [0], [0, 1]),
        ([readings, moods], fallsTo) => {
          const out = new Float32Array(OUTCOMES)
          mixMoods(readings, moods, UNSTEADY, fallsTo, out, 0, OUTCOMES, 0)
          const expected = byHand(readings as unknown as number[][], moods, fallsTo)
          for (let at = 0; at < OUTCOMES; at++) expect(out[at]).toBeCloseTo(expected[at] as number, 5)
        },
      ),
    )
  })
})
