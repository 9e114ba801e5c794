import { describe, expect, it } from 'vitest'
import { describeConstruction } from '../core/knowledge/constructions'
import type { FindingRow, ShelfRow } from '../messages/book'
import { mendOfJob } from './mend-of-job'
import { shippedPractice } from './practised-knowledge'

const tank = describeConstruction('tank-open')
const finding = (id: string, what: string): FindingRow =>
  ({ id, what, place: '', state: 'confirmed', origin: 'inside', remedy: 'as noted', version: 1 }) as FindingRow
const confirmed = (suspect: string, findingId: string) =>
  ({ id: `s-${findingId}`, entry: { kind: 'confirmed', suspect, words: '', findingId, believed: [] } }) as never
const bottle = (product: string): ShelfRow =>
  ({
    id: product,
    name: product,
    product,
    labelled: 'not-said',
    left: 'full',
    openedOn: null,
    notes: '',
    version: 1,
  }) as ShelfRow
const mend = (suspect: string, schools: Record<string, string> = {}, shelf: ShelfRow[] = []) =>
  mendOfJob(
    {
      findings: [finding('f', 'It')],
      search: suspect ? [confirmed(suspect, 'f')] : [],
      practice: { ...shippedPractice, schools },
    },
    tank,
    shelf,
  )[0]

describe('a confirmed finding as work', () => {
  it('shows both schools of the commutator, the shop’s own first', () => {
    const shipped = mend('gap-bridged@motor.gaps')
    expect(shipped?.question).toBe('How is a commutator cleaned?')
    expect(shipped?.ways.map((way) => way.option)).toEqual(['solvent-and-wood', 'polish'])
    expect(mend('gap-bridged@motor.gaps', { commutator: 'polish' })?.ways.map((way) => way.option)).toEqual([
      'polish',
      'solvent-and-wood',
    ])
  })

  it('offers glue, sleeve and a new part for a split gear, the glue provisional and with its wait', () => {
    const ways = mend('gear-split@mesh')?.ways ?? []
    expect(ways.map(({ option, provisional, waitMinutes }) => [option, provisional, waitMinutes > 0])).toEqual([
      ['new-part', false, false],
      ['sleeve', false, false],
      ['glue', true, true],
    ])
  })

  it('says what is not on the shelf, and nothing of buds and wood', () => {
    const [way] = mend('gap-bridged@motor.gaps', {}, [bottle('mineral-spirit')])?.ways ?? []
    const here = Object.fromEntries((way?.products ?? []).map((product) => [product.words, product.here]))
    expect(here).toMatchObject({ 'isopropyl alcohol': false, 'wood stick': null })
  })

  it('leaves a finding noted by hand as it was noted', () => {
    expect(mend('')).toMatchObject({ suspect: null, ways: [], question: '' })
  })

  it('says which of what this engine can have a finding noted by hand may be, the likeliest first, and nothing by force', () => {
    const named = (what: string) => {
      const [task] = mendOfJob({ findings: [finding('f', what)], search: [], practice: shippedPractice }, tank, [])
      return {
        likely: task?.mayBe.slice(0, task.alike).map((suspect) => suspect.id) ?? [],
        all: task?.mayBe.length ?? 0,
      }
    }
    expect(named('Brush worn down').likely[0]).toMatch(/^brush-worn@/)
    expect(named('Gear cracked, split').likely[0]).toMatch(/^gear-split@/)
    expect(named('Hair wound up').likely[0]).toMatch(/^fouled|hair/)
    const nothing = named('Nameplate lost')
    expect(nothing.likely).toEqual([])
    expect(nothing.all).toBeGreaterThan(60)
    // Said once, it has its remedy.
    const [task] = mendOfJob(
      {
        findings: [finding('f', 'Gear cracked, split')],
        search: [confirmed(named('Gear cracked, split').likely[0] ?? '', 'f')],
        practice: shippedPractice,
      },
      tank,
      [],
    )
    expect(task?.ways.map((way) => way.option)).toEqual(['new-part', 'sleeve', 'glue'])
  })
})
