import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { demoSearches } from './search-steps'
import { writtenSearch, type WrittenStep } from './write-searches'

const written = JSON.parse(readFileSync(new URL('./searches.json', import.meta.url), 'utf8')) as Record<string, { steps: WrittenStep[] }>

describe('the searches of the demo', () => {
  it.each(demoSearches.slice(1).map((search) => [search.engine, search] as const))('hold what the diagnosis believes of %s today: run npm run demo:searches when this fails', (engine, search) => {
    const now = writtenSearch(search)
    const kept = written[engine]?.steps ?? []
    expect(kept.map((step) => step.words)).toEqual(now.map((step) => step.words))
    for (const [index, step] of now.entries()) {
      for (const [place, { suspect, chance }] of (step.believed ?? []).entries()) {
        expect(kept[index]?.believed?.map((entry) => entry.suspect)).toContain(suspect)
        expect(kept[index]?.believed?.[place]?.chance).toBeCloseTo(chance, 1)
      }
    }
  }, 30_000)
})
