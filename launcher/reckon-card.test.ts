import { describe, expect, it } from 'vitest'
import { listCare, reckonCard } from './reckon-card'

const asked = (file: object): ReturnType<typeof JSON.parse> => reckonCard(JSON.stringify(file))

describe('bin/reckon card', () => {
  it('says what cleans it, what never, and what is oiled', () => {
    const answer = asked({
      construction: 'tank-open',
      soils: [
        { on: 'commutator@locomotive', with: 'carbon' },
        { on: 'body', with: 'oil-film' },
      ],
      shelf: ['isopropyl'],
    })
    expect(answer.clean.map((step: { words: string }) => step.words)).toEqual([
      'Body and details',
      'Commutator and gaps',
    ])
    expect(answer.clean[0]).toMatchObject({ agent: 'soapy-water', tool: 'swab' })
    expect(answer.clean[1]).toMatchObject({ agent: 'isopropyl', driesMinutes: 10 })
    expect(answer.never).toContainEqual(
      expect.objectContaining({
        group: 'commutator@locomotive',
        tool: 'metal-pick',
        why: expect.stringContaining('scratches'),
      }),
    )
    expect(answer.lubricate.find((point: { point: string }) => point.point.startsWith('motor.brushes'))).toMatchObject({
      product: null,
      why: 'A brush soaked with oil does not carry.',
    })
  })

  it('takes an empty shelf and an engine nobody described: soap and water, and the generic construction', () => {
    const answer = asked({
      construction: 'other',
      soils: [{ on: 'motor-bearings@locomotive', with: 'hard-grease' }],
      shelf: [],
      schools: { commutator: 'polish' },
    })
    expect(answer.clean[0].agent).toBe(null)
    expect(answer.clean[0].missing.length).toBeGreaterThan(0)
  })

  it('takes what a shop does otherwise: another way first, no more of what left streaks, another oil', () => {
    const answer = asked({
      construction: 'tank-open',
      soils: [{ on: 'commutator@locomotive', with: 'carbon' }],
      own: {
        rules: [{ what: 'isopropyl', material: null, subject: 'commutator', level: 'never', why: 'It left streaks.' }],
        ways: [],
        amounts: [{ point: 'worm', product: 'medium oil', amount: '' }],
      },
    })
    expect(answer.clean[0].agent).not.toBe('isopropyl')
    expect(answer.never).toContainEqual(expect.objectContaining({ agent: 'isopropyl', why: 'It left streaks.' }))
    expect(answer.lubricate.find((point: { point: string }) => point.point.includes('worm')).product).toBe('medium oil')
    const own = { rules: [], ways: [{ soil: 'sin', subject: 'treads', agent: null, method: 'bud' }], amounts: [] }
    expect(() => asked({ construction: 'tank-open', own })).toThrow('own.ways.0: “sin” is no soil')
  })

  it('says in one sentence what is wrong with a file', () => {
    const tank = { construction: 'tank-open' }
    expect(() => asked({ ...tank, soils: [{ on: 'boiler', with: 'dust' }] })).toThrow('no group and no part “boiler”')
    expect(() => asked({ ...tank, soils: [{ on: 'body', with: 'sin' }] })).toThrow('soils.0: “sin” is no soil')
    expect(() => asked({ ...tank, shelf: ['moonshine'] })).toThrow('shelf: “moonshine” is no class')
    expect(() => asked({ ...tank, schools: { commutator: 'pray' } })).toThrow('is none of solvent-and-wood, polish')
    expect(() => asked({ ...tank, advice: [{ point: 'worm', product: 'honey', amount: '' }] })).toThrow(
      'advice.0: “honey” is no class of lubricant',
    )
  })

  it('lists what a file may name', () => {
    expect(listCare('tank-open')).toMatchObject({
      groups: expect.arrayContaining([{ id: 'commutator@locomotive', words: 'Commutator and gaps' }]),
      soils: expect.arrayContaining([{ id: 'dust', words: 'dust' }]),
    })
    expect(listCare()).not.toHaveProperty('groups')
  })
})
