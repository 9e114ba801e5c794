import { describe, expect, it } from 'vitest'
import { Case, type Seen } from '../worked-case.test-data'

/** It falters, on the brushes themselves too, and every look at the motor was good. */
const faltersAtItsBrushes: readonly Seen[] = [
  ['track-run', 'falters'],
  ['track-current', 'flickers'],
  ['track-rocked', 'falters'],
  ['both-ways', 'one-way-worse'],
  ['leads-run', 'falters'],
  ['terminals-run', 'falters'],
  ['motor-current', 'flickers'],
  ['motor-noise', 'quiet'],
  ['lead-ohms@leads.motor.lead-plus', 'as-it-should'],
  ['lead-ohms@leads.motor.lead-minus', 'as-it-should'],
  ['brushes-run', 'falters'],
  ['brushes-look', 'good'],
  ['springs-look', 'equal'],
  ['commutator-look', 'bright'],
  ['motor-ohms', 'usual'],
  ['turn-ohms', 'even'],
]

describe('what was seen good (common practice)', () => {
  const machine = new Case('split-frame', 'dc', ['complained-of'])
  const off = machine.diagnosis.engine.description.parts.flatMap(({ id, removal }) => (removal ? [id] : []))

  it('is mended all the same where all else speaks for it, and it is said so', () => {
    const { report } = machine.after(faltersAtItsBrushes, [], { off })
    expect(report.advice).toMatchObject({ kind: 'repair', suspect: 'brush-sticks@motor.brushes' })
    expect(report.advice.why).toMatch(/^It was seen good, but a look can miss it/)
  })

  it('is not mended while something nobody has looked at would explain it', () => {
    const unseen = faltersAtItsBrushes.filter(([test]) => test !== 'commutator-look')
    const { report } = machine.after(unseen, [], { off })
    expect(report.advice).not.toMatchObject({ suspect: 'brush-sticks@motor.brushes' })
  })
})
