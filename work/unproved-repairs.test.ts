import { expect, it } from 'vitest'
import type { SearchEntry } from '../messages/search-entries'
import { suspectOfFinding } from './suspect-of-finding'
import { unprovedRepairs } from './unproved-repairs'

const entries = (...list: Array<Partial<SearchEntry> & { kind: string }>) => ({
  search: list.map((entry, index) => ({ id: `s${index}`, entry })) as never,
})
const repaired = (words: string) => ({ kind: 'repaired', words }) as Partial<SearchEntry> & { kind: string }
const tried = { kind: 'outcome' } as Partial<SearchEntry> & { kind: string }

it('names what was mended since anything was tried, and nothing once one act was made or the repair was struck out', () => {
  expect(unprovedRepairs(entries(repaired('Springs'), tried, repaired('Tyre'), repaired('Lead')))).toEqual([
    'Tyre',
    'Lead',
  ])
  expect(unprovedRepairs(entries(repaired('Tyre'), tried))).toEqual([])
  expect(unprovedRepairs(entries(tried, repaired('Tyre'), { kind: 'struck', entryId: 's1' } as never))).toEqual([])
  expect(unprovedRepairs(entries())).toEqual([])
})

it('knows what the search calls a finding until that is mended, and nothing of one noted by hand', () => {
  const seen = { kind: 'confirmed', suspect: 'tyre-missing@tyres', words: 'a missing tyre', findingId: 'f' } as never
  const mended = { kind: 'repaired', suspect: 'tyre-missing@tyres', words: 'New tyre' } as never
  expect(suspectOfFinding(entries(seen).search, 'f')).toEqual({ id: 'tyre-missing@tyres', words: 'a missing tyre' })
  expect(suspectOfFinding(entries(seen, mended).search, 'f')).toBeNull()
  expect(suspectOfFinding(entries(seen, mended, seen).search, 'f')).not.toBeNull()
  expect(suspectOfFinding(entries(seen).search, 'another')).toBeNull()
})
