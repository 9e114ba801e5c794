import { expect, it } from 'vitest'
import { timeLeft } from './time-left'

it('counts seconds below the hour, minutes below two days, then days; and stops at nothing', () => {
  const now = Date.parse('2026-11-30T10:00:00Z')
  const after = (seconds: number): string => timeLeft(new Date(now + seconds * 1000).toISOString(), now)
  expect([-5, 9, 65, 3599, 3600, 5 * 3600 + 120, 72 * 3600].map(after)).toEqual([
    '0:00',
    '0:09',
    '1:05',
    '59:59',
    '1 h 0 min',
    '5 h 2 min',
    '3 days',
  ])
})
