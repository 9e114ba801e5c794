import MultivariateLinearRegression from 'ml-regression-multivariate-linear'
import { levenbergMarquardt } from 'ml-levenberg-marquardt'
import { describe, expect, it } from 'vitest'
import { isRefused, type IntervalFigure } from '../measure/measured-value'
import { bestLoad } from './operating-point'
import { fitSweep, isWholeRefusal, type SweepFigureName, type SweepFit } from './sweep-fit'
import { seededNormal } from '../measure/seeded-random'
import {
  lockedPoint,
  runningPoint,
  SMALL_FIVE_POLE,
  spread,
  withNoise,
  type KnownMotor,
} from './simulated-readings.test-data'
import type { SweepPoint } from './sweep-point'

function fitOf(points: readonly SweepPoint[], options = {}): SweepFit {
  const fit = fitSweep(points, options)
  if (isWholeRefusal(fit)) throw new Error(fit.refused.message)
  return fit
}

function figure(fit: SweepFit, name: SweepFigureName): IntervalFigure {
  const given = fit.figures[name]
  if (isRefused(given)) throw new Error(`${name}: ${given.refused.message}`)
  return given
}

const sheetOf = (motor: KnownMotor, runningCount = 20, lockedCount = 20): SweepPoint[] => [
  ...spread(4, 12, runningCount).map((voltage) => runningPoint(motor, voltage)),
  ...spread(0.5, 2.5, lockedCount).map((voltage) => lockedPoint(motor, voltage)),
]

