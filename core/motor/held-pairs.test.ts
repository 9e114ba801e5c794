import { describe, expect, it } from 'vitest'
import { dropFromPairs } from './held-pairs'
import type { SweepPoint } from './sweep-point'
import { fitSweep, isWholeRefusal } from './sweep-fit'

const held = (hold: number, voltage: number, ohms: number, drop = 0): SweepPoint => ({
  voltage,
  current: (voltage - drop) / ohms,
  speed: 0,
  locked: true,
  direction: 'forward',
  hold,
})
/** A three-pole armature at five angles, from half to two thirds of a winding (derived). */
const ohmsAtAngle = [18, 24, 23.4, 20.1, 24]
const pairs = (drop: number): SweepPoint[] =>
  ohmsAtAngle.flatMap((ohms, hold) => [held(hold, 1, ohms, drop), held(hold, 3, ohms, drop)])

describe('pairs of readings at one held angle', () => {
  it.each([0, 0.15, 0.4])(
    'show a brush drop of %d V exactly, however the resistance changes with the angle',
    (drop) => {
      expect(dropFromPairs(pairs(drop))?.volts).toBeCloseTo(drop, 9)
    },
  )

  it('say nothing with two pairs, or with two readings at nearly one voltage', () => {
    expect(dropFromPairs(pairs(0.2).slice(0, 4))).toBeNull()
    expect(dropFromPairs(ohmsAtAngle.flatMap((ohms, hold) => [held(hold, 2, ohms), held(hold, 2.1, ohms)]))).toBeNull()
    expect(dropFromPairs(pairs(0.2).map(({ hold: _hold, ...point }) => point))).toBeNull()
  })

  it('tell the fit what single angles leave open: the start voltage comes out right with and without a drop', () => {
    // 23 Ω on average while running, Ke 0.01, drag 1 mN·m: R·Tc/Ke + Vb.
    for (const drop of [0, 0.3]) {
      const running = [5, 7, 9, 12].map((voltage): SweepPoint => {
        const speed = (voltage - drop - 23 * 0.1) / (0.01 + 23 * 2e-5)
        return { voltage, current: 0.1 + 2e-5 * speed, speed, locked: false, direction: 'forward' }
      })
      const fit = fitSweep([
        ...[0, 1, 2, 3, 4, 5].flatMap((hold) => [
          held(hold, 1, 23 + (hold % 2 ? 1.5 : -1.5), drop),
          held(hold, 3, 23 + (hold % 2 ? 1.5 : -1.5), drop),
        ]),
        ...running,
      ])
      if (isWholeRefusal(fit)) throw new Error(fit.refused.message)
      const { keepsTurningDownTo } = fit.figures
      expect('value' in keepsTurningDownTo && Math.abs(keepsTurningDownTo.value - (drop + 2.3)) < 0.05).toBe(true)
    }
  })
})
