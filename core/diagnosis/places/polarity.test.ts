import { describe, expect, it } from 'vitest'
import type { Turnable } from '../../engine/description-schema'
import { describeConstruction } from '../../knowledge/constructions'
import { predictAssembly, reversals } from './polarity'

const turnable = (machine: ReturnType<typeof describeConstruction>, id: string): Turnable => {
  const found = machine.turnables.find((entry) => entry.id === id)
  if (!found) throw new Error(`${machine.name} has no “${id}”.`)
  return found
}

describe('what a refit will do on the track, before it is closed up', () => {
  it('one wheel set of a chassis return turned: a short; all of them, with wipers on one side only: dead', () => {
    const tank = describeConstruction('tank-can')
    for (const id of ['driver-1', 'driver-2', 'driver-3'])
      expect(predictAssembly(tank, [turnable(tank, `${id}.turned`)])).toBe('short')
    expect(predictAssembly(tank, [turnable(tank, 'wheel-sets.turned')])).toBe('still')
  })

  it('all wheel sets of locomotive and tender turned: it runs the other way', () => {
    const vale = describeConstruction('tender-pickup')
    expect(predictAssembly(vale, [turnable(vale, 'wheel-sets.turned')])).toBe('reverse')
  })

  it('magnet and leads both turned cancel each other', () => {
    const ridge = describeConstruction('centre-motor')
    expect(predictAssembly(ridge, [turnable(ridge, 'motor.magnet-turned')])).toBe('reverse')
    expect(
      predictAssembly(ridge, [turnable(ridge, 'motor.magnet-turned'), turnable(ridge, 'motor.leads-swapped')]),
    ).toBe('forward')
  })

  it('a worm of the other hand in one tower sets the bogies against each other', () => {
    const ridge = describeConstruction('centre-motor')
    const otherHand: Turnable = {
      id: 'other-hand',
      name: 'Left-hand worm',
      minutes: 1,
      access: null,
      effects: [{ kind: 'turn-link', link: 'tower-front.mesh' }],
    }
    expect(predictAssembly(ridge, [otherHand])).toBe('fights-itself')
  })

  it('a motor bogie facing back and its fellow too: the same way along the track as before', () => {
    // As if the whole locomotive stood the other way round: on DC that changes nothing along the track.
    const salt = describeConstruction('side-brush-bogie')
    expect(predictAssembly(salt, [turnable(salt, 'motor-bogie.turned')])).toBe('still')
    expect(predictAssembly(salt, [turnable(salt, 'motor-bogie.turned'), turnable(salt, 'trailing-bogie.turned')])).toBe(
      'forward',
    )
  })

  it('a decoder does not mind its rail leads, but does mind its motor leads', () => {
    const chipped = describeConstruction('centre-motor', 'dcc')
    const rails = turnable(chipped, 'decoder.rails-swapped')
    expect(predictAssembly(chipped, [rails], {}, 'dcc')).toBe('forward')
    expect(predictAssembly(chipped, [rails], {}, 'dc')).toBe('reverse')
    expect(predictAssembly(chipped, [turnable(chipped, 'decoder.motor-swapped')], {}, 'dcc')).toBe('reverse')
  })
})

describe('the smallest reversal', () => {
  it('after a service with the strips mirrored, or anything else turned, mirrors the strips back: the least to take off', () => {
    const ridge = describeConstruction('centre-motor')
    for (const id of ['strips-mirrored', 'motor.magnet-turned']) {
      const [first, ...others] = reversals(ridge, [turnable(ridge, id)])
      expect(first?.turnables.map((entry) => entry.id)).toEqual(['strips-mirrored'])
      for (const other of others) expect(other.minutes).toBeGreaterThanOrEqual(first?.minutes ?? 0)
    }
  })

  it('with the motor out already, another one is the smallest', () => {
    const ridge = describeConstruction('centre-motor')
    const everythingOff = new Set(ridge.parts.filter((part) => part.removal).map((part) => part.id))
    const [first] = reversals(ridge, [], everythingOff)
    expect(first?.minutes).toBeLessThanOrEqual(2)
    expect(reversals(ridge)[0]?.minutes).toBeGreaterThan(5)
  })

  it('never offers what would short or tear the trucks apart', () => {
    const fjell = describeConstruction('articulated')
    expect(reversals(fjell).flatMap((reversal) => reversal.turnables.map((entry) => entry.id))).not.toContain(
      'front-truck.turned',
    )
  })
})
