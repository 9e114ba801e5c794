import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { continuityFindings } from '../findings/continuity-findings'
import { constructionPlans, describeConstruction } from '../knowledge/constructions'
import { diagnosisKnowledge } from '../knowledge/diagnosis-knowledge'
import { expectedContinuity, type ContinuityColumn } from './expected-continuity'
import { judgeContinuity, nextCell, type ContinuityReading, type WheelReadings } from './judge-continuity'

const closed: ContinuityReading = { kind: 'closed' }
const open: ContinuityReading = { kind: 'open' }
const ohms = (value: number): ContinuityReading => ({ kind: 'ohms', ohms: value })

/** Every wheel as a sound engine reads it. */
function soundSheet(construction: string): Record<string, WheelReadings> {
  return Object.fromEntries(
    expectedContinuity(describeConstruction(construction)).wheels.map((wheel) => [
      wheel.point,
      Object.fromEntries(
        Object.entries(wheel.expected).flatMap(([column, expected]) =>
          expected ? [[column, expected.kind === 'open' ? open : ohms(expected.ohms)]] : [],
        ),
      ),
    ]),
  )
}
const judge = (construction: string, readings: Record<string, WheelReadings>) =>
  judgeContinuity(expectedContinuity(describeConstruction(construction)), readings)
const findings = (construction: string, readings: Record<string, WheelReadings>) =>
  Object.fromEntries(
    continuityFindings(describeConstruction(construction), diagnosisKnowledge, judge(construction, readings)).map(
      ({ test, outcome }) => [test, outcome],
    ),
  )

describe('what a sound engine reads wheel by wheel', () => {
  // Derived from the construction: the tender collects left, the locomotive right, the drawbar joins them.
  it('is closed to its own lead where it collects, and reads the winding to the other where metal leads there', () => {
    const plan = expectedContinuity(describeConstruction('tender-pickup'))
    const wheel = (point: string) => plan.wheels.find((entry) => entry.point === point)?.expected
    expect(wheel('tender-1.left')?.own?.kind).toBe('closed')
    expect(wheel('driver-1.right')?.own?.kind).toBe('closed')
    // 21 Ω winding between the brushes, with choke, brushes and springs.
    const through = wheel('driver-1.right')?.other
    expect(through?.kind).toBe('through')
    expect(through?.kind === 'through' && through.ohms).toBeGreaterThan(20)
    expect(through?.kind === 'through' && through.ohms).toBeLessThan(25)
    expect(wheel('driver-1.left')).toMatchObject({ own: { kind: 'open' }, other: { kind: 'open' } })
  })

  it('asks for no frame where the frame is one of the leads', () => {
    const plan = expectedContinuity(describeConstruction('tank-can'))
    expect(plan.wheels.every((wheel) => wheel.expected.chassis === null)).toBe(true)
  })

  it('isolates every motor behind a silent decoder', () => {
    const plan = expectedContinuity(describeConstruction('centre-motor', 'dcc'))
    expect(plan.wheels.filter((wheel) => wheel.collects).map((wheel) => wheel.expected.other?.kind)).not.toContain(
      'closed',
    )
    expect(plan.leads.plus).toContain('decoder')
  })

  it('is closed to its own lead for every wheel that collects, on every construction', () => {
    for (const { id } of constructionPlans) {
      for (const wheel of expectedContinuity(describeConstruction(id)).wheels.filter((entry) => entry.collects))
        expect(wheel.expected.own?.kind, `${id} ${wheel.point}`).toBe('closed')
    }
  })
})

