import { describe, expect, it } from 'vitest'
import { constructionPlans, describeConstruction } from '../core/knowledge/constructions'
import { stripGoals } from '../core/strip/strip-goals'
import type { JobBook } from '../messages/book'
import { suggestedGoals, wishGoals } from './suggested-goals'

const jobOf = (
  wanted: string,
  parts: ReadonlyArray<readonly [string, string]> = [],
  hoursSinceOil: number | null = null,
) =>
  ({
    job: { wanted },
    parts: parts.map(([what, state]) => ({ what, state })),
    search:
      hoursSinceOil === null
        ? []
        : [
            {
              id: 'known',
              entry: {
                kind: 'known',
                circumstances: [],
                off: [],
                missing: [],
                running: { hoursSinceOil, hoursSinceWipe: null, shows: null, yearsIdle: null },
              },
            },
          ],
  }) as unknown as JobBook
const asked = (book: JobBook, construction = 'tank-open', power: 'dc' | 'dcc' = 'dc'): string[] =>
  suggestedGoals(book, stripGoals(describeConstruction(construction, power))).map(({ goal }) => goal)

describe('what the job itself wants opened', () => {
  it('a wish for a decoder, unless there is one', () => {
    expect(asked(jobOf('Decoder and sound'))).toEqual(['usual.decoder'])
    expect(asked(jobOf('Decoder and sound'), 'tank-open', 'dcc')).toEqual([])
  })

  it('a part counts once it is here, and a wish for the same is one goal', () => {
    expect(asked(jobOf('', [['Traction tyres, 4', 'ordered']]), 'side-brush-bogie')).toEqual([])
    expect(asked(jobOf('New tyres', [['Traction tyres, 4', 'here']]), 'side-brush-bogie')).toEqual(['usual.tyres'])
  })

  it('care that is due by its hours: wiped every 8, oiled every 24 (common practice)', () => {
    expect(asked(jobOf('', [], 6))).toEqual([])
    expect(asked(jobOf('', [], 8))).toEqual(['usual.contacts'])
    expect(asked(jobOf('', [], 24))).toEqual(expect.arrayContaining(['usual.contacts', 'usual.gears']))
  })

  it('every wish leads to something some construction can be opened for', () => {
    const known = new Set(
      constructionPlans.flatMap(({ id }) => stripGoals(describeConstruction(id)).map((goal) => goal.id)),
    )
    for (const { goal } of wishGoals) expect(known).toContain(goal)
  })
})
