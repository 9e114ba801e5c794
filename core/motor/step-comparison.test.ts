import { describe, expect, it } from 'vitest'
import { judgeStep, type TestedStep } from './step-comparison'

const step = (name: string, milliamps: number, more: Partial<TestedStep> = {}): TestedStep => ({
  name,
  volts: 4,
  turns: 'forward',
  current: { value: milliamps / 1000, low: (milliamps - 3) / 1000, high: (milliamps + 3) / 1000, unit: 'A' },
  ...more,
})

describe('a step of the rebuild against the one before', () => {
  it.each<[string, TestedStep | null, TestedStep, string, RegExp]>([
    ['the first', null, step('Motor alone', 60), 'sound', /^The first figure/],
    ['the first, standing', null, step('Motor alone', 200, { turns: 'stands' }), 'fault', /does not turn/],
    // √(3² + 3²) = 4.2 mA together: 63 against 60 is none.
    [
      'within what the readings allow',
      step('Motor alone', 60),
      step('Motor in frame', 63),
      'sound',
      /^No measurable change: 60\.0 mA before, 63\.0 mA now\.$/,
    ],
    ['a little, as a part takes', step('Motor in frame', 80), step('First axle', 87), 'sound', /^A little more/],
    [
      'a fifth more',
      step('First axle', 80),
      step('Second axle', 96),
      'care',
      /^Up by 20 % with “Second axle”, beyond the ±4\.2 mA/,
    ],
    ['half as much again', step('Second axle', 80), step('Rods', 120), 'fault', /^Up by 50 % with “Rods”/],
    [
      'stopped',
      step('Rods', 90),
      step('Valve gear', 300, { turns: 'stands' }),
      'fault',
      /^It stopped with “Valve gear”/,
    ],
    ['the other way', step('Rods', 90), step('Body', 90, { turns: 'reverse' }), 'fault', /mirrored/],
    ['at other volts', step('Rods', 90), step('Body', 150, { volts: 6 }), 'care', /cannot be compared/],
    ['running again', step('Rods', 300, { turns: 'stands' }), step('Rods eased', 95), 'sound', /^Less than before/],
  ])('%s', (_what, before, now, weight, sentence) => {
    expect(judgeStep(before, now)).toEqual({ weight, sentence: expect.stringMatching(sentence) as string })
  })
})