describe('a sheet with locked and running readings', () => {
  it('gives back the constants of noise-free readings (derived)', () => {
    const fit = fitOf(sheetOf(SMALL_FIVE_POLE))
    expect(figure(fit, 'resistance').value).toBeCloseTo(22, 6)
    expect(figure(fit, 'backEmf').value).toBeCloseTo(0.0072, 8)
    expect(figure(fit, 'coulombFriction').value).toBeCloseTo(4e-4, 8)
    expect(figure(fit, 'viscousFriction').value).toBeCloseTo(2e-7, 10)
    expect(figure(fit, 'stallCurrent').value).toBeCloseTo(12 / 22, 6)
    expect(figure(fit, 'keepsTurningDownTo').value).toBeCloseTo((22 * 4e-4) / 0.0072, 5)
  })

  it('recovers R and Ke within 1.5 % in at least 95 % of 400 trials at 1 % noise, and its intervals cover', () => {
    let close = 0
    let covered = 0
    const trials = 400
    for (let seed = 1; seed <= trials; seed++) {
      const fit = fitOf(withNoise(sheetOf(SMALL_FIVE_POLE), 0.01, seededNormal(seed)))
      const resistance = figure(fit, 'resistance')
      const backEmf = figure(fit, 'backEmf')
      if (Math.abs(resistance.value / 22 - 1) < 0.015 && Math.abs(backEmf.value / 0.0072 - 1) < 0.015) close++
      if (resistance.low <= 22 && 22 <= resistance.high) covered++
    }
    expect(close / trials).toBeGreaterThanOrEqual(0.95)
    expect(covered / trials).toBeGreaterThanOrEqual(0.92)
  })

  it('covers the true resistance just as honestly when the brushes drop 0.1, 0.25 or 0.5 V', () => {
    for (const brushDrop of [0.1, 0.25, 0.5]) {
      let covered = 0
      const trials = 200
      for (let seed = 1; seed <= trials; seed++) {
        const motor = { ...SMALL_FIVE_POLE, brushDrop }
        const points = [
          ...spread(4, 12, 8).map((voltage) => runningPoint(motor, voltage)),
          ...spread(0.8, 3.5, 8).map((voltage) => lockedPoint(motor, voltage)),
        ]
        const resistance = figure(fitOf(withNoise(points, 0.01, seededNormal(seed * 7 + 3))), 'resistance')
        if (resistance.low <= 22 && 22 <= resistance.high) covered++
      }
      expect(covered / trials).toBeGreaterThanOrEqual(0.9)
    }
  })

  it('agrees with a general regression package on the same rows', () => {
    const noisy = withNoise(sheetOf(SMALL_FIVE_POLE, 12, 12), 0.01, seededNormal(11))
      // Errors only in the voltage and equal for all, so that plain regression is the right answer too.
      .map((point, i) => ({
        ...(i < 12 ? runningPoint(SMALL_FIVE_POLE, 4 + i * 0.7) : lockedPoint(SMALL_FIVE_POLE, 0.6 + (i - 12) * 0.15)),
        extra: point.voltage,
      }))
    const normal = seededNormal(5)
    const points: SweepPoint[] = noisy.map(({ extra: _extra, ...point }) => ({
      ...point,
      voltage: point.voltage + 0.01 * normal(),
      scatter: { voltage: 0.01, current: 0, speed: 0 },
    }))
    const regression = new MultivariateLinearRegression(
      points.map((point) => [point.current, point.speed as number]),
      points.map((point) => [point.voltage]),
      { intercept: false },
    )
    const fit = fitOf(points)
    const [[resistance], [backEmf]] = regression.weights as [[number], [number]]
    const ours = figure(fit, 'resistance')
    expect(Math.abs(ours.value - resistance)).toBeLessThan(0.2 * (ours.high - ours.low))
    expect(figure(fit, 'backEmf').value / backEmf).toBeCloseTo(1, 2)
  })

  it('agrees with a general curve fitter on the friction line', () => {
    const points = withNoise(
      spread(4, 12, 15).map((voltage) => runningPoint(SMALL_FIVE_POLE, voltage)),
      0.01,
      seededNormal(3),
    )
      .concat(spread(0.5, 2.5, 6).map((voltage) => lockedPoint(SMALL_FIVE_POLE, voltage)))
      // The same scatter for every current: equal weights on both sides.
      .map((point) => ({ ...point, scatter: { voltage: 0.05, current: 0.001, speed: 5 } }))
    const running = points.filter((point) => !point.locked)
    // In mA and 1000 rad/s, so that the fitter's tolerances suit the numbers.
    const general = levenbergMarquardt(
      { x: running.map((point) => (point.speed as number) / 1000), y: running.map((point) => point.current * 1000) },
      ([a, c]) =>
        (x: number) =>
          (a as number) + (c as number) * x,
      { initialValues: [30, 10], damping: 1.5, maxIterations: 500, errorTolerance: 1e-12 },
    )
    const fit = fitOf(points)
    expect((fit.friction?.currentAtRest ?? 0) * 1000).toBeCloseTo(general.parameterValues[0] as number, 1)
    expect((fit.friction?.currentPerSpeed ?? 0) * 1e6).toBeCloseTo(general.parameterValues[1] as number, 1)
  })

  it('widens the resistance when locked readings scatter with the armature angle', () => {
    const running = spread(4, 12, 6).map((voltage) => runningPoint(SMALL_FIVE_POLE, voltage))
    const steady = spread(1, 2, 6).map((voltage) => lockedPoint(SMALL_FIVE_POLE, voltage))
    const byAngle = steady.map((point, i) => ({ ...point, current: point.current * (i % 2 ? 1.12 : 0.9) }))
    const width = (points: SweepPoint[]): number => {
      const given = figure(fitOf([...running, ...points]), 'resistance')
      return given.high - given.low
    }
    expect(width(byAngle)).toBeGreaterThan(3 * width(steady))
  })

  it('gives the drag of each direction on its own where they differ', () => {
    const stiffer = { ...SMALL_FIVE_POLE, coulombFriction: 6e-4 }
    const fit = fitOf([
      ...spread(4, 12, 6).map((voltage) => runningPoint(SMALL_FIVE_POLE, voltage)),
      ...spread(4, 12, 6).map((voltage) => runningPoint(stiffer, voltage, 'reverse')),
      ...spread(0.5, 2.5, 6).map((voltage) => lockedPoint(SMALL_FIVE_POLE, voltage)),
    ])
    const drag = (direction: 'forward' | 'reverse'): number => {
      const given = fit.byDirection[direction]?.coulombFriction
      return given && !isRefused(given) ? given.value : Number.NaN
    }
    expect(drag('forward')).toBeCloseTo(4e-4, 6)
    expect(drag('reverse')).toBeCloseTo(6e-4, 6)
    expect(fitOf(sheetOf(SMALL_FIVE_POLE)).byDirection.reverse).toBeNull()
  })

  it('adds the meters’ common error, which no number of readings can average away', () => {
    const points = sheetOf(SMALL_FIVE_POLE)
    const given = figure(fitOf(points, { scale: { voltage: 0.01, current: 0.01, speed: 0 } }), 'resistance')
    expect((given.high - given.low) / 2 / given.value).toBeGreaterThan(0.027)
  })

  it('refers resistance and magnet to 20 °C', () => {
    const warm = { ...SMALL_FIVE_POLE, resistance: 22 * (270 / 255) }
    const fit = fitOf(sheetOf(warm), { windingCelsius: 35 })
    expect(figure(fit, 'resistanceAt20').value).toBeCloseTo(22, 4)
    expect(figure(fit, 'backEmfAt20').value).toBeCloseTo(0.0072 / 0.97, 6)
  })
})

