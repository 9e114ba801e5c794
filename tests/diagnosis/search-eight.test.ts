import { describe, expect, it } from 'vitest'
import { diagnosisFor, searchCasualty, searched, type SearchOutcome } from './search-casualty'
import { evenly, foundShare, meanMinutes } from './search-summary'

/** One casualty of every second construction; the many are `npm run searches`, with their figures in docs/search.md. */
const CASUALTIES = 8
const FIRST_SEED = 90_001
/** Eight have some nineteen faults: two standard deviations under the 0.97 of the long runs. */
const LEAST_FOUND = 0.89
/** The long runs show 0.55; eight alone scatter. */
const MOST_MINUTES = 0.75

describe('searching eight simulated casualties, whose physics shares nothing with the diagnosis', () => {
  it('by the advice finds what is wrong, in less time than by the checklist', () => {
    const outcomes: Record<'advice' | 'checklist', SearchOutcome[]> = { advice: [], checklist: [] }
    for (const [place, construction] of searched.entries()) {
      if (place % 2 !== 0 || outcomes.advice.length >= CASUALTIES) continue
      const diagnosis = diagnosisFor(construction)
      for (const policy of ['advice', 'checklist'] as const)
        outcomes[policy].push(searchCasualty(FIRST_SEED + 100 * place, policy, construction, diagnosis))
    }
    const all = evenly(outcomes.advice.length)
    expect(all).toHaveLength(CASUALTIES)
    expect(foundShare(outcomes.advice)(all)).toBeGreaterThanOrEqual(LEAST_FOUND)
    expect(meanMinutes(outcomes.advice)(all)).toBeLessThan(MOST_MINUTES * meanMinutes(outcomes.checklist)(all))
  }, 600_000)
})
