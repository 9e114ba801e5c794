import { describe, expect, it } from 'vitest'
import { isRefused, type Figure, type IntervalFigure } from '../measure/measured-value'
import { seededNormal } from '../measure/seeded-random'
import { fitSeriesMotor, type SeriesPoint } from './series-fit'

const truth = { resistance: 9, fieldConstant: 0.03, reactance: 4 }
/** By the law itself: amps from volts at a speed, on DC or with the reactive drop in quadrature. */
function point(supply: 'dc' | 'ac', volts: number, speed: number | null, noise = 0, known = true): SeriesPoint {
  const resistive = truth.resistance + truth.fieldConstant * (speed ?? 0)
  const impedance = supply === 'dc' ? resistive : Math.hypot(resistive, truth.reactance)
  return { supply, volts, amps: (volts / impedance) * (1 + noise), speed: known ? speed : null, relative: 0.01 }
}
const whole = (normal: () => number): SeriesPoint[] => [
  ...Array.from({ length: 6 }, (_, i) => point('dc', 2 + i / 5, 0, 0.01 * normal())),
  ...[6, 9, 12, 15].map((volts, i) => point('dc', volts, 200 + 150 * i, 0.01 * normal())),
  ...Array.from({ length: 6 }, (_, i) => point('ac', 3 + i / 5, 0, 0.01 * normal())),
  point('ac', 16, 500, 0.01 * normal(), false),
]
const value = (figure: Figure): IntervalFigure => {
  if (isRefused(figure)) throw new Error(figure.refused.message)
  return figure
}

describe('an AC series motor from its readings', () => {
  it('exact readings give exact figures; stall current and running speed follow: 16/√(9² + 4²) = 1.625 A, and 500 rad/s', () => {
    const { figures } = fitSeriesMotor(
      whole(() => 0),
      16,
    )
    expect(value(figures.resistance).value).toBeCloseTo(9, 9)
    expect(value(figures.fieldConstant).value).toBeCloseTo(0.03, 9)
    expect(value(figures.reactance).value).toBeCloseTo(4, 9)
    expect(value(figures.stallCurrent).value).toBeCloseTo(1.6246, 4)
    expect(value(figures.runningSpeed).value).toBeCloseTo(500, 6)
  })

  it('with 1 % noise R, K and X lie in their 95 % intervals in at least nine of ten sheets, and R within 3 %', () => {
    const counts = { resistance: 0, fieldConstant: 0, reactance: 0, close: 0 }
    for (let seed = 1; seed <= 100; seed++) {
      const { figures } = fitSeriesMotor(whole(seededNormal(seed)), 16)
      for (const name of ['resistance', 'fieldConstant', 'reactance'] as const)
        if (value(figures[name]).low <= truth[name] && truth[name] <= value(figures[name]).high) counts[name] += 1
      if (Math.abs(value(figures.resistance).value / 9 - 1) < 0.03) counts.close += 1
    }
    for (const count of Object.values(counts)) expect(count).toBeGreaterThanOrEqual(90)
  })

  it('on AC alone it refuses to guess, and says what to read', () => {
    const { figures } = fitSeriesMotor([point('ac', 4, 0), point('ac', 12, 300), point('ac', 16, 500)], 16)
    expect(figures.resistance).toMatchObject({
      refused: { code: 'no-held-dc', wanted: expect.stringContaining('smooth DC') as string },
    })
    expect(figures.reactance).toMatchObject({ refused: { code: 'no-held-dc' } })
  })

  it('held on DC alone it gives the resistance, and asks for the rest', () => {
    const { figures } = fitSeriesMotor(
      [1, 2, 3].map((volts) => point('dc', volts, 0)),
      16,
    )
    expect(value(figures.resistance).value).toBeCloseTo(9, 9)
    expect(figures.fieldConstant).toMatchObject({ refused: { code: 'no-speed-dc' } })
    expect(figures.reactance).toMatchObject({ refused: { code: 'no-known-ac' } })
    expect(figures.runningSpeed).toMatchObject({ refused: { code: 'not-at-nominal' } })
  })
})
