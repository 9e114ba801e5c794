import { describe, expect, it } from 'vitest'
import { isRefused } from '../measure/measured-value'
import { compareSheets } from './sheet-comparison'
import { doubtVoltage, judgeSheet } from './sheet-judgement'
import type { MachineFacts, ReadQuantity, SheetReading } from './sheet-reading'
import { windingTemperature } from './temperature'
import type { Direction } from './sweep-point'

const METER = { percentOfReading: 1, digits: 3 }
const H0_DIESEL: MachineFacts = {
  power: 'dc',
  nominalVoltage: 12,
  scaleRatio: 87,
  gearRatio: 14,
  wheelDiameterMetres: 0.0105,
}

const read = (value: number, resolution: number): ReadQuantity => ({ value, resolution, meter: METER })
const running = (volts: number, milliamps: number, direction: Direction = 'forward'): SheetReading => ({
  kind: 'running',
  direction,
  voltage: read(volts, 0.1),
  current: read(milliamps / 1000, 0.001),
  speed: null,
  run: null,
})
const sheet = (readings: SheetReading[]) => ({ readings, conditions: { windingCelsius: 21 } })

describe('judging a sheet', () => {
  it('finds that one direction draws more, and no difference after the thrust washer (forward 180 / reverse 260, then 176 / 181 mA)', () => {
    const before = judgeSheet([running(12, 180), running(12, 260, 'reverse')], H0_DIESEL, { windingCelsius: null })
    expect(before.remarks).toContainEqual(
      expect.objectContaining({ code: 'directions-differ', sentence: expect.stringContaining('Reverse draws more') }),
    )
    const after = judgeSheet([running(12, 176), running(12, 181, 'reverse')], H0_DIESEL, { windingCelsius: null })
    expect(after.remarks).toContainEqual(
      expect.objectContaining({
        code: 'directions-alike',
        sentence: expect.stringContaining('No measurable difference between directions'),
      }),
    )
  })

  it('takes motor speed from a timed run when wheel and gear are known, and refuses the magnet when they are not', () => {
    const timed = [4, 8, 12].map((volts): SheetReading => ({
      ...(running(volts, 60 + volts) as Extract<SheetReading, { kind: 'running' }>),
      run: { distance: read(1, 0.001), duration: read(24 / volts, 0.1) },
    }))
    const locked = [1, 1.4, 1.8].map((volts): SheetReading => ({
      kind: 'locked',
      direction: 'forward',
      voltage: read(volts, 0.01),
      current: read(volts / 22, 0.001),
      angle: null,
    }))
    const known = judgeSheet([...timed, ...locked], H0_DIESEL, { windingCelsius: 21 })
    expect(known.fit && !isRefused(known.fit.figures.backEmf)).toBe(true)
    const unknown = judgeSheet([...timed, ...locked], { ...H0_DIESEL, gearRatio: null }, { windingCelsius: 21 })
    expect(unknown.fit?.figures.backEmf).toMatchObject({ refused: { code: 'no-speed' } })
  })

  it('fits an AC machine as what it is: on AC alone it asks for DC readings, with both it tells resistance from reactance', () => {
    const machine = { ...H0_DIESEL, power: 'ac' as const }
    const held = (volts: number, ohms: number): SheetReading => ({
      kind: 'locked',
      direction: 'forward',
      voltage: { value: volts, resolution: 0.01, meter: null },
      current: { value: volts / ohms, resolution: 0.0001, meter: null },
      angle: null,
    })
    expect(judgeSheet([held(3, 10)], machine, { windingCelsius: null })).toMatchObject({
      fit: null,
      series: { figures: { resistance: { refused: { code: 'no-held-dc' } } } },
    })
    // Held, 6 Ω on DC and 10 Ω on AC: √(10² − 6²) = 8 Ω of reactance.
    const both = judgeSheet([held(3, 10)], machine, {
      windingCelsius: null,
      supply: 'ac',
      otherSupply: [held(2, 6), held(3, 6), held(4, 6)],
    })
    expect(both.series?.figures.resistance).toMatchObject({ value: expect.closeTo(6, 6) as number })
    expect(both.series?.figures.reactance).toMatchObject({ value: expect.closeTo(8, 6) as number })
  })

  it('asks about 40 V on a 12 V motor and lets 14 V pass', () => {
    expect(doubtVoltage(40, 12)).toContain('is it 4.00 V?')
    expect(doubtVoltage(14, 12)).toBeNull()
  })

  it('finds 71 °C where 20 Ω at 20 °C became 24 Ω (IEC 60034-1, published formula)', () => {
    expect(windingTemperature(20, 20, 24)).toBeCloseTo(71, 6)
  })
})

describe('before and after', () => {
  const line = (before: SheetReading[], after: SheetReading[], code: string) =>
    compareSheets(sheet(before), sheet(after), H0_DIESEL).find((candidate) => candidate.code.startsWith(code))

  it('calls a fall from 260 to 180 mA better, and 180 to 176 no measurable change, with the assumed repeatability said', () => {
    expect(line([running(12, 260)], [running(12, 180)], 'current')).toMatchObject({
      verdict: 'better',
      repeatabilityAssumed: true,
    })
    expect(line([running(12, 180)], [running(12, 176)], 'current')).toMatchObject({ verdict: 'no-measurable-change' })
  })

  it('sees a smaller change once three repeats have shown the spread', () => {
    const before = [running(12, 200), running(12, 201), running(12, 200)]
    const after = [running(12, 190), running(12, 189), running(12, 190)]
    expect(line(before.slice(0, 1), after.slice(0, 1), 'current')).toMatchObject({ verdict: 'no-measurable-change' })
    expect(line(before, after, 'current')).toMatchObject({ verdict: 'better', repeatabilityAssumed: false })
  })

  it('compares only voltages that were read on both sheets', () => {
    expect(compareSheets(sheet([running(6, 150)]), sheet([running(12, 180)]), H0_DIESEL)).toEqual([])
  })

  it('counts life itself: dead before, runs now', () => {
    expect(line([{ kind: 'dead', voltage: null }], [running(12, 180)], 'life')).toMatchObject({
      verdict: 'better',
      sentence: 'Dead before, runs now.',
    })
  })

  it('compares meterless sheets: stops per lap, slowest creep, the complaint’s trial', () => {
    const creep = (seconds: number): SheetReading => ({
      kind: 'creep',
      direction: 'forward',
      run: { distance: read(0.3, 0.001), duration: read(seconds, 0.1) },
    })
    expect(
      line([{ kind: 'stops', stops: 14, laps: 5 }], [{ kind: 'stops', stops: 1, laps: 5 }], 'stops'),
    ).toMatchObject({ verdict: 'better' })
    expect(line([creep(4)], [creep(14)], 'creep')).toMatchObject({ verdict: 'better' })
    expect(
      line([{ kind: 'trial', failures: 9, attempts: 10 }], [{ kind: 'trial', failures: 0, attempts: 10 }], 'trial'),
    ).toMatchObject({ verdict: 'better', sentence: expect.stringContaining('gone') })
  })
})
