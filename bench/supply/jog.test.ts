import { describe, expect, it } from 'vitest'
import { describeConstruction } from '../../core/knowledge/constructions'
import { Casualty } from '../casualty/casualty'
import type { CasualtyFault } from '../casualty/faults'
import { jog, type JogEnd } from './jog'
import { SimulatedSupply } from './simulated-supply'
import { spokenTo } from './spoken-to.test-data'

const tank = describeConstruction('tank-open')

async function jogged(faults: readonly CasualtyFault[], seconds: number) {
  let now = 0
  const supply = new SimulatedSupply({ clock: () => now })
  supply.clamp({ casualty: new Casualty(tank, [...faults], { seed: 3, onStand: true }), ...tank.rails })
  const said: string[] = []
  const pause = (more: number): Promise<void> => {
    now += more
    return Promise.resolve()
  }
  const plan = { volts: 4, ampsLimit: 0.6, reversed: false }
  const end: JogEnd = await jog(spokenTo(supply, said), plan, { pause }, () => now < seconds)
  return { end, said, on: supply.isOn }
}

describe('jog', () => {
  it('pulses as long as the key is held, never two without a gap, and leaves the output off', async () => {
    const { end, said, on } = await jogged([], 2)
    expect(end).toEqual({ pulses: 5, why: 'let-go' })
    const outputs = said.filter((line) => line.startsWith('OUTP '))
    expect(outputs.slice(0, 4)).toEqual(['OUTP ON', 'OUTP OFF', 'OUTP ON', 'OUTP OFF'])
    expect(outputs.filter((line) => line === 'OUTP ON')).toHaveLength(5)
    expect(on).toBe(false)
  })

  it('a key let go before the first pulse turns nothing on', async () => {
    const { end, said } = await jogged([], 0)
    expect(end.pulses).toBe(0)
    expect(said).not.toContain('OUTP ON')
  })

  it('stops at a short, however long the key is held', async () => {
    const shorted = tank.components.find((entry) => entry.kind === 'insulation' && entry.from === 'bus.right')
    const { end, on } = await jogged([{ kind: 'component', component: shorted?.id ?? '', state: 'shorted' }], 60)
    expect(end).toEqual({ pulses: 3, why: 'short' })
    expect(on).toBe(false)
  })
})
