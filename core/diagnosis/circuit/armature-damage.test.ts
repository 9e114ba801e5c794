import { describe, expect, it } from 'vitest'
import type { Motor } from '../../engine/description-schema'
import { describeConstruction } from '../../knowledge/constructions'
import { ArmatureDamages, caught, type StandingStart } from './armature-damage'

const [motor] = describeConstruction('open-frame').motors as [Motor]
const damages = new ArmatureDamages()
const start: StandingStart = {
  volts: 9,
  limitAmps: 2,
  siemens: 1 / 20,
  backEmf: motor.backEmf,
  woundField: false,
  coulombTorque: motor.coulombTorque,
}

describe('a damaged armature at its start', () => {
  it('of three segments with a shorted coil is caught where the supply gives way, and not where the supply can give whatever is asked', () => {
    const shorted = damages.of(motor, 20, [{ kind: 'coil-shorted' }])
    expect(caught(shorted, start)).toMatchObject({ trips: true })
    expect(caught(shorted, start).share).toBeGreaterThan(0.8)
    expect(caught(shorted, { ...start, limitAmps: 100 }).trips).toBe(false)
  })

  it('with a coil open stands the more the heavier its friction', () => {
    const open = damages.of(motor, 20, [{ kind: 'coil-open' }])
    const shares = [0.3, 1, 2, 8].map((times) => {
      const { share, sticking } = caught(open, { ...start, coulombTorque: times * motor.coulombTorque })
      return 1 - (1 - share) * (1 - sticking)
    })
    expect(shares[0]).toBe(0)
    expect(shares.toSorted((first, second) => first - second)).toEqual(shares)
    expect(shares.at(-1)).toBeCloseTo(1, 9)
  })

  it('stands at some starts and not at others only where some stretch has less pull than it drags turning: what holds it at rest holds it everywhere', () => {
    const even = {
      ...damages.of(motor, 20, []),
      stretches: [
        { conductanceTimes: 1, torqueTimes: 0.5 },
        { conductanceTimes: 1, torqueTimes: 0.5 },
      ],
    }
    // Half a pull of three times the friction is one and a half: as often enough to start it as not.
    const friction = { ...start, coulombTorque: (start.siemens * start.volts * start.backEmf) / 3 }
    expect(caught(even, friction)).toEqual({ share: 0, sticking: expect.closeTo(0.5, 9), trips: false })
    const uneven = {
      ...even,
      stretches: [
        ...even.stretches,
        { conductanceTimes: 1, torqueTimes: 0.1 },
        { conductanceTimes: 1, torqueTimes: 1 },
      ],
    }
    expect(caught(uneven, friction)).toEqual({ share: 0.25, sticking: expect.closeTo(1 / 3, 9), trips: false })
  })

  it('is never caught when it is sound, and says a number without volts, without friction and without either', () => {
    expect(caught(damages.of(motor, 20, []), start)).toEqual({ share: 0, sticking: 0, trips: false })
    const open = damages.of(motor, 20, [{ kind: 'coil-open' }])
    for (const nothing of [
      { volts: 0 },
      { coulombTorque: 0 },
      { volts: 0, coulombTorque: 0 },
      { backEmf: 0, coulombTorque: 0 },
    ])
      expect(caught(open, { ...start, ...nothing }).share).toBeGreaterThanOrEqual(0)
  })

  it('has the same of two defects in whatever order they are named', () => {
    const [one, other] = [
      damages.of(motor, 20, [{ kind: 'coil-open' }, { kind: 'gap-bridged', ohms: 6 }]),
      damages.of(motor, 20, [{ kind: 'gap-bridged', ohms: 6 }, { kind: 'coil-open' }]),
    ]
    expect(one.conductanceTimes).toBeCloseTo(other.conductanceTimes, 12)
    expect(caught(one, start).share).toBeCloseTo(caught(other, start).share, 12)
  })
})
