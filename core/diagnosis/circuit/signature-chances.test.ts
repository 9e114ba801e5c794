import { describe, expect, it } from 'vitest'
import type { Run, Signature } from './electrical-signature'
import type { Reading } from '../../knowledge/knowledge-schema'
import { hangsOnArmature, signatureChances } from './signature-chances'

const soundRun: Run = {
  amps: 0.2,
  limited: false,
  speed: 1,
  speeds: [1],
  way: 1,
  motorVolts: 9,
  catches: 0,
  sticks: 0,
  caughtTrips: false,
  lamps: [1],
  decoder: 1,
}
const sound: Signature = {
  run: () => soundRun,
  railOhms: 30,
  motorOhms: [20],
  wheelOhms: new Map(),
  programming: null,
  functions: { heard: true, dark: 0 },
  shortedShare: 0,
}
const withRun = (change: Partial<Run>): Signature => ({ ...sound, run: () => ({ ...soundRun, ...change }) })

/** By reading: a machine with one figure at so many times a sound one's. */
const scales: ReadonlyArray<
  readonly [name: string, reading: Reading, at: (times: number) => Signature, least: number, most: number]
> = [
  ['speed', { kind: 'motion', feed: 'track' }, (times) => withRun({ speed: times, speeds: [times] }), 0.02, 1],
  [
    'current',
    { kind: 'current', feed: 'track', resolutionAmps: 0.001 },
    (times) => withRun({ amps: 0.2 * times }),
    1e-4,
    4,
  ],
  [
    'current on a coarse meter',
    { kind: 'current', feed: 'track', resolutionAmps: 0.01 },
    (times) => withRun({ amps: 0.2 * times }),
    1e-4,
    4,
  ],
  ['light', { kind: 'lamp', feed: 'track' }, (times) => withRun({ lamps: [times] }), 1e-3, 1.2],
  ['lamps by their function', { kind: 'functions' }, (times) => withRun({ lamps: [1, times] }), 1e-3, 1.2],
  ['what wakes a decoder', { kind: 'functions' }, (times) => withRun({ decoder: times }), 1e-3, 1.2],
  [
    'volts at the motor',
    { kind: 'motor-volts', feed: 'track' },
    (times) => withRun({ motorVolts: 9 * times }),
    1e-3,
    1.1,
  ],
  ['ohms from rail to rail', { kind: 'rail-ohms' }, (times) => ({ ...sound, railOhms: 30 * times }), 1e-3, 1e4],
  ['ohms of the motor', { kind: 'motor-ohms' }, (times) => ({ ...sound, motorOhms: [20 * times] }), 1e-3, 1e4],
]

describe('what a figure is called', () => {
  it.each(scales)(
    '%s: two figures three per cent apart are never surely called by two words',
    (_name, reading, at, least, most) => {
      let before = signatureChances(reading, at(least), sound, 0)
      for (let times = least * 1.03; times < most; times *= 1.03) {
        const now = signatureChances(reading, at(times), sound, 0)
        expect(Object.values(now).reduce((sum, chance) => sum + chance, 0)).toBeCloseTo(1, 9)
        const common = Object.keys(now).reduce((sum, word) => sum + Math.min(now[word] ?? 0, before[word] ?? 0), 0)
        expect(common, `${times.toFixed(3)} times`).toBeGreaterThan(0.2)
        before = now
      }
    },
  )

  it.each(scales)('%s: the two ends are surely called by two words', (_name, reading, at, least, most) => {
    const [low, high] = [signatureChances(reading, at(least), sound, 0), signatureChances(reading, at(most), sound, 0)]
    expect(Object.keys(low).filter((word) => (low[word] ?? 0) > 0 && (high[word] ?? 0) > 0)).toEqual([])
  })

  it('hangs on where the armature stands where a motor hardly turns: it starts there or it does not', () => {
    const motion: Reading = { kind: 'motion', feed: 'track' }
    expect([0, 0.1, 0.5, 1].map((speed) => hangsOnArmature(motion, withRun({ speed, speeds: [speed] })))).toEqual([
      false,
      true,
      false,
      false,
    ])
  })
})
