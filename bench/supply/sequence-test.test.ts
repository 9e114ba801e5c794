import { describe, expect, it } from 'vitest'
import { describeConstruction } from '../../core/knowledge/constructions'
import { Casualty } from '../casualty/casualty'
import type { CasualtyFault } from '../casualty/faults'
import { sequenceTest, usualSequenceTest, type SequenceTestEvent } from './sequence-test'
import { SimulatedSupply } from './simulated-supply'
import { spokenTo } from './spoken-to.test-data'

const kontor = describeConstruction('three-rail-single')

/** Runs the test; who watches says what the drum really does. */
async function events(
  faults: CasualtyFault[],
  motorOn = true,
): Promise<{ found: SequenceTestEvent[]; drum: string[]; on: boolean }> {
  let seconds = 0
  const supply = new SimulatedSupply({ clock: () => seconds })
  const casualty = new Casualty(kontor, faults, { seed: 5, onStand: true })
  supply.clamp({ casualty, ...kontor.rails })
  const found: SequenceTestEvent[] = []
  const drum: string[] = []
  const position = (): string => casualty.switchPosition('sequence') ?? ''
  const watch = () =>
    position() === 'forward' || position() === 'reverse' ? (position() as 'forward' | 'reverse') : ('stands' as const)
  const pause = (more: number) => {
    seconds += more
    return Promise.resolve()
  }
  let asked = false
  for await (const event of sequenceTest(
    spokenTo(supply),
    usualSequenceTest(16, motorOn),
    { pause },
    () => (asked ? watch() : null),
    () => {
      asked = false
    },
  )) {
    if (event.kind === 'asks') asked = true
    if (event.kind === 'position') drum.push(position())
    found.push(event)
  }
  return { found, drum, on: supply.isOn }
}
const positions = (found: readonly SequenceTestEvent[]): string[] =>
  found.flatMap((event) => (event.kind === 'position' ? [event.position] : []))
const plain = (drum: readonly string[]): string[] => drum.map((position) => position.replace(/-after-\w+/, ''))

describe('the test of a sequence switch', () => {
  it('names every position of a sound drum, twice round, finds the volts that pull it in, and leaves the output off', async () => {
    const { found, drum, on } = await events([])
    expect(positions(found)).toEqual([
      'forward',
      'neutral',
      'reverse',
      'neutral',
      'forward',
      'neutral',
      'reverse',
      'neutral',
      'forward',
    ])
    expect(positions(found)).toEqual(plain(drum))
    // Its coil pulls in at 6 V of the wave's peak: 6/√2 = 4.24 V r.m.s.
    const pullIn = found.find((event) => event.kind === 'pull-in')
    expect(pullIn?.between?.[0]).toBeLessThanOrEqual(4.25)
    expect(pullIn?.between?.[1]).toBeGreaterThanOrEqual(4.24)
    expect(on).toBe(false)
  })

  it('names what a dirty drum does too, missed and doubled steps included', async () => {
    const { found, drum } = await events([
      { kind: 'sticky-switch', missedShare: 0.35, doubledShare: 0.2, pullInVolts: 6 },
    ])
    expect(positions(found)).toEqual(plain(drum))
    expect(
      new Set(drum.map((position, index) => (index > 0 && position === drum[index - 1] ? 'missed' : 'moved'))).size,
    ).toBe(2)
  })

  it('with a weak coil it pulls in later; with none at all never, and every position is the one it was found in', async () => {
    const weak = (
      await events([{ kind: 'sticky-switch', missedShare: 0, doubledShare: 0, pullInVolts: 11 }])
    ).found.find((event) => event.kind === 'pull-in')
    expect(weak?.between?.[1]).toBeCloseTo(11 / Math.SQRT2, 0)
    const dead = await events([{ kind: 'component', component: 'sequence.coil', state: 'open' }])
    expect(new Set(positions(dead.found))).toEqual(new Set(['forward']))
    expect(dead.found.find((event) => event.kind === 'pull-in')).toMatchObject({ between: null })
  })

  it('with the motor’s leads off every position is asked for, and no pull-in is claimed', async () => {
    const { found, drum } = await events(
      [{ kind: 'component', component: 'motor.armature-lead', state: 'open' }],
      false,
    )
    expect(positions(found)).toEqual(plain(drum))
    expect(new Set(found.flatMap((event) => (event.kind === 'asks' ? [event.number] : []))).size).toBe(9)
    expect(found.some((event) => event.kind === 'pull-in')).toBe(false)
  })

  it('stops at a short and where nothing flows', async () => {
    const shorted = (await events([{ kind: 'component', component: 'lamp-front', state: 'shorted' }])).found.at(-1)
    expect(shorted).toMatchObject({ kind: 'stopped', why: 'short' })
    const open = (
      await events(
        kontor.centrePickups.map((pickup) => ({
          kind: 'component' as const,
          component: pickup.tread,
          state: 'open' as const,
        })),
      )
    ).found.at(-1)
    expect(open).toMatchObject({ kind: 'stopped', why: 'open' })
  })
})