describe('judging the sheet', () => {
  it('finds nothing wrong with any sound engine, and the diagnosis is told so', () => {
    for (const { id } of constructionPlans) {
      const judged = judge(id, soundSheet(id))
      const verdicts = judged.flatMap((entry) => Object.values(entry.cells).map((cell) => cell.verdict))
      expect(
        verdicts.filter((verdict) => verdict !== 'good' && verdict !== 'idle'),
        id,
      ).toEqual([])
      for (const outcome of Object.values(findings(id, soundSheet(id))))
        expect(['all', 'short', 'as-it-should']).toContain(outcome)
    }
  })

  // Case B, common practice: four of six tender wheels open, and two probes on one rim of these open as well.
  it('calls an open reading on a dirty rim uncertain, and one on a bright rim broken', () => {
    const dirty = judge('tender-pickup', {
      'tender-1.left': { rim: open, own: open },
      'tender-2.left': { rim: closed, own: open },
      'tender-3.left': { own: open },
    })
    const verdict = (point: string) => dirty.find((entry) => entry.wheel.point === point)?.cells.own?.verdict
    expect(verdict('tender-1.left')).toBe('uncertain')
    expect(verdict('tender-2.left')).toBe('broken')
    expect(verdict('tender-3.left')).toBe('uncertain')
  })

  it('never calls insulated what was only open on a dirty rim', () => {
    const readings: Record<string, WheelReadings> = { 'driver-1.left': { rim: open, other: open, chassis: open } }
    const cells = judge('tender-pickup', readings).find((entry) => entry.wheel.point === 'driver-1.left')?.cells
    expect(cells?.other?.verdict).toBe('uncertain')
    expect(findings('tender-pickup', readings)).not.toHaveProperty('wheel-insulation-ohms@wheel-insulation.frame-axles')
  })

  it('takes a beep through a low winding for nothing, and a reading far below the winding for a bridge', () => {
    const point = 'driver-1.right'
    const cell = (reading: ContinuityReading) =>
      judge('tender-pickup', { [point]: { rim: closed, other: reading } }).find((entry) => entry.wheel.point === point)
        ?.cells.other?.verdict
    expect(cell(closed)).toBe('uncertain')
    expect(cell(ohms(21.5))).toBe('good')
    expect(cell(ohms(0.4))).toBe('short')
    expect(cell(open)).toBe('good')
  })

  it('passes what it found to the diagnosis: some wheels, rims open, insulation bridged', () => {
    const sheet = { ...soundSheet('tender-pickup') }
    for (const point of ['tender-1.left', 'tender-2.left']) sheet[point] = { rim: open, own: open }
    sheet['tender-3.right'] = { rim: closed, own: open, other: ohms(0.2) }
    const found = findings('tender-pickup', sheet)
    expect(found['wheel-continuity@treads.tender-axles']).toBe('some')
    expect(found['rim-check@treads.tender-axles']).toBe('open')
    expect(found['wheel-insulation-ohms@wheel-insulation.tender-axles']).toBe('wrong')
    expect(found['wheel-continuity@treads.frame-axles']).toBe('all')
  })

  it('says nothing of a truck before its wheels are measured', () => {
    expect(findings('tender-pickup', { 'tender-1.left': { rim: closed, own: closed } })).toEqual({})
  })

  it('leads through every cell exactly once, a rim before what is measured through it, carrying before insulation', () => {
    fc.assert(
      fc.property(fc.constantFrom(...constructionPlans.map((plan) => plan.id)), (id) => {
        const plan = expectedContinuity(describeConstruction(id))
        const readings: Record<string, Partial<Record<ContinuityColumn, ContinuityReading>>> = {}
        let asked = 0
        for (let cell = nextCell(plan, readings); cell; cell = nextCell(plan, readings)) {
          if (cell.column !== 'rim') expect(readings[cell.point]?.rim).toBeDefined()
          if (cell.column === 'other')
            expect(plan.wheels.every((entry) => !entry.collects || readings[entry.point]?.own)).toBe(true)
          readings[cell.point] = { ...readings[cell.point], [cell.column]: closed }
          asked += 1
        }
        expect(asked).toBe(
          plan.wheels.reduce((sum, wheel) => sum + Object.values(wheel.expected).filter(Boolean).length, 0),
        )
      }),
      { numRuns: constructionPlans.length },
    )
  })
})
