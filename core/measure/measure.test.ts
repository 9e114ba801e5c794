import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { compareBeforeAfter } from './before-after'
import { repeatedMeasurement } from './repeatability'
import { findScale, motorSpeedFromTrackSpeed, scales, scaleSpeed } from './scales'
import { describeFigure, withUncertainty } from './significant-digits'
import { stopRatesDiffer, stopsPerLap } from './stops-per-lap'
import { timedSpeed } from './timed-speed'
import { compareTrials } from './trial-outcome'
import { readTypedQuantity, type TypedQuantityResult } from './typed-quantity'
import { meterStandardUncertainty, studentFactor95 } from './uncertainty'

const valueOf = (result: TypedQuantityResult): number | string =>
  result.ok ? result.quantity.value : result.error.code

describe('quantities as they are typed', () => {
  it.each([
    ['current', '350 mA', 0.35],
    ['current', '0,35A', 0.35],
    ['current', '0.35 a', 0.35],
    ['current', '350', 0.35],
    ['current', '12,5', 0.0125],
    ['voltage', '9', 9],
    ['voltage', '9,05 V', 9.05],
    ['voltage', '.5', 0.5],
    ['duration', '1.5 min', 90],
    ['length', '1 m', 1],
    ['length', '36 in', 0.9144],
    ['rotation', '6000', 628.3185],
    ['temperature', '-5', -5],
    ['temperature', '−5 °C', -5],
    ['count', '3', 3],
  ] as const)('%s “%s” is %f', (kind, typed, value) => {
    expect(valueOf(readTypedQuantity(kind, typed))).toBeCloseTo(value, 4)
  })

  it.each([
    ['current', '3o0', 'not-a-number'],
    ['current', 'abc', 'not-a-number'],
    ['current', '-120', 'negative'],
    ['current', '350 MA', 'ok-or-unit'],
    ['current', '12 V', 'unknown-unit'],
    ['voltage', '1.234,5', 'two-separators'],
    ['voltage', '400', 'too-large'],
    ['count', '2.5', 'not-whole'],
    ['voltage', ' ', 'empty'],
  ] as const)('%s “%s” is refused as %s', (kind, typed, code) => {
    const result = readTypedQuantity(kind, typed)
    if (code === 'ok-or-unit') return expect(valueOf(result)).toBeCloseTo(0.35)
    expect(valueOf(result)).toBe(code)
    if (!result.ok) expect(result.error.message).toMatch(/\.$/)
  })

  it('keeps the step of the last digit: 350 mA resolves 1 mA, 0,35 A resolves 10 mA', () => {
    const fine = readTypedQuantity('current', '350 mA')
    const coarse = readTypedQuantity('current', '0,35 A')
    expect(fine.ok && fine.quantity.resolution).toBeCloseTo(0.001)
    expect(coarse.ok && coarse.quantity.resolution).toBeCloseTo(0.01)
  })

  it('reads back any number it is given, with comma or point, and never throws on any text', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 59_999 }), fc.constantFrom(',', '.'), (thousandths, separator) => {
        const typed = (thousandths / 1000).toFixed(3).replace('.', separator)
        expect(valueOf(readTypedQuantity('voltage', typed))).toBeCloseTo(thousandths / 1000, 6)
      }),
    )
    fc.assert(
      fc.property(fc.string(), (text) => {
        const result = readTypedQuantity('current', text)
        expect(result.ok ? Number.isFinite(result.quantity.value) : result.error.message.length > 0).toBe(true)
      }),
    )
  })
})

describe('uncertainty', () => {
  it('takes Student factors from JCGM 100 Table G.2 (published) and between its rows', () => {
    expect(studentFactor95(1)).toBe(12.71)
    expect(studentFactor95(10)).toBe(2.23)
    expect(studentFactor95(Number.POSITIVE_INFINITY)).toBe(1.96)
    expect(studentFactor95(60)).toBeGreaterThan(1.984)
    expect(studentFactor95(60)).toBeLessThan(2.01)
    expect(() => studentFactor95(0)).toThrow(RangeError)
  })

  it('turns ±(1 % + 3 mA) at 180 mA into a rectangular standard uncertainty (derived)', () => {
    const uncertainty = meterStandardUncertainty(0.18, { percentOfReading: 1, digits: 3, resolution: 0.001 })
    expect(uncertainty).toBeCloseTo(Math.hypot(0.0048, 0.0005) / Math.sqrt(3), 8)
  })

  it('needs three repeats for repeatability and says when it assumed it', () => {
    expect(repeatedMeasurement([0.18], 0.001)).toMatchObject({ repeatabilityAssumed: true, repeatability: 0.009 })
    const three = repeatedMeasurement([1, 2, 3], 0)
    expect(three.repeatability).toBeCloseTo(1 / Math.sqrt(3))
    expect(three.coverageFactor).toBeCloseTo(4.3)
  })

  it('never lets repeats average the meter away', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.1, max: 2, noNaN: true }), { minLength: 3, maxLength: 30 }),
        fc.double({ min: 0, max: 0.1, noNaN: true }),
        (values, meter) => {
          expect(repeatedMeasurement(values, meter).expanded).toBeGreaterThanOrEqual(1.96 * meter - 1e-12)
        },
      ),
    )
  })

  it('calls 176 and 181 mA with a meter of ±(1 % + 3 mA) no measurable difference', () => {
    const figure = (milliamps: number) => {
      const expanded =
        2 * meterStandardUncertainty(milliamps / 1000, { percentOfReading: 1, digits: 3, resolution: 0.001 })
      return { value: milliamps / 1000, low: milliamps / 1000 - expanded, high: milliamps / 1000 + expanded, unit: 'A' }
    }
    expect(compareBeforeAfter(figure(176), figure(181)).verdict).toBe('no-measurable-change')
    expect(compareBeforeAfter(figure(260), figure(181)).verdict).toBe('lower')
  })

  it('rounds the uncertainty first and the value to the same place (GUM 7.2.6)', () => {
    expect(withUncertainty(22.3817, 0.137)).toEqual({ value: '22.38', uncertainty: '0.14' })
    expect(withUncertainty(22.3817, 0.62)).toEqual({ value: '22.4', uncertainty: '0.7' })
    expect(withUncertainty(1234.5, 31)).toEqual({ value: '1230', uncertainty: '40' })
    expect(describeFigure({ value: 0.5, low: 0, high: 2, unit: 'stops per lap' })).toBe(
      '0.5 stops per lap (0.0 to 2.0)',
    )
  })
})

