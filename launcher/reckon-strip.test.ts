import { describe, expect, it } from 'vitest'
import { listGoals, reckonStrip } from './reckon-strip'

const asked = (file: object): ReturnType<typeof JSON.parse> => reckonStrip(JSON.stringify(file))

describe('bin/reckon strip', () => {
  it('gives the way in and the way back, the end of one the beginning of the other', () => {
    const answer = asked({
      construction: 'tank-open',
      goals: ['usual.commutator'],
      off: ['body.screw-rear', 'coupling-rear'],
    })
    const order = answer.steps.map((step: { part: string }) => step.part)
    expect(order).not.toContain('coupling-rear')
    expect(order).toEqual(expect.arrayContaining(['body.screw-front', 'body', 'weight', 'motor.brush-plus']))
    const fitted = answer.back.flatMap((step: { kind: string; part: string }) =>
      step.kind === 'fit' ? [step.part] : [],
    )
    expect(new Set(fitted)).toEqual(new Set([...order, 'body.screw-rear', 'coupling-rear']))
    expect(answer.steps.find((step: { part: string }) => step.part === 'motor.spring-plus').goesTo).toBe('lid')
    expect(answer.minutes).toBeGreaterThan(0)
  })

  it('takes a description whole, with differences, and reads over a byte-order mark', () => {
    const text = JSON.stringify({
      construction: 'side-brush-bogie',
      goals: ['usual.tyres'],
      differences: [{ kind: 'omitted', part: 'body.screw', bridged: false }],
    })
    expect(reckonStrip(`\uFEFF${text}`)).toMatchObject({ construction: 'side-brush-bogie' })
  })

  it('refuses with a sentence what no tool here can do, and says what can be done', () => {
    expect(
      asked({ construction: 'tank-open', goals: ['usual.lid', 'usual.motor'], tools: ['screwdriver'] }),
    ).toMatchObject({
      refused: { code: 'no-tool' },
      goal: 'usual.motor',
      without: ['usual.lid'],
    })
  })

  it('says in one sentence what is wrong with a file, quoting no more than it must', () => {
    expect(() => reckonStrip('{')).toThrow(/^This is not JSON/)
    expect(() => asked({ construction: 'tank-open', goals: [] })).toThrow(/^goals: “goals” is empty/)
    expect(() => asked({ construction: 'tank-open', goals: ['x'.repeat(300)] })).toThrow(
      /^goals: there is nothing called “x{80}…”/,
    )
    expect(() => asked({ construction: 'tank-open', goals: ['usual.lid'], off: ['boiler'] })).toThrow(
      'there is no part “boiler”',
    )
    expect(() => asked({ construction: 'tank-open', goals: ['usual.lid'], tools: ['saw'] })).toThrow(
      /^tools\.0: .* is none of the choices\. Known are screwdriver/,
    )
  })

  it('lists what a construction can be opened for', () => {
    expect(listGoals('three-rail-twin', 'ac')).toMatchObject({
      goals: expect.arrayContaining([{ id: 'usual.motor', words: 'Motor out' }]),
    })
  })
})
