import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { chanceOfLooks, type Look, type ShownFrom, type SignsOfTest } from './lasting-signs'

/**
 * By the definition: every sign of every fault shows or does not, for good; each look is read anew. What was found shows
 * surely from then on, and before as if it were another.
 */
function byEveryWay(
  { outcomes, silence, leaks }: SignsOfTest,
  looks: readonly Look[],
  shown: readonly ShownFrom[] = [],
): number {
  const present = [...new Set(looks.flatMap(({ suspects }) => suspects))]
  const signs = [
    ...leaks.map((leak, outcome) => ({ outcome, chance: outcome === 0 ? 0 : leak, of: -1, from: 0, to: Infinity })),
    ...present.flatMap((of) =>
      leaks.flatMap((_, outcome) => {
        const sign = { outcome, chance: 1 - (silence[of * outcomes + outcome] as number), of, from: 0, to: Infinity }
        const found = shown.find((entry) => entry.suspect === of && entry.outcome === outcome)
        return found
          ? [
              { ...sign, to: found.look },
              { ...sign, chance: 1, from: found.look },
            ]
          : [sign]
      }),
    ),
  ].filter(({ chance, outcome }) => chance > 0 && outcome > 0)
  let whole = 0
  for (let way = 0; way < 2 ** signs.length; way++) {
    let chance = 1
    for (const [at, sign] of signs.entries()) chance *= way & (1 << at) ? sign.chance : 1 - sign.chance
    for (const [look, { suspects, outcome, spread }] of looks.entries()) {
      const showing = Math.max(
        0,
        ...signs.flatMap((sign, at) =>
          way & (1 << at) && sign.from <= look && look < sign.to && (sign.of < 0 || suspects.includes(sign.of))
            ? [sign.outcome]
            : [],
        ),
      )
      chance *= (showing === outcome ? 1 - spread : 0) + spread / outcomes
    }
    whole += chance
  }
  return whole
}

const SUSPECTS = 3
const chance = fc.double({ min: 0.05, max: 0.95, noNaN: true })

describe('several looks at one thing', () => {
  it('are worth what every way in which the signs can show says (against brute force)', () => {
    const asked = fc.integer({ min: 2, max: 4 }).chain((outcomes) =>
      fc.record({
        signs: fc.record({
          outcomes: fc.constant(outcomes),
          silence: fc
            .array(fc.oneof(fc.constant(1), chance), { minLength: SUSPECTS * outcomes, maxLength: SUSPECTS * outcomes })
            .map((all) => Float64Array.from(all, (value, at) => (at % outcomes === 0 ? 1 : value))),
          leaks: fc.array(fc.oneof(fc.constant(0), chance), { minLength: outcomes, maxLength: outcomes }),
        }),
        looks: fc.array(
          fc.record({
            suspects: fc.uniqueArray(fc.integer({ min: 0, max: SUSPECTS - 1 }), { maxLength: SUSPECTS }),
            outcome: fc.integer({ min: 0, max: outcomes - 1 }),
            spread: fc.double({ min: 0, max: 1, noNaN: true }),
          }),
          { minLength: 1, maxLength: 4 },
        ),
        shown: fc.array(
          fc.record({
            suspect: fc.integer({ min: 0, max: SUSPECTS - 1 }),
            outcome: fc.integer({ min: 1, max: outcomes - 1 }),
            look: fc.integer({ min: 0, max: 3 }),
          }),
          { maxLength: 1 },
        ),
      }),
    )
    fc.assert(
      fc.property(asked, ({ signs, looks, shown }) => {
        const found = chanceOfLooks(signs, looks, shown)
        if (found === null) return
        expect(Math.abs(found - byEveryWay(signs, looks, shown))).toBeLessThan(1e-9)
      }),
      { numRuns: 200 },
    )
  })

  it('clear a fault that does not smell once, not once more at every look (derived)', () => {
    const signs: SignsOfTest = { outcomes: 2, silence: Float64Array.from([1, 0.3]), leaks: [0, 0] }
    const look: Look = { suspects: [0], outcome: 0, spread: 0 }
    expect(chanceOfLooks(signs, [look, look, look])).toBeCloseTo(0.3, 12)
    // Another fault that smelled was mended in between: that says nothing new of this one.
    const two: SignsOfTest = { outcomes: 2, silence: Float64Array.from([1, 0.3, 1, 0.5]), leaks: [0, 0] }
    const smelled: Look = { suspects: [0, 1], outcome: 1, spread: 0 }
    expect(chanceOfLooks(two, [smelled, look, look])).toBeCloseTo(0.3 * 0.5, 12)
  })

  it('know what was found and is seen no more as mended, however often it was overlooked before (derived)', () => {
    const signs: SignsOfTest = { outcomes: 2, silence: Float64Array.from([1, 0.1]), leaks: [0, 0] }
    const spread = 0.02
    const there: Look = { suspects: [0], outcome: 0, spread }
    const gone: Look = { suspects: [], outcome: 0, spread }
    const found: Look = { suspects: [0], outcome: 1, spread }
    const times = (shown: readonly ShownFrom[]): number =>
      (chanceOfLooks(signs, [there, there, found, there], shown) ?? 0) /
      (chanceOfLooks(signs, [there, there, found, gone], shown) ?? 0)
    expect(times([{ suspect: 0, outcome: 1, look: 2 }])).toBeCloseTo(spread / 2 / (1 - spread / 2), 12)
    // Without knowing that it was found, two quiet looks and one misread would make it one that never shows.
    expect(times([])).toBeGreaterThan(0.9)
  })
})
