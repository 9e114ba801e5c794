import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dueCare, neverNoted } from './due-list'

describe('what an engine is due for', () => {
  it('is oil now and the treads overdue after 31 hours and two weekends of shows (case I; common practice)', () => {
    const due = dueCare({ ...neverNoted, hoursSinceOil: 31, shows: 2 })
    expect(due.map(({ id, state }) => [id, state])).toEqual([
      ['wipe', 'overdue'],
      ['inspect', 'overdue'],
      ['oil', 'due'],
    ])
    expect(due.find((entry) => entry.id === 'oil')?.words).toBe('31 h of 24 h')
  })

  it('is nothing while nobody knows, nor while there is time', () => {
    expect(dueCare(neverNoted)).toEqual([])
    expect(dueCare({ ...neverNoted, hoursSinceOil: 5 })).toEqual([])
  })

  it('comes sooner in gardens and on carpets', () => {
    expect(dueCare({ ...neverNoted, hoursSinceOil: 13, hoursSinceWipe: 0 })).toEqual([])
    expect(dueCare({ ...neverNoted, hoursSinceOil: 13, hoursSinceWipe: 0 }, ['garden']).map(({ id }) => id)).toEqual([
      'oil',
    ])
  })

  it('never becomes less due by running on', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 200, noNaN: true }),
        fc.double({ min: 0, max: 100, noNaN: true }),
        (hours, more) => {
          const before = dueCare({ ...neverNoted, hoursSinceOil: hours })
          const after = dueCare({ ...neverNoted, hoursSinceOil: hours + more })
          for (const entry of before)
            expect(after.find((other) => other.id === entry.id)?.share).toBeGreaterThanOrEqual(entry.share)
        },
      ),
    )
  })
})
