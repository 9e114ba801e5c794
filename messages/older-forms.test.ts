import { describe, expect, it } from 'vitest'
import { inPresentPayload } from './older-forms'
import { problemsOf } from './validate'

const id = '01890000-0000-7000-8000-000000000000'
const quantity = { typed: '4', value: 4, resolution: 0.1, meter: null }
const metered = { voltage: quantity, current: { ...quantity, value: 0.004 } }
const sent = (fields: object) => ({
  id,
  jobId: id,
  sheetId: id,
  supersedesId: null,
  fields: { vouched: false, ...fields },
})

describe('a reading that waited in a browser while the program was updated', () => {
  it.each([
    [
      { kind: 'running', direction: 'reverse', quantities: metered, step: 'Rods on' },
      { kind: 'step', step: 'Rods on', turns: 'reverse', quantities: metered },
    ],
    [
      { kind: 'locked', direction: 'forward', quantities: metered, step: 'Rods on' },
      { kind: 'step', step: 'Rods on', turns: 'stands', quantities: metered },
    ],
    [
      { kind: 'dead', direction: null, quantities: {} },
      { kind: 'dead', quantities: {} },
    ],
    [
      { kind: 'running', direction: 'forward', quantities: metered },
      { kind: 'running', direction: 'forward', quantities: metered },
    ],
  ])('is taken: %j', (before, after) => {
    const payload = inPresentPayload('reading.add', sent(before))
    expect(payload).toEqual(sent(after))
    expect(problemsOf('reading.add', payload)).toEqual([])
    expect(inPresentPayload('reading.add', payload)).toEqual(payload)
  })

  it('is left as it is where it is none', () => {
    for (const nonsense of [null, 'x', [], { fields: 7 }, { fields: { kind: 'running', step: 4 } }])
      expect(inPresentPayload('reading.add', nonsense)).toEqual(nonsense)
  })
})
