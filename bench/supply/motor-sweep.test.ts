import { describe, expect, it } from 'vitest'
import { describeConstruction } from '../../core/knowledge/constructions'
import { Casualty } from '../casualty/casualty'
import type { CasualtyFault } from '../casualty/faults'
import { sweepMotor, usualPlan } from './motor-sweep'
import { SimulatedSupply } from './simulated-supply'
import { spokenTo } from './spoken-to.test-data'
import type { SweepEvent, SweepInstrument } from './sweep-steps'

const ridge = describeConstruction('centre-motor')

/** The simulated supply spoken to directly, with its own time. */
function bench(faults: CasualtyFault[] = [], clamped = true) {
  let seconds = 0
  const supply = new SimulatedSupply({ clock: () => seconds })
  if (clamped) supply.clamp({ casualty: new Casualty(ridge, faults, { seed: 2, onStand: true }), ...ridge.rails })
  const said: string[] = []
  // A supply that cannot record: the sweep works without.
  const { record: _record, ...instrument } = spokenTo(supply, said)
  const surroundings = {
    pause: (more: number) => {
      seconds += more
      return Promise.resolve()
    },
    held: (turn: number) => {
      expect(supply.isOn).toBe(false)
      supply.hold(turn * 0.4)
      return Promise.resolve()
    },
    free: () => {
      supply.hold(null)
      return Promise.resolve()
    },
  }
  return { supply, said, instrument, surroundings }
}

async function events(
  faults: CasualtyFault[] = [],
  clamped = true,
): Promise<{ found: SweepEvent[]; supply: SimulatedSupply; said: string[] }> {
  const { instrument, surroundings, supply, said } = bench(faults, clamped)
  const found: SweepEvent[] = []
  for await (const event of sweepMotor(instrument, usualPlan(12), surroundings)) found.push(event)
  return { found, supply, said }
}