describe('what readings cannot tell', () => {
  const running = spread(4, 12, 6).map((voltage) => runningPoint(SMALL_FIVE_POLE, voltage))

  it('keeps the resistance of running readings alone honestly wide, and refuses the brush drop', () => {
    let covered = 0
    for (let seed = 1; seed <= 200; seed++) {
      const fit = fitOf(
        withNoise(
          spread(4, 12, 10).map((voltage) => runningPoint(SMALL_FIVE_POLE, voltage)),
          0.01,
          seededNormal(seed),
        ),
      )
      const given = figure(fit, 'resistance')
      expect((given.high - given.low) / given.value).toBeGreaterThan(0.3)
      expect(isRefused(fit.figures.brushDrop)).toBe(true)
      if (given.low <= 22 && 22 <= given.high) covered++
    }
    expect(covered).toBeGreaterThanOrEqual(190)
  })

  it('still gives no-load figures from running readings alone, since those lie between the readings', () => {
    const fit = fitOf(withNoise(running, 0.01, seededNormal(2)))
    const speed = figure(fit, 'noLoadSpeed')
    expect(speed.low).toBeLessThan(runningPoint(SMALL_FIVE_POLE, 12).speed as number)
    expect(speed.high).toBeGreaterThan(runningPoint(SMALL_FIVE_POLE, 12).speed as number)
    expect((speed.high - speed.low) / speed.value).toBeLessThan(0.2)
  })

  it('asks for a reading below the start voltage when there are neither speeds nor locked readings', () => {
    const fit = fitOf([4, 8, 12].map((voltage) => ({ ...runningPoint(SMALL_FIVE_POLE, voltage), speed: null })))
    expect(fit.figures.resistance).toMatchObject({
      refused: {
        code: 'no-locked-reading',
        message: expect.stringContaining('The three readings are all above the start voltage'),
      },
    })
    expect(fit.figures.backEmf).toMatchObject({ refused: { code: 'no-speed' } })
    expect(figure(fit, 'noLoadCurrent').value).toBeCloseTo(runningPoint(SMALL_FIVE_POLE, 12).current, 6)
  })

  it('refuses one reading, and readings all alike', () => {
    expect(fitSweep([running[0] as SweepPoint])).toMatchObject({ refused: { code: 'one-reading' } })
    const alike = [0, 1, 2, 3].map(() => running[2] as SweepPoint)
    expect(fitSweep(alike)).toMatchObject({
      refused: { code: 'readings-alike', wanted: expect.stringContaining('4, 8 and 12 V') },
    })
    expect(fitSweep([])).toMatchObject({ refused: { code: 'no-readings' } })
  })

  it('says so when readings ask for a negative resistance or magnet', () => {
    const absurd = [
      { voltage: 4, current: 0.1, speed: 400, locked: false, direction: 'forward' },
      { voltage: 8, current: 0.1, speed: 100, locked: false, direction: 'forward' },
      { voltage: 1, current: 0.5, speed: 0, locked: true, direction: 'forward' },
      { voltage: 12, current: 0.12, speed: 20, locked: false, direction: 'forward' },
    ] as const
    const fit = fitOf(absurd)
    for (const name of ['resistance', 'backEmf', 'noLoadSpeed', 'stallTorque'] as const) {
      const given = fit.figures[name]
      expect(isRefused(given) || Number.isFinite(given.value)).toBe(true)
    }
  })

  it('finds the start of turning from the bend in a sweep without speeds', () => {
    const standing = [0.2, 0.4, 0.6, 0.8, 1.0, 1.2].map((voltage) => ({
      ...lockedPoint(SMALL_FIVE_POLE, voltage),
      locked: false,
      speed: null,
    }))
    const turning = [1.6, 2, 4, 6, 8].map((voltage) => ({ ...runningPoint(SMALL_FIVE_POLE, voltage), speed: null }))
    const fit = fitOf([...turning, ...standing])
    expect(figure(fit, 'startVoltage')).toMatchObject({ low: 1.2, high: 1.6 })
    expect(figure(fit, 'resistance').value).toBeCloseTo(22, 3)
  })
})

