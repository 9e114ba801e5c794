import { describe, expect, it } from 'vitest'
import { describeConstruction } from '../knowledge/constructions'
import { bareDescription } from './bare-description.test-data'
import type { DriveLink, EngineDescription } from './description-schema'
import { driveTrain, looseHalves, motorSpeedFor, ordersOf, pullsAgainstItself, trackSpeed } from './drive-train'

const rotor = (id: string, kind: EngineDescription['rotors'][number]['kind'] = 'gear') => ({
  id,
  name: `The ${id}`,
  kind,
  part: 'thing',
  unit: 'unit',
})
const link = (
  id: string,
  from: string,
  to: string,
  teeth: [number, number] | null,
  more: Partial<DriveLink> = {},
): DriveLink => ({
  id,
  name: `Link ${id}`,
  kind: 'mesh',
  from,
  to,
  teethFrom: teeth?.[0] ?? null,
  teethTo: teeth?.[1] ?? null,
  reverses: teeth !== null,
  part: null,
  ...more,
})
const wheel = { part: 'thing', insulated: false, tyre: false, tread: null }
const axle = (id: string, diameterMm: number, forward: 'with' | 'against' = 'with') => ({
  id,
  name: `Axle ${id}`,
  rotor: id,
  unit: 'unit',
  truck: 't',
  xMm: 0,
  diameterMm,
  left: wheel,
  right: wheel,
  forward,
})
const motor = {
  id: 'motor',
  name: 'Motor',
  kind: 'can' as const,
  part: 'thing',
  armature: 'w',
  field: null,
  backEmf: 0.01,
  coulombTorque: 0,
  viscousTorque: 1e-7,
  segments: 3,
  rotor: 'armature',
  feeds: { plus: 'w', minus: 'w' },
  opens: false,
}

/** Worm 1:30 on axle one, spur 12:12 over an idler of 10 to axle two, axle three free on smaller wheels. */
const machine = bareDescription({
  motors: [motor],
  rotors: [
    rotor('armature', 'armature'),
    rotor('worm', 'worm'),
    rotor('one', 'axle'),
    rotor('idler', 'idler'),
    rotor('two', 'axle'),
    rotor('three', 'axle'),
  ],
  links: [
    link('seat', 'armature', 'worm', null, { kind: 'press-fit' }),
    link('worm-mesh', 'worm', 'one', [1, 30], { kind: 'worm', reverses: false }),
    link('first', 'one', 'idler', [12, 10]),
    link('second', 'idler', 'two', [10, 12]),
  ],
  trucks: [{ id: 't', name: 'T', unit: 'unit' }],
  wheelSets: [axle('one', 15), axle('two', 15), axle('three', 10)],
})

