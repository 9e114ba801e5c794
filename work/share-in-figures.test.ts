import { describe, expect, it } from 'vitest'
import { minutesInFigures } from './minutes-in-figures'
import { shareInFigures } from './share-in-figures'

describe('figures of two digits (derived)', () => {
  it('are written to a tenth below ten and whole above, never as 10.0', () => {
    expect([0.02, 0.0949, 0.0951, 0.34].map(shareInFigures)).toEqual([
      '2.0\u00a0%',
      '9.5\u00a0%',
      '10\u00a0%',
      '34\u00a0%',
    ])
    expect([0.4, 9.94, 9.96, 17.6].map(minutesInFigures)).toEqual([
      '0.4\u00a0min',
      '9.9\u00a0min',
      '10\u00a0min',
      '18\u00a0min',
    ])
  })
})
