import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { rippleSpeed } from './ripple-speed'

/** A current that ripples so many times a turn, with harmonics, slow drift and noise; seeded. */
function record(
  speed: number,
  ripplesPerTurn: number,
  options: { rate?: number; seconds?: number; noise?: number; ripple?: number } = {},
): Float64Array {
  const { rate = 10_000, seconds = 0.4, noise = 0.002, ripple = 0.02 } = options
  let seed = 9
  const random = (): number => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647 - 0.5
  return Float64Array.from({ length: Math.round(rate * seconds) }, (_, index) => {
    const angle = (speed * index) / rate
    return (
      0.2 +
      0.01 * (index / (rate * seconds)) +
      ripple * Math.cos(ripplesPerTurn * angle) +
      0.4 * ripple * Math.cos(2 * ripplesPerTurn * angle) +
      noise * random()
    )
  })
}

describe('speed from the ripple of the current', () => {
  it.each([
    [3, 6],
    [5, 10],
    [7, 14],
    [4, 4],
  ])('%i segments ripple %i times a turn (models: 2N for odd N, N for even)', (segments, ripples) => {
    const found = rippleSpeed(record(800, ripples), { rate: 10_000, segments, plausible: [300, 1500] })
    expect(found?.radPerSecond).toBeCloseTo(800, 0)
  })

  it('lies within four of its own deviations of the true speed', () => {
    fc.assert(
      fc.property(fc.double({ min: 250, max: 1200, noNaN: true }), fc.constantFrom(3, 5), (speed, segments) => {
        const found = rippleSpeed(record(speed, 2 * segments), { rate: 10_000, segments, plausible: [200, 1500] })
        expect(Math.abs((found?.radPerSecond ?? 0) - speed)).toBeLessThan(4 * (found?.deviation ?? 0))
      }),
      { numRuns: 60 },
    )
  })

  it('says nothing where nothing ripples, or the readings come too slowly', () => {
    expect(rippleSpeed(record(800, 6, { ripple: 0 }), { rate: 10_000, segments: 3, plausible: [300, 1500] })).toBeNull()
    expect(rippleSpeed(record(800, 6, { rate: 400 }), { rate: 400, segments: 3, plausible: [300, 1500] })).toBeNull()
    expect(rippleSpeed(new Float64Array(10), { rate: 10_000, segments: 3, plausible: [300, 1500] })).toBeNull()
  })

  it('keeps to the band that volts and ohms allow, whatever rings outside it', () => {
    const withHum = record(800, 6).map((amps, index) => amps + 0.2 * Math.cos((2 * Math.PI * 100 * index) / 10_000))
    expect(rippleSpeed(withHum, { rate: 10_000, segments: 3, plausible: [400, 1500] })?.radPerSecond).toBeCloseTo(
      800,
      0,
    )
  })
})