describe('without a meter', () => {
  it('gives the exact Poisson interval: 0 stops 0 to 3.689, 10 stops 4.795 to 18.39 (Garwood 1936, published tables)', () => {
    expect(stopsPerLap(0, 1).high).toBeCloseTo(3.689, 3)
    expect(stopsPerLap(10, 1).low).toBeCloseTo(4.795, 3)
    expect(stopsPerLap(10, 1).high).toBeCloseTo(18.39, 2)
    expect(stopsPerLap(10, 5).value).toBe(2)
  })

  it('tells 12 stops from 1 in as many laps, but not 3 from 1', () => {
    expect(stopRatesDiffer({ stops: 12, laps: 5 }, { stops: 1, laps: 5 })).toBe(true)
    expect(stopRatesDiffer({ stops: 3, laps: 5 }, { stops: 1, laps: 5 })).toBe(false)
    expect(stopRatesDiffer({ stops: 0, laps: 5 }, { stops: 0, laps: 5 })).toBe(false)
  })

  it('judges the complaint’s trial by Fisher’s exact test: 8 of 10 then 0 of 10 is cured, 2 of 3 then 0 of 3 is not yet shown', () => {
    expect(compareTrials({ failures: 8, attempts: 10 }, { failures: 0, attempts: 10 })).toBe('cured')
    expect(compareTrials({ failures: 2, attempts: 3 }, { failures: 0, attempts: 3 })).toBe('no-measurable-change')
    expect(compareTrials({ failures: 0, attempts: 10 }, { failures: 8, attempts: 10 })).toBe('worse')
    expect(() => compareTrials({ failures: 4, attempts: 3 }, { failures: 0, attempts: 3 })).toThrow(RangeError)
  })

  it('gives a short run a wide interval and a long one a narrow one', () => {
    const width = (seconds: number): number => {
      const speed = timedSpeed(1, [seconds])
      return (speed.high - speed.low) / speed.value
    }
    expect(width(2)).toBeGreaterThan(4 * width(20))
    expect(() => timedSpeed(0, [3])).toThrow(RangeError)
  })
})

describe('scales', () => {
  it('has 1.000 m in 10.0 s in H0 as 31.32 km/h (1:87, NEM 010) and 31.35 km/h = 19.48 mph (3.5 mm/ft, NMRA) (derived)', () => {
    const [nem, nmra] = [findScale('h0-87'), findScale('h0-3.5mm')]
    expect(scaleSpeed(0.1, nem?.ratio ?? 0).kilometresPerHour).toBeCloseTo(31.32, 2)
    expect(scaleSpeed(0.1, nmra?.ratio ?? 0).kilometresPerHour).toBeCloseTo(31.35, 2)
    expect(scaleSpeed(0.1, nmra?.ratio ?? 0).milesPerHour).toBeCloseTo(19.48, 2)
  })

  it.each([
    ['h0-3.5mm', 87.0857],
    ['00', 76.2],
    ['tt-3mm', 101.6],
    ['0-7mm', 43.543],
    ['n-160', 160],
    ['tt-120', 120],
    ['s-64', 64],
    ['0-45', 45],
  ])('%s is 1:%f (NEM 010 / NMRA / derived from mm to the foot)', (id, ratio) => {
    expect(findScale(id)?.ratio).toBeCloseTo(ratio, 3)
  })

  it('names a source for every scale and gives none twice', () => {
    expect(new Set(scales.map((scale) => scale.id)).size).toBe(scales.length)
    expect(scales.every((scale) => scale.source.length > 0)).toBe(true)
  })

  it('finds the motor behind the wheels: 0.2 m/s on 14 mm wheels through 30:1 is 857 rad/s (derived)', () => {
    expect(motorSpeedFromTrackSpeed(0.2, 0.014, 30)).toBeCloseTo((0.2 / 0.007) * 30, 6)
  })
})
