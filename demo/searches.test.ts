import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { placesOf } from '../core/diagnosis/places/places-of'
import { suspectsOf } from '../core/diagnosis/places/suspects'
import { describeConstruction } from '../core/knowledge/constructions'
import { diagnosisKnowledge } from '../core/knowledge/diagnosis-knowledge'
import { engines } from './engines'
import { engineTypes } from './engine-types'
import { demoLearned, demoSearches, searchKey } from './search-steps'
import { writtenSearch, type WrittenStep } from './write-searches'

const written = JSON.parse(readFileSync(new URL('./searches.json', import.meta.url), 'utf8')) as Record<
  string,
  { steps: WrittenStep[] }
>

describe('the searches of the demo', () => {
  it.each(
    demoSearches
      .slice(1)
      .filter((search) => search.daysAgo === undefined)
      .map((search) => [search.engine, search] as const),
  )(
    'hold what the diagnosis believes of %s today: run npm run demo:searches when this fails',
    (engine, search) => {
      const now = writtenSearch(search)
      const kept = written[engine]?.steps ?? []
      expect(kept.map((step) => step.words)).toEqual(now.map((step) => step.words))
      for (const [index, step] of now.entries()) {
        for (const [place, { suspect, chance }] of (step.believed ?? []).entries()) {
          expect(kept[index]?.believed?.map((entry) => entry.suspect)).toContain(suspect)
          expect(kept[index]?.believed?.[place]?.chance).toBeCloseTo(chance, 1)
        }
      }
    },
    30_000,
  )

  it('name only suspects their engines can have, those that taught without a search too', () => {
    const constructionOf = (engine: string): string =>
      engineTypes.find((type) => type.key === engines.find((entry) => entry.key === engine)?.type)?.fields
        .construction ?? ''
    for (const [key, suspects] of [
      ...Object.entries(demoLearned),
      ...demoSearches.map(
        (search) =>
          [
            searchKey(search.engine, search.daysAgo),
            search.steps.flatMap((step) => (step[0] === 'confirmed' ? [step[1]] : [])),
          ] as const,
      ),
    ]) {
      const description = describeConstruction(constructionOf(key.split(':')[0] ?? ''))
      const known = suspectsOf(description, placesOf(description), diagnosisKnowledge, new Set()).map(
        (suspect) => suspect.id,
      )
      expect(known, key).toEqual(expect.arrayContaining([...suspects]))
    }
  })
})
