import { describe, expect, it } from 'vitest'
import { judgeSheet } from '../motor/sheet-judgement'
import type { MachineFacts, SheetReading } from '../motor/sheet-reading'
import { sheetFindings } from './sheet-findings'

const machine: MachineFacts = {
  power: 'dc',
  nominalVoltage: 12,
  scaleRatio: null,
  gearRatio: null,
  wheelDiameterMetres: null,
}
const meter = { percentOfReading: 1, digits: 3 }
const running = (direction: 'forward' | 'reverse', volts: number, milliamps: number): SheetReading => ({
  kind: 'running',
  direction,
  voltage: { value: volts, resolution: 0.01, meter },
  current: { value: milliamps / 1000, resolution: 0.001, meter },
  speed: null,
  run: null,
})
const gather = (readings: SheetReading[]) =>
  Object.fromEntries(
    sheetFindings(readings, judgeSheet(readings, machine, { windingCelsius: null }), {
      nominalVolts: 12,
      runTest: 'track-run',
      usualAmps: () => 0.15,
    }).map(({ test, outcome, words }) => [test, { outcome, words }]),
  )

describe('what a test sheet says to the diagnosis by itself', () => {
  // Case G, common practice: meter ±(1 % + 3 mA).
  it('case G: 180 against 260 mA is one way worse; 176 against 181 mA is no measurable difference', () => {
    expect(gather([running('forward', 9, 180), running('reverse', 9, 260)])['both-ways']?.outcome).toBe('one-way-worse')
    const after = gather([running('forward', 9, 176), running('reverse', 9, 181)])['both-ways']
    expect(after?.outcome).toBe('alike')
    expect(after?.words).toContain('no measurable difference')
  })

  it('a dead line says that it stands; stops say that it falters; clean laps that it runs', () => {
    expect(gather([{ kind: 'dead', voltage: null }])['track-run']?.outcome).toBe('stands')
    expect(gather([{ kind: 'stops', stops: 2, laps: 5 }])['track-run']?.outcome).toBe('falters')
    expect(gather([{ kind: 'stops', stops: 0, laps: 5 }])['track-run']?.outcome).toBe('runs')
  })

  it('calls the current usual or far too much only where it is clear of what types differ by', () => {
    expect(gather([running('forward', 9, 160)])['track-current']?.outcome).toBe('usual')
    expect(gather([running('forward', 9, 280)])).not.toHaveProperty('track-current')
    expect(gather([running('forward', 9, 60)])).not.toHaveProperty('track-current')
    expect(gather([running('forward', 9, 420)])['track-current']?.outcome).toBe('high')
  })

  it('says nothing from one reading at a low voltage', () => {
    expect(gather([running('forward', 3, 120)])).toEqual({})
    expect(gather([{ kind: 'stops', stops: 0, laps: 1 }])).toEqual({})
  })

  it('does not call a machine dead that ran after its first dead line', () => {
    expect(
      gather([
        { kind: 'dead', voltage: null },
        running('forward', 4, 120),
        running('forward', 8, 130),
        running('forward', 12, 140),
      ])['track-run']?.outcome,
    ).toBe('runs')
  })
})
