import { describe, expect, it } from 'vitest'
import { judgeRelay, type RelayReadings } from './relay-account'

const sound: RelayReadings = {
  pullInVolts: [4.05, 4.05, 4.15],
  dropOutVolts: [1.55, 1.65, 1.55],
  stepVolts: 0.1,
  pulledByAc: null,
  heard: null,
}
const judged = (more: Partial<RelayReadings>) => judgeRelay({ ...sound, ...more })

describe('a relay judged by where it pulls in and lets go', () => {
  it('gives the mean of the repeats with what they scatter and the width of a step', () => {
    const { pullIn, dropOut, sound: isSound, says } = judged({})
    expect(pullIn?.mean).toBeCloseTo(4.0833, 3)
    expect(pullIn?.halfWidth).toBeCloseTo(0.1, 9)
    expect(dropOut?.mean).toBeCloseTo(1.5833, 3)
    expect([isSound, says]).toEqual([true, []])
  })

  it.each<[string, Partial<RelayReadings>, RegExp]>([
    ['hangs', { dropOutVolts: [null] }, /does not let go/],
    ['answers to AC', { pulledByAc: 9.25 }, /AC pulls it too, from 9\.3 V on/],
    ['sticks', { pullInVolts: [3.5, 4.1, 5] }, /different volts each time/],
    ['chatters', { dropOutVolts: [3.9, 3.9, 3.9] }, /almost where it pulls in/],
    ['is silent', { pullInVolts: [], dropOutVolts: [], heard: 'silent' }, /coil is open/],
    ['only clicks', { pullInVolts: [], dropOutVolts: [], heard: 'clicks' }, /contact does not close/],
    ['is on from the start', { pullInVolts: [], dropOutVolts: [], heard: 'always-on' }, /welded/],
  ])('says what one that %s has, and what to do', (_name, more, sentence) => {
    const account = judged(more)
    expect(account.sound).toBe(false)
    expect(account.says).toHaveLength(1)
    expect(account.says[0]).toMatch(sentence)
  })

  it('does not call it sticky for scatter within two steps of the volts', () => {
    expect(judged({ pullInVolts: [1.05, 1.15, 1.15], dropOutVolts: [0.45] }).says).toEqual([])
  })

  it('says nothing of AC that was not tried', () => {
    expect(judged({ pulledByAc: undefined }).sound).toBe(true)
  })
})