describe('where it starts, and down to where it turns on', () => {
  const turning = [4, 6, 8, 10, 12].map((voltage) => runningPoint(SMALL_FIVE_POLE, voltage))
  const stoodAt = (voltage: number) => ({ ...lockedPoint(SMALL_FIVE_POLE, voltage), stood: true })

  it('starts between the highest voltage at which it stood and the lowest at which it turned, whatever friction says', () => {
    // Friction alone would let it turn from R·Tc/Ke = 1.22 V on (derived); old grease held it until beyond 3 V.
    const fit = fitOf([...turning, stoodAt(1), stoodAt(2), stoodAt(3)])
    expect(figure(fit, 'startVoltage')).toMatchObject({ low: 3, high: 4, value: 3.5 })
    expect(figure(fit, 'keepsTurningDownTo').value).toBeCloseTo((22 * 4e-4) / 0.0072, 5)
  })

  it('never contradicts its own readings: stood higher than it once turned, both are in the interval', () => {
    const fit = fitOf([...turning, stoodAt(1), stoodAt(5)])
    expect(figure(fit, 'startVoltage')).toMatchObject({ low: 4, high: 5 })
  })

  it('says that the start was not seen where the armature was only ever held', () => {
    const fit = fitOf([...turning, lockedPoint(SMALL_FIVE_POLE, 1), lockedPoint(SMALL_FIVE_POLE, 2)])
    expect(fit.figures.startVoltage).toMatchObject({ refused: { code: 'start-not-seen' } })
    expect(figure(fit, 'keepsTurningDownTo').value).toBeGreaterThan(0)
  })
})

describe('best efficiency and output', () => {
  it('matches the closed forms for constant friction: I₀ = 0.06 A, Is = 0.6 A gives 0.4675 (derived)', () => {
    const motor = { resistance: 20, backEmf: 0.01, brushDrop: 0, currentAtRest: 0.06, currentPerSpeed: 0 }
    expect(bestLoad(motor, 12, 'efficiency')?.value).toBeCloseTo((1 - Math.sqrt(0.1)) ** 2, 6)
    expect(bestLoad(motor, 12, 'efficiency')?.value).toBeCloseTo(0.4675, 4)
    expect(bestLoad(motor, 12, 'outputPower')?.value).toBeCloseTo((20 * 0.54 ** 2) / 4, 6)
  })

  it('matches a brute-force search with brush drop and growing friction', () => {
    const motor = { resistance: 18, backEmf: 0.008, brushDrop: 0.4, currentAtRest: 0.05, currentPerSpeed: 3e-5 }
    let best = 0
    for (let i = 1; i < 20_000; i++) {
      const current = (i / 20_000) * ((12 - 0.4) / 18)
      const speed = (12 - 0.4 - 18 * current) / 0.008
      best = Math.max(best, ((0.008 * current - 0.008 * 0.05 - 0.008 * 3e-5 * speed) * speed) / (12 * current))
    }
    expect(bestLoad(motor, 12, 'efficiency')?.value).toBeCloseTo(best, 5)
  })
})
