import { expect } from 'vitest'
import { diagnosisFor, searchCasualty, searched, type SearchOutcome } from './search-casualty'
import { evenly, foundShare, meanMinutes } from './search-summary'

/** Half of the sixty casualties of every test run: so many of each construction of one half of the list. */
const EACH = 4
const FIRST_SEED = 90_001
/** A run of thirty has some seventy faults: two standard deviations under the 0.94 of the long runs in docs/search.md. */
const LEAST_FOUND = 0.88

/**
 * Searches thirty casualties, whose physics shares nothing with the diagnosis, by the advice and by the checklist, and
 * expects of the advice what the long runs show with room for chance.
 *
 * @param half which constructions: every second from this one on
 */
export function searchThirty(half: 0 | 1): void {
  const outcomes: Record<'advice' | 'checklist', SearchOutcome[]> = { advice: [], checklist: [] }
  for (const [place, construction] of searched.entries()) {
    if (place % 2 !== half || outcomes.advice.length >= 30) continue
    const diagnosis = diagnosisFor(construction)
    for (let seed = FIRST_SEED + 100 * place; seed < FIRST_SEED + 100 * place + EACH && outcomes.advice.length < 30; seed++) {
      for (const policy of ['advice', 'checklist'] as const) outcomes[policy].push(searchCasualty(seed, policy, construction, diagnosis))
    }
  }
  const all = evenly(outcomes.advice.length)
  expect(all).toHaveLength(30)
  expect(foundShare(outcomes.advice)(all)).toBeGreaterThanOrEqual(LEAST_FOUND)
  expect(meanMinutes(outcomes.advice)(all)).toBeLessThan(0.7 * meanMinutes(outcomes.checklist)(all))
}
