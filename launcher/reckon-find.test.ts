import { describe, expect, it } from 'vitest'
import { inFirstForm } from '../core/engine/older-description.test-data'
import { describeConstruction } from '../core/knowledge/constructions'
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
  it('names suspects, the next acts with their reasons, and what speaks for each', () => {
    const answer = asked(cellar)
    expect(answer.suspects[0]).toMatchObject({ fault: 'treads-film', area: 'pickup', probability: expect.any(Number) })
    expect(answer.suspects[0].speaksFor[0]).toMatchObject({ test: 'track-rocked', outcome: 'falters' })
    expect(answer.next[0]).toMatchObject({
      id: expect.any(String),
      minutes: expect.any(Number),
      value: expect.any(Number),
      why: expect.stringMatching(/leaves?|tells/),
      observations: expect.arrayContaining([
        expect.objectContaining({ id: expect.any(String), says: expect.any(Number) }),
      ]),
    })
    expect(answer.advice).toMatchObject({ kind: 'act', act: answer.next[0].id })
    expect(answer.advice.observations).toEqual(answer.next[0].observations)
    expect(answer.contradictions).toEqual([])
  }, 20_000)

  it('takes observations as findings, in whatever order, a byte-order mark before them', () => {
    const { findings, ...rest } = cellar
    const other = JSON.parse(
      JSON.stringify(reckonFind(`\uFEFF${JSON.stringify({ ...rest, observations: [...findings].reverse() })}`)),
    )
    const same = asked(cellar)
    expect(other.suspects.map((entry: { id: string; probability: number }) => [entry.id, entry.probability])).toEqual(
      same.suspects.map((entry: { id: string; probability: number }) => [entry.id, entry.probability]),
    )
    expect(other.advice.act).toBe(same.advice.act)
  }, 20_000)

  it('takes a generic machine for a construction it does not know, and says so', () => {
    expect(asked({ construction: 'hovercraft', findings: [] })).toMatchObject({
      construction: 'other',
      note: expect.stringContaining('generic machine'),
    })
  }, 20_000)

  it('refuses what it cannot read in one sentence, the place named', () => {
    expect(() => reckonFind('nonsense')).toThrow('This is not JSON')
    expect(() => asked({ construction: 'other' })).toThrow('There is neither “findings” nor “observations”')
    expect(() => asked({ ...cellar, power: 'ac' })).toThrow('does not run on AC')
    expect(() => asked({ ...cellar, circumstances: ['power-dcc'] })).toThrow('“power-dcc” does not fit')
    expect(() => asked({ ...cellar, findings: [{ test: 'x'.repeat(500), outcome: 'x' }] })).toThrow(
      new RegExp(`“${'x'.repeat(80)}…”`),
    )
    const loose = 'lead-off@leads.lead.trailing'
    expect(() => asked({ ...cellar, events: [{ kind: 'repaired', suspect: loose, state: 0 }] })).toThrow(
      'its state is at least 1',
    )
    expect(() =>
      asked({
        ...cellar,
        events: [
          { kind: 'confirmed', suspect: loose, state: 0 },
          { kind: 'ruled-out', suspect: loose, state: 0 },
        ],
      }),
    ).toThrow('it is one or the other')
    expect(() => asked({ ...cellar, power: 'steam' })).toThrow(
      'power: “power” is none of the choices. Known are dc, ac, dcc.',
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
      'findings.0.state: “state” must be at least 0.',
    )
    expect(() => asked({ construction: {}, findings: [] })).toThrow(/^construction\.\w+: “.+” is missing/)
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

it('a description of the first form, where ids told what belongs where, is read as it was meant', () => {
  const first = inFirstForm(describeConstruction('axle-cup'))
  const findings = [{ test: 'track-run', outcome: 'stands', state: 0 }]
  const answers = [first, 'axle-cup'].map(
    (construction) => reckonFind(JSON.stringify({ construction, findings })) as { suspects: unknown },
  )
  expect(answers[0]?.suspects).toEqual(answers[1]?.suspects)
})
