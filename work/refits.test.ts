import { describe, expect, it } from 'vitest'
import type { SearchRow, StripRow } from '../messages/book'
import { refitsOf } from './refits'

const at = (minute: number): string => `2026-11-30T10:${String(minute).padStart(2, '0')}:00.000Z`
const back = (part: string, minute: number): StripRow => ({
  id: `${part}-${minute}`,
  jobId: 'job',
  author: 'Maren',
  capturedAt: at(minute),
  entry: { kind: 'back', part, words: part, fate: 'placed', remark: '' },
})
const noted = (minute: number): SearchRow =>
  ({
    id: `n${minute}`,
    engineState: 0,
    author: 'Maren',
    capturedAt: at(minute),
    entry: { kind: 'outcome', test: 'track-run', outcome: 'runs', words: 'runs', why: '', off: [], believed: [] },
  }) as unknown as SearchRow

describe('what was closed again', () => {
  it('is one refit for parts that went back with nothing noted in between, from the last of them on', () => {
    expect(refitsOf([back('board', 5), back('body', 7)], [noted(1), noted(9)])).toEqual([
      { at: at(7), touched: ['board', 'body'] },
    ])
  })

  it('is divided by what was noted between, and is none before anything was noted', () => {
    expect(refitsOf([back('board', 5), back('body', 7)], [noted(1), noted(6)]).map(({ touched }) => touched)).toEqual([
      ['board'],
      ['body'],
    ])
    expect(refitsOf([back('board', 5)], [noted(9)])).toEqual([])
  })

  it('does not count what was struck out', () => {
    const struck: StripRow = { ...back('x', 8), entry: { kind: 'struck', entryId: 'body-7', words: '' } }
    expect(refitsOf([back('body', 7), struck], [noted(1)])).toEqual([])
  })
})
