import { describe, expect, it } from 'vitest'
import { constructionPlans } from '../../knowledge/constructions'
import type { EngineEvent } from '../history'
import { Case, ofRole, type Seen } from '../worked-case.test-data'
import { chainStations, type ChainStation, type ChainStretch } from './chain-left'

const at = (chain: readonly ChainStretch[], station: ChainStation): ChainStretch | undefined =>
  chain.find((stretch) => stretch.station === station)

describe('what is left of the chain', () => {
  it('holds every place of every construction once, in the order of the current and of the drive', () => {
    for (const { id } of constructionPlans) {
      const engine = new Case(id)
      const { chain } = engine.after([]).report
      const order = chain.map(({ station }) => chainStations.indexOf(station))
      expect(order).toEqual(order.toSorted((one, other) => one - other))
      expect(chain.flatMap(({ links }) => links.map(({ place }) => place)).toSorted()).toEqual(
        engine.diagnosis.engine.places.map(({ id: place }) => place).toSorted(),
      )
      for (const stretch of chain) {
        // Some fault in a stretch is at least as likely as one at any of its places, and as those pointed to.
        for (const { chance, atAll } of stretch.links) {
          expect(stretch.chance).toBeGreaterThanOrEqual(chance - 1e-9)
          expect(stretch.atAll).toBeGreaterThanOrEqual(atAll - 1e-9)
          expect(atAll).toBeGreaterThanOrEqual(chance - 1e-9)
        }
      }
    }
  })

  it('loses what lies behind the motor’s leads once a supply there turns it, and keeps what lies before', () => {
    const dead: Seen[] = [
      ['track-run', 'stands'],
      ['track-current', 'nothing'],
      ['terminals-run', 'runs'],
    ]
    const tender = new Case('tender-pickup')
    const { report, any } = tender.after(dead)
    expect(at(report.chain, 'armature')?.chance).toBeLessThan(0.02)
    expect(at(report.chain, 'treads')?.atAll).toBeCloseTo(any(ofRole('treads')), 9)
    expect(at(report.chain, 'treads')?.chance).toBeGreaterThan(0.2)
    // Of two kinds of axle that collect, each by its truck.
    expect(at(report.chain, 'treads')?.links.map(({ words }) => words)).toEqual(['coupled axles', 'tender axles'])
  })

  it('says found of what was seen and not yet mended, and of nothing else', () => {
    const cellar = new Case('side-brush-bogie')
    const lead = 'leads.lead.trailing'
    const suspect = `lead-strand@${lead}`
    const found = (...events: EngineEvent[]): string[] =>
      cellar
        .after([['track-run', 'stands']], events)
        .report.chain.flatMap(({ links }) => links.filter((link) => link.found).map(({ place }) => place))
    expect(found()).toEqual([])
    expect(found({ kind: 'confirmed', suspect, state: 0 })).toEqual([lead])
    expect(found({ kind: 'confirmed', suspect, state: 0 }, { kind: 'repaired', suspect, state: 1 })).toEqual([])
  })
})
