import { describe, expect, it } from 'vitest'
import { judgeSheet } from '../motor/sheet-judgement'
import type { MachineFacts, SheetReading } from '../motor/sheet-reading'
import { motorAloneFindings } from './motor-alone-findings'

const machine: MachineFacts = {
  power: 'dc',
  nominalVoltage: 12,
  scaleRatio: null,
  gearRatio: null,
  wheelDiameterMetres: null,
}
const meter = { percentOfReading: 0.1, digits: 3 }
/** By the law V = I·R + Ke·ω itself, R = 20 Ω, Ke = 0.01 V·s, friction worth `amps`. */
const running = (volts: number, amps: number): SheetReading => ({
  kind: 'running',
  direction: 'forward',
  voltage: { value: volts, resolution: 0.001, meter },
  current: { value: amps, resolution: 0.0001, meter },
  speed: { value: (volts - amps * 20) / 0.01, resolution: 1, meter: null },
  run: null,
})
const held = (volts: number, hold: number): SheetReading => ({
  kind: 'locked',
  direction: 'forward',
  voltage: { value: volts, resolution: 0.001, meter },
  current: { value: volts / 20, resolution: 0.0001, meter },
  angle: null,
  hold,
})
const holds = Array.from({ length: 6 }, (_, hold) => [held(1, hold), held(3, hold)]).flat()
const gather = (readings: SheetReading[], usualOhms = 20) =>
  Object.fromEntries(
    motorAloneFindings(readings, judgeSheet(readings, machine, { windingCelsius: null }), {
      nominalVolts: 12,
      usualAmps: () => 0.1,
      usualOhms,
    }).map(({ test, outcome }) => [test, outcome]),
  )

describe('what a sheet taken at the motor’s terminals says to the diagnosis', () => {
  it('a sound motor runs there, draws the usual and has its ohms; nothing is said of the track', () => {
    expect(gather([...holds, running(5, 0.1), running(8, 0.11), running(12, 0.12)])).toEqual({
      'terminals-run': 'runs',
      'motor-current': 'usual',
      'motor-ohms': 'usual',
    })
  })

  it('too much current and ohms that are far off are said, and what lies between usual and far off is not', () => {
    const hungry = gather([...holds, running(5, 0.22), running(8, 0.24), running(12, 0.26)], 50)
    expect(hungry['motor-current']).toBe('high')
    expect(hungry['motor-ohms']).toBe('low')
    const between = gather([...holds, running(5, 0.17), running(8, 0.18), running(12, 0.19)], 13)
    expect(between).not.toHaveProperty('motor-current')
    expect(between).not.toHaveProperty('motor-ohms')
  })

  it('a motor that stood at nearly all volts is one that stands; held readings at low volts alone say nothing of it', () => {
    expect(gather([...holds, held(8, 7), held(12, 8)])['terminals-run']).toBe('stands')
    expect(gather(holds)).not.toHaveProperty('terminals-run')
  })

  it('one that starts hard falters', () => {
    expect(gather([...holds, running(7, 0.3), running(9, 0.3), running(12, 0.3)])['terminals-run']).toBe('falters')
  })
})
