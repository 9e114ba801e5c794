import { describe, expect, it } from 'vitest'
import { describeConstruction } from '../knowledge/constructions'
import { Circuit, offTheTrack, ohmsBetween } from './circuit'
import { identicalFaults, type ProbeTest } from './identical-faults'

const circuit = new Circuit(describeConstruction('tank-can'))
const groupOf = (tests: ProbeTest[], component: string, state: string) =>
  identicalFaults(circuit, tests).find((group) =>
    group.faults.some((fault) => fault.component === component && fault.state === state),
  )
const names = (group: ReturnType<typeof groupOf>): string[] =>
  group?.faults.map((fault) => `${fault.component} ${fault.state}`) ?? []

const track: ProbeTest = { kind: 'run', plus: 'rail.right', minus: 'rail.left', volts: 12 }
const motorAlone: ProbeTest = { kind: 'run', plus: 'motor.plus', minus: 'motor.minus', volts: 12 }

describe('what the probes cannot tell apart', () => {
  it('a dead engine on the track: an open lead, brush or winding look the same', () => {
    // The lamp hangs behind the pickup lead but before the motor lead, so the two leads do differ.
    const dead = names(groupOf([track], 'motor.winding', 'open'))
    expect(dead).toEqual(
      expect.arrayContaining(['motor.brush-plus open', 'motor.spring-minus open', 'motor.lead-plus open']),
    )
    expect(dead).not.toContain('lead.right open')
  })

  it('clamped to the motor as well, the lead shows itself and the brush does not', () => {
    const dead = names(groupOf([track, motorAlone], 'motor.winding', 'open'))
    expect(dead).toContain('motor.brush-plus open')
    expect(dead).not.toContain('motor.lead-plus open')
  })

  it('one wiper of three that does not touch looks sound on the track, and shows itself with a meter on the bench', () => {
    const fault = { 'driver-1.right.wiper': 'open' as const }
    expect(groupOf([track], 'driver-1.right.wiper', 'open')?.sound).toBe(true)
    const rimToStrip = (states: object): number =>
      ohmsBetween(circuit, { states: { ...states, ...fault } }, 'driver-1.right', 'bus.right')
    // On the track the meter finds its way over the rail and the next wheel.
    expect(rimToStrip({})).toBeLessThan(2)
    expect(rimToStrip(offTheTrack(circuit.description))).toBe(Number.POSITIVE_INFINITY)
  })

  it('every fault stands in exactly one group', () => {
    const groups = identicalFaults(circuit, [track, motorAlone])
    const all = groups.flatMap((group) => group.faults.map((fault) => `${fault.component} ${fault.state}`))
    expect(new Set(all).size).toBe(all.length)
    expect(all.length).toBe(circuit.components.reduce((sum, component) => sum + component.faults.length, 0))
  })
})
