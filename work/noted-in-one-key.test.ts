import { describe, expect, it } from 'vitest'
import type { SearchRow } from '../messages/book'
import type { SearchEntry } from '../messages/search-entries'
import { notedInOneKey } from './noted-in-one-key'

const row = (id: string, entry: SearchEntry): SearchRow => ({
  id,
  entry,
  engineState: 0,
  reckoned: null,
  author: 'A',
  capturedAt: '2026-01-01T10:00:00.000Z',
})
const noted = (id: string, test: string, outcome: string): SearchRow =>
  row(id, { kind: 'outcome', test, outcome, words: '', why: '', off: [], believed: [] })
const found = (id: string, suspect: string): SearchRow =>
  row(id, { kind: 'confirmed', suspect, words: '', findingId: 'finding', believed: [] })

/** A look at the tyres that says “missing” has found it; “worn” is only a sign. */
const finds = (test: string, outcome: string): string | undefined =>
  outcome === 'missing' ? `${test} missing` : undefined
const ids = (rows: readonly SearchRow[]): string[] => rows.map(({ id }) => id)

describe('what was noted in one key', () => {
  const pair = [noted('look', 'tyres', 'missing'), found('found', 'tyres missing')]

  it('is taken back together, from whichever of the two it begins', () => {
    expect(ids(notedInOneKey(pair, 'look', finds))).toEqual(['found', 'look'])
    expect(ids(notedInOneKey(pair, 'found', finds))).toEqual(['found', 'look'])
  })

  it('is told apart where two keys wrote in between each other', () => {
    const both = [pair[0], noted('other', 'gears', 'missing'), pair[1], found('more', 'gears missing')] as SearchRow[]
    expect(ids(notedInOneKey(both, 'other', finds))).toEqual(['more', 'other'])
    expect(ids(notedInOneKey(both, 'found', finds))).toEqual(['found', 'look'])
  })

  it('leaves an earlier look at the same alone where it was said again by hand', () => {
    const again = [...pair, found('by hand', 'tyres missing')]
    expect(ids(notedInOneKey(again, 'by hand', finds))).toEqual(['by hand'])
    expect(ids(notedInOneKey(again, 'look', finds))).toEqual(['found', 'look'])
  })

  it('is the row alone where it only is a sign, and nothing where no such row stands', () => {
    const sign = [noted('sign', 'tyres', 'worn'), pair[1] as SearchRow]
    expect(ids(notedInOneKey(sign, 'sign', finds))).toEqual(['sign'])
    expect(ids(notedInOneKey(sign, 'found', finds))).toEqual(['found'])
    expect(notedInOneKey(sign, 'from a sheet', finds)).toEqual([])
  })
})
