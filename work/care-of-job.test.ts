import { describe, expect, it } from 'vitest'
import { describeConstruction } from '../core/knowledge/constructions'
import type { JobBook } from '../messages/book'
import type { CareEntry } from '../messages/care-entries'
import type { PointAmount } from '../core/knowledge/care/own-care-rows'
import { lubricationOfJob } from './care-of-job'
import { finishedInWords } from './finished-in-words'
import { finishOfJob } from './finish-of-job'
import { shippedPractice } from './practised-knowledge'

const tank = describeConstruction('tank-open')
const bookOf = (more: { advice?: PointAmount[]; wanted?: string; entries?: CareEntry[] }) =>
  ({
    type: { makersAdvice: more.advice ?? null },
    job: { wanted: more.wanted ?? '', sentimental: false, consent: '' },
    care: (more.entries ?? []).map((entry, index) => ({
      id: `entry-${index}`,
      entry,
      capturedAt: '2026-11-30T09:00:00Z',
    })),
    cleaningMinutes: [],
    search: [],
    strip: [],
    practice: shippedPractice,
  }) as unknown as JobBook
const worm = (book: JobBook) => lubricationOfJob(book, tank, []).card.points.find(({ kind }) => kind === 'worm')

describe('the maker’s own word on a type', () => {
  it('goes before the general card, also where it says: none; but never onto a commutator', () => {
    const usual = worm(bookOf({}))
    expect(usual?.because).not.toContain('maker')
    expect(worm(bookOf({ advice: [{ point: 'worm', product: 'medium oil', amount: 'a small drop' }] }))).toMatchObject({
      product: 'medium oil',
      amount: 'a small drop',
      because: 'By the maker’s advice.',
    })
    expect(worm(bookOf({ advice: [{ point: 'worm', product: null, amount: '' }] }))).toBeUndefined()
    const { card } = lubricationOfJob(
      bookOf({ advice: [{ point: 'commutator', product: 'light oil', amount: 'a drop' }] }),
      tank,
      [],
    )
    expect(card.points.some(({ kind }) => kind === 'commutator')).toBe(false)
  })
})

describe('finish on a job', () => {
  const task = (book: JobBook, id: string) => finishOfJob(book, tank).tasks.find((entry) => entry.id === id)
  const want = (id: string, wanted: boolean, word = ''): CareEntry => ({
    kind: 'finish',
    task: id,
    wanted,
    word,
    words: id,
  })

  it('stands on the list by the owner’s words, until somebody takes it off', () => {
    expect(task(bookOf({ wanted: 'Washed, please' }), 'wash')?.onList).toBe(true)
    expect(task(bookOf({ wanted: 'Washed, please', entries: [want('wash', false)] }), 'wash')?.onList).toBe(false)
    expect(task(bookOf({ entries: [want('wax', true)] }), 'wax')?.onList).toBe(true)
  })

  it('counts its steps, and keeps the word that overruled what stood against it', () => {
    const entries: CareEntry[] = [
      { kind: 'near-mint', so: true, words: 'Near mint' },
      want('wax', true, 'the owner insists'),
      { kind: 'finished', task: 'wax', step: 1, words: 'Trial' },
    ]
    const wax = task(bookOf({ entries }), 'wax')
    expect(wax).toMatchObject({ onList: true, done: 1, word: 'the owner insists' })
    expect(wax?.refused).toContain('near mint')
    // So it stands on the sheet the owner gets: what was only asked for does not.
    const { care } = bookOf({ entries: [...entries, want('wash', true)] })
    expect(finishedInWords(care)).toEqual(['Wax the gloss: begun, 1 of 2 steps (the owner insists)'])
    const ended: CareEntry = { kind: 'finished', task: 'wash', step: 2, words: 'Washed' }
    expect(finishedInWords(bookOf({ entries: [...entries, ended] }).care)[0]).toBe('Wash the body')
  })
})
