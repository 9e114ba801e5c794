import { v7 as newId } from 'uuid'
import { describe, expect, it } from 'vitest'
import { describeConstruction } from '../core/knowledge/constructions'
import type { SearchRow, StripRow } from '../messages/book'
import type { StripEntry } from '../messages/strip-entries'
import { partsOff } from './parts-off'
import { stripState } from './strip-state'
import { wayBackOfJob } from './way-back-of-job'

let minute = 0
const at = (): string => new Date(Date.UTC(2026, 10, 1, 9, minute++)).toISOString()
const entry = (said: StripEntry, id = newId()): StripRow => ({
  id,
  jobId: 'job',
  entry: said,
  author: 'Maren',
  capturedAt: at(),
})
const off = (part: string, way = ''): StripRow =>
  entry({ kind: 'off', part, words: part, cell: null, way, count: 1, minutes: null })
const back = (part: string): StripRow => entry({ kind: 'back', part, words: part, fate: 'placed', remark: '' })
const outcome = (parts: string[]): SearchRow => ({
  id: newId(),
  engineState: 0,
  reckoned: null,
  author: 'Maren',
  capturedAt: at(),
  entry: { kind: 'outcome', test: 'brushes-look', outcome: 'stuck', words: 'stuck', why: '', off: parts, believed: [] },
})
const offIn = (strip: StripRow[], search: SearchRow[] = []): string[] => [...stripState(strip, search).off.keys()]

describe('what is off', () => {
  it('is one thing for the search and for the strip, in the order in which it happened', () => {
    const first = off('body.screw')
    const test = outcome(['body.screw', 'body'])
    const third = off('motor-pivot')
    expect(offIn([first, third], [test])).toEqual(['body.screw', 'body', 'motor-pivot'])
    // Put back at Rebuild it is on again for the search, though a test once took it off.
    expect(offIn([first, third, back('motor-pivot'), back('body')], [test])).toEqual(['body.screw'])
  })

  it('does not count what was struck out, neither coming off nor going back', () => {
    const mistaken = off('weight')
    const strike = entry({ kind: 'struck', entryId: mistaken.id, words: 'Weight' })
    expect(offIn([off('body'), mistaken, strike])).toEqual(['body'])
    const homeward = back('body')
    expect(offIn([off('body'), homeward, entry({ kind: 'struck', entryId: homeward.id, words: 'Body' })])).toEqual([
      'body',
    ])
  })

  it('tells what lies in the tray from what was absent, lost or given back', () => {
    const state = stripState([
      off('cap'),
      off('spring'),
      entry({ kind: 'not-as-planned', part: 'bell', words: 'Bell', what: 'absent', remark: '', findingId: null }),
      entry({ kind: 'back', part: 'spring', words: 'Spring', fate: 'lost', remark: '' }),
    ])
    expect([...state.off.keys()]).toEqual(['cap', 'spring', 'bell'])
    expect(state.lying.map((thing) => thing.part)).toEqual(['cap'])
    expect(state.fates.get('spring')).toBe('lost')
  })

  it('is nothing once a machine was proved without anybody entering what went back', () => {
    const job = { station: 'prove' } as never
    expect(partsOff({ job, strip: [], search: [outcome(['body'])] })).toEqual([])
    expect(partsOff({ job: { station: 'find' } as never, strip: [], search: [outcome(['body'])] })).toEqual(['body'])
  })
})

describe('the way back of a job', () => {
  const description = describeConstruction('tank-open')
  const order = ['coupling-rear', 'body.screw-front', 'body.screw-rear', 'body', 'weight', 'motor.lead-plus', 'motor']
  const taken = order.map((part) => off(part, part === 'body' ? 'cab to the left' : ''))

  it('begins with what came off last and ends with what came off first, each step with where it lies', () => {
    const found = wayBackOfJob({ strip: taken, search: [], sheets: [] }, description, 4)
    expect(found.next?.step).toMatchObject({ kind: 'fit', part: 'motor' })
    const fits = found.steps.flatMap(({ step }) => (step.kind === 'fit' ? [step.part] : []))
    expect(fits).toEqual([...order].reverse())
    expect(found.steps.find(({ step }) => step.kind === 'fit' && step.part === 'body')?.lies?.way).toBe(
      'cab to the left',
    )
  })

  it('asks for a test once the motor is in, with what it should draw, and names the causes when it draws more', () => {
    const sheets = (milliamps: number) => [
      {
        station: 'rebuild',
        readings: [0, 1, 2].map((index) => ({
          id: `r${index}`,
          kind: 'step',
          step: 'Open-frame motor',
          turns: 'forward',
          struck: false,
          supersedesId: null,
          source: 'measured',
          capturedAt: at(),
          quantities: {
            voltage: { typed: '', value: 4, resolution: 0.001, meter: null },
            current: { typed: '', value: (milliamps + index * 0.1) / 1000, resolution: 0.0001, meter: null },
          },
        })),
      },
    ]
    const strip = [...taken, back('motor')]
    const unread = wayBackOfJob({ strip, search: [], sheets: [] }, description, 4)
    expect(unread.next?.step).toMatchObject({ kind: 'test', after: 'motor', upsets: expect.arrayContaining(['bind']) })
    expect(unread.expected?.amps).toBeGreaterThan(0.01)
    const usual = (unread.expected?.amps ?? 0) * 1000
    expect(wayBackOfJob({ strip, search: [], sheets: sheets(usual) as never }, description, 4).verdict?.weight).toBe(
      'sound',
    )
    const stopped = wayBackOfJob({ strip, search: [], sheets: sheets(usual * 4) as never }, description, 4)
    expect(stopped.verdict).toMatchObject({ weight: 'fault', sentence: expect.stringContaining('mesh too tight') })
  })

  it('asks for checks and oil anew when a part is taken off once more', () => {
    const done = entry({ kind: 'done', step: 'test motor', part: 'motor', words: 'Tested' })
    const strip = [...taken, back('motor'), done]
    expect(wayBackOfJob({ strip, search: [], sheets: [] }, description, 4).next?.id).not.toBe('test motor')
    const again = [...strip, off('motor'), back('motor')]
    expect(wayBackOfJob({ strip: again, search: [], sheets: [] }, description, 4).next?.id).toBe('test motor')
  })

  it('is signed off by a word for what was open then, and not for what is left later', () => {
    const entry = (id: string, minute: number, what: object) =>
      ({ id, jobId: 'j', author: 'M', capturedAt: `2026-11-30T10:0${minute}:00.000Z`, entry: what }) as never
    const off = (id: string, minute: number, part: string) =>
      entry(id, minute, { kind: 'off', part, words: part, cell: null, way: '', count: 1, minutes: null })
    const signed = entry('s', 2, { kind: 'signed-off', words: 'the owner keeps it off', open: ['body'] })
    expect(stripState([off('a', 1, 'body'), signed]).signedOff?.words).toBe('the owner keeps it off')
    expect(stripState([off('a', 1, 'body'), signed, off('b', 3, 'weight')]).signedOff).toBe(null)
  })
})
