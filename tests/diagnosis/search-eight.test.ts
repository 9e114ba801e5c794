import { describe, expect, it } from 'vitest'
import { diagnosisFor, searchCasualty, searched, type SearchOutcome } from './search-casualty'

/** One casualty of every second construction; the many are `npm run searches`, with their figures in docs/search.md. */
const CASUALTIES = 8
const FIRST_SEED = 90_001
/** Eight have some twenty faults: two standard deviations under the share the long runs find. */
const LEAST_FOUND = 0.78
/** So many acts, in the middle, and at most: one of them has seven things wrong, two of which turn its direction. */
const MIDDLE_ACTS = 16
const MOST_ACTS = 50

describe('searching eight simulated casualties, whose physics shares nothing with the diagnosis', () => {
  it('by the advice finds what is wrong in some dozen acts', () => {
    const outcomes: SearchOutcome[] = []
    for (const [place, construction] of searched.entries()) {
      if (place % 2 !== 0 || outcomes.length >= CASUALTIES) continue
      outcomes.push(searchCasualty(FIRST_SEED + 100 * place, 'advice', construction, diagnosisFor(construction)))
    }
    const sum = (of: (outcome: SearchOutcome) => number): number => outcomes.reduce((all, one) => all + of(one), 0)
    expect(outcomes).toHaveLength(CASUALTIES)
    expect(sum(({ found }) => found)).toBeGreaterThanOrEqual(LEAST_FOUND * sum(({ wrong }) => wrong))
    const acts = outcomes.map(({ acts: made }) => made).toSorted((one, other) => one - other)
    expect(acts[acts.length >> 1]).toBeLessThanOrEqual(MIDDLE_ACTS)
    expect(acts.at(-1)).toBeLessThanOrEqual(MOST_ACTS)
  }, 600_000)
})