describe('the sweep of a motor', () => {
  it('starts at low volts, holds, runs both ways, repeats, and leaves the output off; no hand is near while it is on', async () => {
    const { found, supply, said } = await events()
    const readings = found.filter((event) => event.kind === 'locked' || event.kind === 'running')
    expect(readings.filter((event) => event.kind === 'locked')).toHaveLength(24)
    expect(readings.filter((event) => event.kind === 'running' && event.direction === 'reverse')).toHaveLength(5)
    expect(readings.filter((event) => event.kind === 'running' && event.direction === 'forward')).toHaveLength(8)
    for (const event of readings)
      if (event.kind === 'running')
        expect([event.steady, Math.sign(event.amps)]).toEqual([true, event.direction === 'forward' ? 1 : -1])
    expect(said.indexOf('VOLT 1.5')).toBeLessThan(said.indexOf('OUTP ON'))
    expect(supply.isOn).toBe(false)
  })

  it('leaves a machine that takes much to cool between its runs, output off; one that takes little goes straight on', async () => {
    const rests = (found: readonly SweepEvent[]): number => found.filter((event) => event.kind === 'cooling').length
    const { instrument, surroundings, supply } = bench([{ kind: 'rubbing', motor: 'motor', torque: 0.0015 }])
    const hungry: SweepEvent[] = []
    for await (const event of sweepMotor(instrument, usualPlan(12), surroundings)) {
      hungry.push(event)
      if (event.kind === 'cooling') expect(supply.isOn).toBe(false)
    }
    expect(rests(hungry)).toBeGreaterThanOrEqual(1)
    expect(rests((await events()).found)).toBeLessThan(rests(hungry))
  })

  it('with the clamps swapped it reads the same motor: as many volts and amps, the other way round', async () => {
    const sizes = async (swapped: boolean): Promise<number[]> => {
      const { instrument, surroundings, supply } = bench()
      const { plus, minus } = ridge.rails
      if (swapped)
        supply.clamp({ casualty: new Casualty(ridge, [], { seed: 2, onStand: true }), plus: minus, minus: plus })
      const found: number[] = []
      for await (const event of sweepMotor(instrument, usualPlan(12), surroundings))
        if (event.kind === 'running') found.push(Math.abs(event.amps))
      return found
    }
    const [right, swapped] = [await sizes(false), await sizes(true)]
    expect(swapped).toHaveLength(right.length)
    for (const [index, amps] of swapped.entries())
      expect(Math.abs(amps / (right[index] as number) - 1)).toBeLessThan(0.05)
  })

  it('with a supply at its limit throughout it stops and says so, or writes down the volts there really were', async () => {
    for (const ampsLimit of [0.02, 0.08, 0.12]) {
      const { instrument, surroundings, supply } = bench()
      const found: SweepEvent[] = []
      for await (const event of sweepMotor(instrument, { ...usualPlan(12), ampsLimit }, surroundings)) found.push(event)
      expect(found.at(-1)).toMatchObject({ kind: 'stopped' })
      for (const event of found)
        if (event.kind === 'running' || event.kind === 'locked')
          expect(Math.abs(event.amps)).toBeLessThan(ampsLimit * 1.1)
      expect(supply.isOn).toBe(false)
    }
  })

  it('counts what it does up to the end', async () => {
    const doing = (await events()).found.flatMap((event) => (event.kind === 'doing' ? [event] : []))
    expect(doing.map((event) => event.done)).toEqual(doing.map((_, index) => index))
    expect(doing.at(-1)?.done).toBe((doing.at(-1)?.of ?? 0) - 1)
  })

  it('a clamp that falls off while it is held, or while it runs, ends it: nothing is written down as a reading of no current', async () => {
    for (const after of ['locked', 'running'] as const) {
      const { instrument, surroundings, supply } = bench()
      const found: SweepEvent[] = []
      for await (const event of sweepMotor(instrument, usualPlan(12), surroundings)) {
        found.push(event)
        if (event.kind === after) supply.clamp(null)
      }
      expect(found.at(-1)).toMatchObject({
        kind: 'stopped',
        why: 'open',
        sentence: expect.stringContaining('a clamp fell off') as string,
      })
      expect(
        found
          .filter((event) => event.kind === 'locked' || event.kind === 'running')
          .every((event) => Math.abs(event.amps) > 0.01),
      ).toBe(true)
      expect(supply.isOn).toBe(false)
    }
  })

  it.each([
    ['a short', [{ kind: 'turned', turnable: 'front-bogie-axles.turned' }], 'short'],
    [
      'an open circuit',
      [
        { kind: 'component', component: 'strips.right', state: 'open' },
        { kind: 'component', component: 'lamp-front', state: 'open' },
        { kind: 'component', component: 'lamp-rear', state: 'open' },
      ],
      'open',
    ],
  ] as Array<[string, CasualtyFault[], string]>)(
    'stops at %s at low volts, says so, and goes no further',
    async (_name, faults, why) => {
      const { found, supply } = await events(faults)
      expect(found.at(-1)).toMatchObject({ kind: 'stopped', why })
      expect(found.some((event) => event.kind === 'hold')).toBe(false)
      expect(supply.isOn).toBe(false)
    },
  )

  it('stops when nothing is clamped', async () => {
    expect((await events([], false)).found.at(-1)).toMatchObject({
      kind: 'stopped',
      sentence: 'Nothing flows at 1.5 V: a clamp is off, or the circuit is open. The output is off.',
    })
  })

  it('turns the output off when whoever listens goes away in the middle', async () => {
    const { instrument, surroundings, supply } = bench()
    for await (const event of sweepMotor(instrument, usualPlan(12), surroundings)) {
      if (event.kind !== 'running') continue
      expect(supply.isOn).toBe(true)
      break
    }
    expect(supply.isOn).toBe(false)
  })

  it('turns the output off when the instrument fails in the middle, and passes the failure on', async () => {
    const { instrument, surroundings, supply } = bench()
    let asked = 0
    const failing: SweepInstrument = {
      ...instrument,
      measureAmps: () => (++asked > 20 ? Promise.reject(new Error('lost')) : instrument.measureAmps()),
    }
    await expect(
      (async () => {
        for await (const _event of sweepMotor(failing, usualPlan(12), surroundings)) continue
      })(),
    ).rejects.toThrow('lost')
    expect(supply.isOn).toBe(false)
  })
})
