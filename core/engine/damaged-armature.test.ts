import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { damagedArmature, type ArmatureDefect } from './damaged-armature'

const ohmsOf = (segments: number, defect: ArmatureDefect): number[] =>
  [
    ...new Set(
      damagedArmature(segments, 1, defect).stretches.map(({ conductanceTimes }) =>
        Number((1 / conductanceTimes).toFixed(4)),
      ),
    ),
  ].sort((first, second) => first - second)

describe('an armature with one bad coil', () => {
  it('of three: with its coil open reads twice two thirds between those segments, one coil between the others (by hand: 2r/3 sound)', () => {
    expect(ohmsOf(3, { kind: 'coil-open' })).toEqual([1.5, 3])
  })

  it('of three: with a coil shorted is as good as a short for a third of the turn, three quarters of the usual else (by hand: r/2 of 2r/3, with 2 % left of the coil)', () => {
    const [short, else_] = ohmsOf(3, { kind: 'coil-shorted' })
    expect(short).toBeCloseTo(((0.02 * 2) / 2.02) * 1.5, 3)
    expect(else_).toBeCloseTo(((1 * 1.02) / 2.02) * 1.5, 3)
    expect(damagedArmature(3, 20, { kind: 'coil-shorted' }).shortedShare).toBeCloseTo(1 / 3, 9)
  })

  it('of five: no brushes stand right across one coil, and a shorted one is never a short (by hand: r·3r/4r and 2r·2r/4r of 6r/5)', () => {
    const found = ohmsOf(5, { kind: 'coil-shorted' })
    expect(found[0]).toBeCloseTo((1.02 * 3) / 4.02 / 1.2, 3)
    expect(found.at(-1)).toBeCloseTo((2 * 2.02) / 4.02 / 1.2, 3)
    expect(damagedArmature(5, 20, { kind: 'coil-shorted' }).shortedShare).toBe(0)
  })

  it('with a bridge of no matter how many ohms is the sound one, and with a bridge of nothing next to the shorted one', () => {
    const nothing = damagedArmature(5, 20, { kind: 'gap-bridged', ohms: 1e9 })
    expect(nothing.conductanceTimes).toBeCloseTo(1, 6)
    expect(nothing.backEmfTimes).toBeCloseTo(1, 6)
    expect(nothing.leakTimes).toBeCloseTo(0, 6)
    const [hard, shorted] = [
      damagedArmature(5, 20, { kind: 'gap-bridged', ohms: 0.33 }),
      damagedArmature(5, 20, { kind: 'coil-shorted' }),
    ]
    expect(hard.conductanceTimes).toBeCloseTo(shorted.conductanceTimes, 1)
    expect(hard.leakTimes / shorted.leakTimes).toBeCloseTo(1, 1)
  })

  it('never makes torque out of nothing: motor and resistor beside it are passive, and the less a bridge lets through the less is lost', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(3, 5, 7, 9, 13),
        fc.double({ min: 0.05, max: 500, noNaN: true }),
        fc.double({ min: 2, max: 60, noNaN: true }),
        (segments, ohms, meanOhms) => {
          const [hard, soft] = [
            damagedArmature(segments, meanOhms, { kind: 'gap-bridged', ohms }),
            damagedArmature(segments, meanOhms, { kind: 'gap-bridged', ohms: 2 * ohms }),
          ]
          for (const { conductanceTimes, leakTimes, backEmfTimes } of [hard, soft]) {
            expect(conductanceTimes).toBeGreaterThan(0)
            expect(leakTimes).toBeGreaterThanOrEqual(0)
            expect(backEmfTimes).toBeGreaterThan(0)
          }
          expect(soft.leakTimes).toBeLessThanOrEqual(hard.leakTimes + 1e-9)
        },
      ),
    )
  })
})