describe('gear arithmetic worked by hand', () => {
  it('turns: axle 1/30, idler 1/25 the other way, the second axle 1/30 again, the free one by its smaller wheel 1/20', () => {
    const { turning, wheels } = driveTrain(machine)
    expect(turning.get('one')?.turnsPerMotorTurn).toBeCloseTo(1 / 30, 12)
    expect(turning.get('idler')?.turnsPerMotorTurn).toBeCloseTo(-1 / 25, 12)
    expect(turning.get('two')?.turnsPerMotorTurn).toBeCloseTo(1 / 30, 12)
    expect(turning.get('two')?.path).toEqual(['seat', 'worm-mesh', 'first', 'second'])
    expect(wheels[2]).toMatchObject({ driven: false })
    expect(wheels[2]?.order).toBeCloseTo(1 / 20, 12)
  })

  it('speed: 9 000 rpm over 30:1 on 15 mm wheels is 0.2356 m/s, and back again', () => {
    const train = driveTrain(machine)
    const radPerSecond = (9000 * 2 * Math.PI) / 60
    const speed = trackSpeed(train, radPerSecond)
    // 9000/60/30 turns a second of π·15 mm.
    expect(speed).toBeCloseTo((9000 / 60 / 30) * Math.PI * 0.015, 12)
    expect(motorSpeedFor(train, speed ?? 0)).toBeCloseTo(radPerSecond, 8)
  })

  it('orders: each part once a turn, each mesh its teeth times that', () => {
    const orders = ordersOf(machine, driveTrain(machine))
    const of = (what: string) => orders.find((order) => order.what === what)?.order
    expect(of('The idler')).toBeCloseTo(1 / 25, 12)
    expect(of('Axle three, rolling')).toBeCloseTo(1 / 20, 12)
    expect(of('Teeth of link worm-mesh')).toBeCloseTo(1, 12)
    expect(of('Teeth of link first')).toBeCloseTo(12 / 30, 12)
    expect(of('Teeth of link second')).toBeCloseTo(10 / 25, 12)
  })

  it('a slipping link leaves what is behind it undriven', () => {
    const { wheels } = driveTrain(machine, new Set(['first']))
    expect(wheels.map((entry) => entry.driven)).toEqual([true, false, false])
  })

  it('a cracked muff: on a coupled axle the rods of its side still turn the far half, on an uncoupled one nothing does', () => {
    const splitFrame = describeConstruction('split-frame')
    expect(looseHalves(splitFrame, new Set(['driver-2.grip']))).toEqual([
      { wheelSet: 'driver-2', muff: 'driver-2.grip', turnedByRods: true },
    ])
    expect(driveTrain(splitFrame, new Set(['driver-2.grip'])).turning.get('driver-2.far-half')?.path).toContain(
      'driver-1.grip',
    )
    const allMuffs = new Set(['driver-1.grip', 'driver-2.grip', 'driver-3.grip'])
    expect(looseHalves(splitFrame, allMuffs).map((half) => half.turnedByRods)).toEqual([false, false, false])
    const railcar = describeConstruction('axle-cup')
    expect(looseHalves(railcar, new Set(['driven-1.grip']))).toEqual([
      { wheelSet: 'driven-1', muff: 'driven-1.grip', turnedByRods: false },
    ])
    expect(looseHalves(splitFrame, new Set(['axle-gear.mesh']))).toEqual([])
  })

  it('rods between axles geared alike turn; between axles geared otherwise they bind, and the rods are named', () => {
    const rods = (between: DriveLink) => driveTrain({ ...machine, links: [...machine.links, between] })
    expect(rods(link('rods', 'one', 'two', null, { kind: 'rods' })).binds).toEqual([])
    const odd = driveTrain({
      ...machine,
      links: [
        ...machine.links.map((entry) => (entry.id === 'second' ? { ...entry, teethTo: 13 } : entry)),
        link('rods', 'one', 'two', null, { kind: 'rods' }),
      ],
    })
    expect(odd.binds).toHaveLength(1)
    expect(pullsAgainstItself(odd)).toBe(true)
  })

  it('two trucks turned by one motor the opposite way pull against each other', () => {
    expect(
      pullsAgainstItself(driveTrain({ ...machine, wheelSets: [axle('one', 15), axle('two', 15, 'against')] })),
    ).toBe(true)
  })
})

describe('the templates’ ratios, from the teeth written in them', () => {
  it.each([
    ['tank-can', 30],
    ['tank-open', 30],
    ['open-frame', 32],
    ['tender-pickup', 28],
    ['split-frame', 26],
    ['articulated', 34],
    ['side-brush-bogie', (37 / 10) * (24 / 10) * (40 / 24)],
    ['centre-motor', (24 / 2) * (20 / 16)],
    ['motor-bogie-unit', 18],
    ['axle-cup', 12],
    ['narrow-gauge', 40],
    ['three-rail-single', (44 / 10) * (30 / 12) * (42 / 30)],
    ['three-rail-twin', (22 / 2) * (24 / 18)],
  ])('%s', (id, turns) => {
    const train = driveTrain(describeConstruction(id))
    const driven = train.wheels.filter((wheelMotion) => wheelMotion.driven)
    for (const wheelMotion of driven) expect(1 / (wheelMotion.order ?? 0)).toBeCloseTo(turns, 9)
  })
})
