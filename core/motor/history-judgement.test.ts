import { describe, expect, it } from 'vitest'
import type { IntervalFigure } from '../measure/measured-value'
import { judgeAgainstHistory, type MotorHistory } from './history-judgement'
import type { HistoryFigureName, MotorFigures } from './motor-figures'
import { shrunkSpread } from './shrunk-spread'

const figure = (value: number, share = 0.02, unit = ''): IntervalFigure => ({
  value,
  low: value * (1 - share),
  high: value * (1 + share),
  unit,
})
const sound = { resistance: 20, backEmf: 0.01, noLoadCurrent: 0.12, keepsTurningDownTo: 2.4 }
const figuresOf = (values: Partial<typeof sound>, share = 0.02): MotorFigures =>
  Object.fromEntries(Object.entries({ ...sound, ...values }).map(([name, value]) => [name, figure(value, share)]))
const prior = (centre: number, withinType: number) => ({ centre: Math.log(centre), betweenTypes: 0.3, withinType })
const history = (own: MotorFigures[], shop: MotorFigures[]): MotorHistory => ({
  own: own.map((figures, index) => ({ id: `sheet-${index}`, at: Date.UTC(2020 + index, 3, 1), figures })),
  shop,
  prior: {
    resistance: prior(21, 0.06),
    backEmf: prior(0.0098, 0.06),
    noLoadCurrent: prior(0.13, 0.18),
    keepsTurningDownTo: prior(2.6, 0.22),
  },
})
const lineOf = (judgement: ReturnType<typeof judgeAgainstHistory>, name: HistoryFigureName) =>
  judgement.lines.find((line) => line.name === name)

describe('the shop’s examples, drawn towards the class while they are few', () => {
  const classOf = { centre: 0, betweenTypes: 0.3, withinType: 0.1 }

  it('with none of its own, the class alone: spread √(0.3² + 0.1²)', () => {
    expect(shrunkSpread([], classOf)).toEqual({
      centre: 0,
      deviation: expect.closeTo(Math.hypot(0.3, 0.1), 12) as number,
      examples: 0,
    })
  })

  it('worked by hand: 0.1, 0.2, 0.4 against 0 ± 0.3, spread 0.1', () => {
    // Median 0.2, deviations 0.1, 0, 0.2, their median 0.1, so 0.14826 as a standard deviation.
    // Within: (4·0.01 + 3·0.021981)/7 = 0.015135. Shop: 3·0.63662/0.015135 = 126.19; class: 1/0.09 = 11.11.
    // Centre: 126.19·0.2/137.30 = 0.18382. Deviation: √(0.015135 + 1/137.30) = √0.022418 = 0.14973.
    const { centre, deviation, examples } = shrunkSpread([0.1, 0.2, 0.4], classOf)
    expect(centre).toBeCloseTo(0.1838, 4)
    expect(deviation).toBeCloseTo(0.1497, 4)
    expect(examples).toBe(3)
  })

  it('one example moves the centre, two hundred settle it; a wild one among many does not', () => {
    const one = shrunkSpread([0.3], classOf).centre
    expect(one).toBeGreaterThan(0.2)
    expect(one).toBeLessThan(0.3)
    const many = Array.from({ length: 200 }, (_, index) => 0.3 + 0.05 * Math.sin(index * 2.399))
    expect(shrunkSpread(many, classOf).centre).toBeCloseTo(0.3, 2)
    expect(Math.abs(shrunkSpread([...many, 5], classOf).centre - shrunkSpread(many, classOf).centre)).toBeLessThan(
      0.005,
    )
  })
})

describe('a motor against its own past, the shop and the class', () => {
  const others = Array.from({ length: 8 }, (_, index) =>
    figuresOf({ resistance: 20 * (1 + 0.03 * Math.sin(index)), backEmf: 0.01 * (1 + 0.03 * Math.cos(index * 1.7)) }),
  )

  it('a sound one stands out nowhere and means nothing', () => {
    const judged = judgeAgainstHistory(figuresOf({}), history([figuresOf({ resistance: 20.2 })], others))
    expect(judged.lines.map((line) => line.verdict)).toEqual(['as-usual', 'as-usual', 'as-usual', 'as-usual'])
    expect(judged).toMatchObject({ most: null, meaning: null })
    expect(lineOf(judged, 'resistance')?.usual.examples).toBe(8)
  })

  it('names what changed most since its own sheet, and by how much', () => {
    const judged = judgeAgainstHistory(
      figuresOf({ backEmf: 0.0078, noLoadCurrent: 0.2 }),
      history([figuresOf({}), figuresOf({ backEmf: 0.0099 })], others),
    )
    expect(judged.most).toMatchObject({ since: 'own', line: { name: 'noLoadCurrent', own: { sheet: 'sheet-1' } } })
    expect(judged.most?.line.own?.share).toBeCloseTo(0.2 / 0.12 - 1, 10)
    expect(judged.meaning).toContain('tired magnet')
  })

  it('a slow change is seen against the first sheet though the last one hides it', () => {
    const judged = judgeAgainstHistory(
      figuresOf({ backEmf: 0.0088 }),
      history([figuresOf({}), figuresOf({ backEmf: 0.0094 }), figuresOf({ backEmf: 0.009 })], []),
    )
    expect(lineOf(judged, 'backEmf')).toMatchObject({
      own: { sheet: 'sheet-2', beyondDoubt: false },
      drift: { at: Date.UTC(2020, 3, 1), beyondDoubt: true },
    })
    expect(lineOf(judged, 'backEmf')?.drift?.share).toBeCloseTo(-0.12, 10)
    expect(lineOf(judgeAgainstHistory(figuresOf({}), history([figuresOf({})], [])), 'backEmf')?.drift).toBeNull()
  })

  it('a difference within what both sheets may be wrong by is none', () => {
    const judged = judgeAgainstHistory(figuresOf({ resistance: 20.5 }, 0.03), history([figuresOf({}, 0.03)], []))
    expect(lineOf(judged, 'resistance')?.own).toMatchObject({ beyondDoubt: false })
    expect(judged.most).toBeNull()
  })

  it('without a past of its own it is held against the shop: what stands out most there', () => {
    const judged = judgeAgainstHistory(figuresOf({ resistance: 14, backEmf: 0.0066 }), history([], others))
    expect(judged.most?.since).toBe('usual')
    expect(judged.meaning).toContain('shorted winding')
  })

  it('an uncertain figure is not called unusual for its uncertainty', () => {
    expect(
      lineOf(judgeAgainstHistory(figuresOf({ keepsTurningDownTo: 5 }, 0.02), history([], others)), 'keepsTurningDownTo')
        ?.verdict,
    ).toBe('high')
    expect(
      lineOf(judgeAgainstHistory(figuresOf({ keepsTurningDownTo: 5 }, 0.9), history([], others)), 'keepsTurningDownTo')
        ?.verdict,
    ).toBe('as-usual')
  })

  it.each<[string, Partial<typeof sound>, string]>([
    ['drag', { noLoadCurrent: 0.3, keepsTurningDownTo: 5 }, 'drag'],
    ['contact', { resistance: 30, keepsTurningDownTo: 5.5 }, 'brushes or a dirty commutator'],
    ['a magnet', { backEmf: 0.007, noLoadCurrent: 0.25 }, 'bearings before it is strengthened'],
    ['another motor', { backEmf: 0.014 }, 'stronger magnet than usual'],
  ])('%s', (_what, values, words) => {
    expect(judgeAgainstHistory(figuresOf(values), history([], others)).meaning).toContain(words)
  })
})
