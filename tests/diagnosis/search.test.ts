import { describe, expect, it } from 'vitest'
import { diagnosisFor, searchCasualty, type SearchOutcome } from './search-casualty'
import { foundShare, meanMinutes } from './search-summary'

/** A few casualties whose physics shares nothing with the diagnosis; many more are in docs/search.md. */
describe('searching simulated casualties', () => {
  it('by the advice finds most of what is wrong, in less time than by the checklist', () => {
    const advice: SearchOutcome[] = []
    const checklist: SearchOutcome[] = []
    for (const construction of ['side-brush-bogie', 'narrow-gauge']) {
      const diagnosis = diagnosisFor(construction)
      for (let seed = 90_001; seed <= 90_003; seed++) {
        advice.push(searchCasualty(seed, 'advice', construction, diagnosis))
        checklist.push(searchCasualty(seed, 'checklist', construction, diagnosis))
      }
    }
    const all = [...advice.keys()]
    expect(foundShare(advice)(all)).toBeGreaterThanOrEqual(0.85)
    expect(meanMinutes(advice)(all)).toBeLessThan(0.8 * meanMinutes(checklist)(all))
  }, 240_000)
})
