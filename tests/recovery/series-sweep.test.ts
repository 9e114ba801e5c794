import { describe, expect, it } from 'vitest'
import { Casualty } from '../../bench/casualty/casualty'
import { SeededRandom } from '../../bench/casualty/random'
import { sweepMotor, usualSeriesPlan } from '../../bench/supply/motor-sweep'
import { SimulatedSupply } from '../../bench/supply/simulated-supply'
import { spokenTo } from '../../bench/supply/spoken-to.test-data'
import { Circuit, offTheTrack, ohmsBetween } from '../../core/engine/circuit'
import { motorClamp } from '../../core/engine/motor-clamp'
import { describeConstruction } from '../../core/knowledge/constructions'
import { isRefused, type Figure } from '../../core/measure/measured-value'
import { fitSeriesMotor, type SeriesPoint } from '../../core/motor/series-fit'
import { speedOfReading } from '../../core/trace/speed-of-reading'

const NOMINAL = 16

/** Both sheets of a wound field through simulated machine, SCPI, sweep, speed from the ripple and fit. */
async function bothSheets(
  construction: string,
  seed: number,
): Promise<{ points: SeriesPoint[]; truth: { resistance: number; fieldConstant: number }; on: boolean }> {
  const description = describeConstruction(construction)
  const [motor] = description.motors
  const clamp = motor && motorClamp(description, motor.id)
  if (!motor || !clamp) throw new Error(`${construction} has no motor to clamp.`)
  const off = clamp.open.map((component) => ({ kind: 'component' as const, component, state: 'open' as const }))
  const points: SeriesPoint[] = []
  let on = false
  for (const kind of ['dc', 'ac'] as const) {
    let seconds = 0
    const noise = new SeededRandom(seed + 1)
    const supply = new SimulatedSupply({ clock: () => seconds, noise: () => noise.normal() })
    supply.clamp({
      casualty: new Casualty(description, off, { seed, onStand: true }),
      plus: clamp.plus,
      minus: clamp.minus,
    })
    const surroundings = {
      pause: (more: number) => {
        seconds += more
        return Promise.resolve()
      },
      held: (turn: number) => {
        expect(supply.isOn).toBe(false)
        supply.hold(turn * 0.37)
        return Promise.resolve()
      },
      free: () => {
        supply.hold(null)
        return Promise.resolve()
      },
    }
    const heldOhms: number[] = []
    for await (const event of sweepMotor(spokenTo(supply), usualSeriesPlan(NOMINAL, kind), surroundings)) {
      expect(event.kind).not.toBe('stopped')
      if (event.kind !== 'locked' && event.kind !== 'running') continue
      const [volts, amps] = [Math.abs(event.volts), Math.abs(event.amps)]
      if (event.kind === 'locked') heldOhms.push(volts / amps)
      const mean = heldOhms.reduce((sum, ohms) => sum + ohms, 0) / Math.max(1, heldOhms.length)
      const found =
        event.kind === 'running' && event.record
          ? speedOfReading(
              { volts, amps, rate: event.record.rate, record: event.record.amps },
              { heldOhms: mean, usualBackEmf: motor.backEmf * amps, segments: motor.segments },
            )
          : null
      points.push({
        supply: kind,
        volts,
        amps,
        relative: 0.005,
        speed: event.kind === 'locked' ? 0 : found === null || found === 'standing' ? null : found.radPerSecond,
      })
    }
    on ||= supply.isOn
  }
  const states = Object.fromEntries(clamp.open.map((component) => [component, 'open' as const]))
  return {
    points,
    on,
    truth: {
      resistance: ohmsBetween(
        new Circuit(description),
        { states: { ...offTheTrack(description), ...states } },
        clamp.plus,
        clamp.minus,
      ),
      fieldConstant: motor.backEmf,
    },
  }
}
const value = (figure: Figure): number => (isRefused(figure) ? Number.NaN : figure.value)

describe('the sheet of a wound field, measured by the supply on DC and on AC', () => {
  it.each([
    ['three-rail-single', 11],
    ['three-rail-single', 12],
    ['three-rail-twin', 13],
  ] as const)(
    '%s: resistance within 3 %, the field within 2 %, some reactance, and the output off',
    async (construction, seed) => {
      const { points, truth, on } = await bothSheets(construction, seed)
      const { figures } = fitSeriesMotor(points, NOMINAL)
      expect(Math.abs(value(figures.resistance) / truth.resistance - 1)).toBeLessThan(0.03)
      expect(Math.abs(value(figures.fieldConstant) / truth.fieldConstant - 1)).toBeLessThan(0.02)
      // The field coil's 4 mH alone are 1.26 Ω at 50 Hz; the armature adds little.
      expect(value(figures.reactance)).toBeGreaterThan(1)
      expect(value(figures.reactance)).toBeLessThan(2)
      expect(value(figures.runningSpeed)).toBeGreaterThan(50)
      expect(on).toBe(false)
    },
  )
})
