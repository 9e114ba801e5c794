import { describe, expect, it } from 'vitest'
import { describeConstruction } from '../../core/knowledge/constructions'
import { Casualty } from '../casualty/casualty'
import type { CasualtyFault } from '../casualty/faults'
import { relayTest, usualRelayTest, type HeardOfRelay, type RelayTestEvent } from './relay-test'
import { SimulatedSupply } from './simulated-supply'
import { spokenTo } from './spoken-to.test-data'

const twin = describeConstruction('three-rail-twin')
const leadsOff = twin.motors.map((motor): CasualtyFault => ({
  kind: 'component',
  component: motor.feeds.plus,
  state: 'open',
}))

async function events(
  faults: readonly CasualtyFault[],
  ear: HeardOfRelay = 'silent',
): Promise<{ found: RelayTestEvent[]; on: boolean }> {
  let seconds = 0
  const supply = new SimulatedSupply({ clock: () => seconds })
  supply.clamp({ casualty: new Casualty(twin, [...leadsOff, ...faults], { seed: 5, onStand: true }), ...twin.rails })
  const found: RelayTestEvent[] = []
  let asked = false
  const pause = (more: number) => {
    seconds += more
    return Promise.resolve()
  }
  for await (const event of relayTest(
    spokenTo(supply),
    usualRelayTest(18),
    { pause },
    () => (asked ? ear : null),
    () => {
      asked = false
    },
  )) {
    if (event.kind === 'asks') asked = true
    found.push(event)
  }
  return { found, on: supply.isOn }
}
const brackets = (found: readonly RelayTestEvent[], kind: 'pull-in' | 'drop-out') =>
  found.flatMap((event) => (event.kind === kind ? [event.between] : []))
const around = (bracket: readonly [number, number] | null | undefined, volts: number): void => {
  expect(bracket?.[0]).toBeLessThanOrEqual(volts + 0.1)
  expect(bracket?.[1]).toBeGreaterThanOrEqual(volts)
  expect((bracket?.[1] ?? 0) - (bracket?.[0] ?? 0)).toBeLessThan(0.11)
}

describe('the test of a relay', () => {
  it('finds the volts that pull a sound one in and let it go, three times, sees it at rest on AC, and leaves the output off', async () => {
    const { found, on } = await events([])
    expect(brackets(found, 'pull-in')).toHaveLength(3)
    for (const bracket of brackets(found, 'pull-in')) around(bracket, 4)
    for (const bracket of brackets(found, 'drop-out')) around(bracket, 1.6)
    expect(found.at(-1)).toMatchObject({ kind: 'on-ac', between: null })
    expect(on).toBe(false)
  })

  it('finds other volts for one with a tired spring, which the AC then pulls too', async () => {
    const { found } = await events([{ kind: 'sticky-relay', relay: 'horn.relay', pullInVolts: 0.8, letGoVolts: 0.3 }])
    around(brackets(found, 'pull-in')[0], 0.8)
    around(brackets(found, 'drop-out')[0], 0.3)
    const onAc = found.at(-1)
    expect(onAc).toMatchObject({ kind: 'on-ac', between: expect.any(Array) as unknown })
  })

  it('says of one that hangs that it does not let go, and reads no further', async () => {
    const { found } = await events([{ kind: 'sticky-relay', relay: 'horn.relay', pullInVolts: 4, letGoVolts: 0 }])
    expect(brackets(found, 'drop-out')).toEqual([null])
    expect(brackets(found, 'pull-in')).toHaveLength(1)
    expect(found.some((event) => event.kind === 'on-ac')).toBe(false)
  })

  it.each([
    ['coil', 'horn.coil'],
    ['contact', 'horn.contact'],
    ['load', 'horn.load'],
  ] as const)(
    'with the %s open it asks what is heard instead of guessing, and claims no volts',
    async (_name, component) => {
      const { found, on } = await events(
        [{ kind: 'component', component, state: 'open' }],
        component === 'horn.coil' ? 'silent' : 'clicks',
      )
      expect(found.some((event) => event.kind === 'asks')).toBe(true)
      expect(found.at(-1)).toMatchObject({ kind: 'heard', what: component === 'horn.coil' ? 'silent' : 'clicks' })
      expect(brackets(found, 'pull-in')).toEqual([])
      expect(on).toBe(false)
    },
  )

  it('stops at a short and where nothing flows', async () => {
    expect(
      (await events([{ kind: 'component', component: 'lamp-front', state: 'shorted' }])).found.at(-1),
    ).toMatchObject({ kind: 'stopped', why: 'short' })
    expect(
      (
        await events(
          twin.centrePickups.map((pickup) => ({
            kind: 'component' as const,
            component: pickup.tread,
            state: 'open' as const,
          })),
        )
      ).found.at(-1),
    ).toMatchObject({ kind: 'stopped', why: 'open' })
  })
})
