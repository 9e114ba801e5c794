import { describe, expect, it } from 'vitest'
import { careIntervals } from './due-list'
import { forecastDue, hourly } from './forecast-due'

const oil = hourly.find((interval) => interval.id === 'oil') as (typeof hourly)[number]
const TODAY = 20_000
const weekly = (hours: number, weeks: number) =>
  Array.from({ length: weeks }, (_, week) => ({ day: TODAY - 7 * (weeks - week) + 3, hours }))

describe('the intervals of the trade', () => {
  it('wipe after 8 h, oil after 24 h (common practice, one usual schedule among several)', () => {
    expect(Object.fromEntries(hourly.map((interval) => [interval.id, interval.every]))).toEqual({ wipe: 8, oil: 24 })
    expect(careIntervals.every((interval) => interval.source !== '')).toBe(true)
  })
})

describe('a forecast', () => {
  it('counts only what ran since it was done, and goes on at the pace of the last weeks', () => {
    const ran = weekly(2, 12)
    const found = forecastDue(ran, TODAY - 7 * 6, TODAY, oil)
    expect(found).toMatchObject({ spent: 12, every: 24, state: 'later' })
    // 12 h left at 2 h a week.
    expect(found.inDays).toBe(42)
    expect(found.earliest).toBe(42)
    expect(found.latest).toBe(42)
  })

  it('is wide where the weeks differ, and open at the far end where it may never be', () => {
    const uneven = [0, 0, 0, 6, 0, 0, 0, 6].map((hours, week) => ({ day: TODAY - 7 * (8 - week) + 3, hours }))
    const found = forecastDue(uneven, null, TODAY, oil)
    expect(found.spent).toBe(12)
    expect(found.earliest).toBeLessThan(found.inDays ?? 0)
    expect(found.latest ?? Infinity).toBeGreaterThan(found.inDays ?? 0)
    const once = [{ day: TODAY - 1, hours: 3 }]
    expect(forecastDue(once, null, TODAY, oil)).toMatchObject({ inDays: 49, earliest: 33, latest: 98 })
  })

  it('is due at once when the hours are used up, sooner on carpets, and without a day while it does not run', () => {
    expect(forecastDue(weekly(3, 10), null, TODAY, oil)).toMatchObject({ state: 'due', inDays: 0 })
    expect(forecastDue(weekly(2, 6), null, TODAY, oil, { shortened: 0.5 }).state).toBe('due')
    expect(forecastDue([], null, TODAY, oil)).toMatchObject({ spent: 0, inDays: null })
    const longAgo = [{ day: TODAY - 400, hours: 10 }]
    expect(forecastDue(longAgo, null, TODAY, oil)).toMatchObject({ spent: 10, inDays: null })
  })
})
