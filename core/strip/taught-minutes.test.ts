import { describe, expect, it } from 'vitest'
import { describeConstruction } from '../knowledge/constructions'
import { isRefusedStrip, planStrip } from './plan-strip'
import { withTaughtMinutes } from './taught-minutes'

const tank = describeConstruction('tank-can')
const body = tank.parts.find((part) => part.kind === 'body' && part.removal)
const minutesOfBody = (count: number, minutes: number): number =>
  withTaughtMinutes(tank, [{ part: body?.id ?? '', minutes, count }]).parts.find((part) => part.id === body?.id)
    ?.removal?.minutes ?? NaN

describe('own minutes', () => {
  it('lie between the shipped figure and the shop’s, nearer to the shop’s the more there are', () => {
    const shipped = body?.removal?.minutes ?? NaN
    const own = shipped + 12
    const after = [1, 3, 30].map((count) => minutesOfBody(count, own))
    expect(after[0]).toBeCloseTo(shipped + 6, 9)
    expect(after.toSorted((one, other) => one - other)).toEqual(after)
    expect(after[2]).toBeGreaterThan(own - 0.5)
    expect(after[2]).toBeLessThan(own)
  })

  it('go into the plan and its sum', () => {
    const before = planStrip(tank, ['usual.motor'])
    const after = planStrip(withTaughtMinutes(tank, [{ part: body?.id ?? '', minutes: 30, count: 9 }]), ['usual.motor'])
    if (isRefusedStrip(before) || isRefusedStrip(after)) throw new Error('There is a way to the motor.')
    const step = (plan: typeof before) => plan.steps.find((entry) => entry.part === body?.id)?.minutes ?? NaN
    expect(after.minutes - before.minutes).toBeCloseTo(step(after) - step(before), 9)
    expect(step(after)).toBeGreaterThan(20)
  })
})
