import { describe, expect, it } from 'vitest'
import type { SearchRow } from '../messages/book'
import type { SearchEntry } from '../messages/search-entries'
import { mendedInSearch } from './mended-in-search'

const row = (id: string, entry: SearchEntry): SearchRow => ({
  id,
  entry,
  engineState: 0,
  reckoned: null,
  author: 'Maren',
  capturedAt: '2026-05-04T09:00:00.000Z',
})
const confirmed = row('1', {
  kind: 'confirmed',
  suspect: 'lead-off@leads.lead.right',
  words: 'the lead is off',
  findingId: 'f',
  believed: [],
})
const open = { id: 'f', state: 'confirmed' } as const
const mended = { state: 'mended', remedy: 'Solder it' } as const

describe('what the search hears of a finding that is mended', () => {
  it('is the repair of the suspect it was confirmed as', () => {
    expect(mendedInSearch([confirmed], open, mended)).toEqual({
      kind: 'repaired',
      suspect: 'lead-off@leads.lead.right',
      words: 'Solder it: the lead is off',
      findingId: 'f',
      believed: [],
    })
  })

  it('is nothing where it was mended before, is not mended now, is not one of the search, or was struck out there', () => {
    expect(mendedInSearch([confirmed], { ...open, state: 'mended' }, mended)).toBeNull()
    expect(mendedInSearch([confirmed], open, { ...mended, state: 'declined' })).toBeNull()
    expect(mendedInSearch([], open, mended)).toBeNull()
    const struck = row('2', { kind: 'struck', entryId: '1', words: 'not so' })
    expect(mendedInSearch([confirmed, struck], open, mended)).toBeNull()
  })
})
