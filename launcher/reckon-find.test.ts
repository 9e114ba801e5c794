import { describe, expect, it } from 'vitest'
import { listFor, listKnowledge, reckonFind } from './reckon-find'

const asked = (file: object): ReturnType<typeof JSON.parse> => reckonFind(JSON.stringify(file))
const cellar = {
  construction: 'side-brush-bogie',
  power: 'dc',
  circumstances: ['damp-store'],
  findings: [
    { test: 'track-run', outcome: 'stands' },
    { test: 'track-rocked', outcome: 'falters', state: 0 },
  ],
}

describe('bin/reckon find', () => {
  it('names suspects, the next tests with their reasons, and what speaks for each', () => {
    const answer = asked(cellar)
    expect(answer.suspects[0]).toMatchObject({ fault: 'treads-film', area: 'pickup', probability: expect.any(Number) })
    expect(answer.suspects[0].speaksFor[0]).toMatchObject({ test: 'track-rocked', outcome: 'falters' })
    expect(answer.next[0]).toMatchObject({
      id: expect.any(String),
      minutes: expect.any(Number),
      value: expect.any(Number),
      why: expect.stringContaining('would take'),
    })
    expect(answer.contradictions).toEqual([])
  }, 20_000)

  it('takes a generic machine for a construction it does not know, and says so', () => {
    expect(asked({ construction: 'hovercraft', findings: [] })).toMatchObject({
      construction: 'other',
      note: expect.stringContaining('generic machine'),
    })
  }, 20_000)

  it('refuses what it cannot read in one sentence, the place named', () => {
    expect(() => reckonFind('nonsense')).toThrow('This is not JSON')
    expect(() => asked({ construction: 'other' })).toThrow("must have required property 'findings'")
    expect(() => asked({ ...cellar, power: 'steam' })).toThrow(
      'power must be equal to one of the allowed values: dc, ac, dcc.',
    )
    expect(() => asked({ ...cellar, findings: [{ test: 'nix', outcome: 'x' }] })).toThrow('There is no test “nix” for')
    expect(() => asked({ ...cellar, findings: [{ test: 'track-run', outcome: 'flies' }] })).toThrow(
      'cannot come out as “flies”',
    )
    expect(() => asked({ ...cellar, events: [{ kind: 'repaired', suspect: 'nobody', state: 1 }] })).toThrow(
      'There is no suspect “nobody”',
    )
    expect(() => asked({ ...cellar, off: ['wings'] })).toThrow('there is no part “wings”')
    expect(() => asked({ ...cellar, findings: [{ test: 'track-run', outcome: 'stands', state: -1 }] })).toThrow(
      'findings/0/state must be >= 0.',
    )
    expect(() => asked({ construction: {}, findings: [] })).toThrow('construction must have required property')
  }, 20_000)

  it('lists every id, and those of one construction with their places', () => {
    const all = listKnowledge() as { faults: Array<{ id: string }>; tests: Array<{ id: string }> }
    expect(all.faults.map((fault) => fault.id)).toContain('lead-off')
    const one = listFor('side-brush-bogie', 'dc') as {
      suspects: Array<{ id: string }>
      tests: Array<{ id: string; outcomes: string[] }>
    }
    expect(one.suspects.map((suspect) => suspect.id)).toContain('lead-off@leads.lead.trailing')
    expect(one.tests.find((test) => test.id === 'track-run')?.outcomes).toEqual(['runs', 'falters', 'stands', 'trips'])
    expect(() => listFor('hovercraft', 'dc')).toThrow('There is no construction “hovercraft”')
  })
})
