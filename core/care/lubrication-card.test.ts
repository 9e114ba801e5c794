import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { constructionPlans, describeConstruction } from '../knowledge/constructions'
import { lubricationCard, products } from './lubrication-card'

const machines = constructionPlans.map((plan) => [plan.id, describeConstruction(plan.id)] as const)

/** Drops of the whole card by hand: axles × ½, motors × 1, crank pins × ¼ (common practice, no published source). */
const byHand: Readonly<Record<string, number>> = {
  'tank-can': 3 * 0.5 + 1 + 6 * 0.25,
  'side-brush-bogie': 4 * 0.5 + 1,
  'narrow-gauge': 2 * 0.5,
}

describe('a lubrication card', () => {
  it.each(Object.entries(byHand))('of %s comes to the drops counted by hand', (id, drops) => {
    const found = lubricationCard(describeConstruction(id)).drops
    // The motor bearing of a closed can beside the frame is not always a point of its own.
    expect([drops, drops + 1]).toContain(found)
  })

  it.each(machines)('of %s stays within twice of what such a machine usually takes', (_id, description) => {
    const { drops, usual } = lubricationCard(description)
    expect(drops).toBeGreaterThanOrEqual(usual[0] * 0.5)
    expect(drops).toBeLessThanOrEqual(usual[1] * 2)
  })

  it('puts nothing on commutator, brushes, tyres and switch contacts, whatever anybody holds with or a maker says', () => {
    const option = fc.record({
      chosen: fc.record({
        lubricant: fc.constantFrom('hobby', 'household'),
        'commutator-bearing': fc.constantFrom('dry', 'trace', 'trace-if-squeals'),
        'teeth-and-shafts': fc.constantFrom('grease-on-teeth', 'oil-on-teeth'),
        'rail-wheel': fc.constantFrom('dry', 'contact-lubricant'),
      }),
      advice: fc.array(
        fc.record({
          point: fc.constantFrom(
            'commutator' as const,
            'brushes' as const,
            'switch-contacts' as const,
            'worm' as const,
          ),
          product: fc.constantFrom(...products.map((product) => product.id)),
          amount: fc.constant('plenty'),
        }),
        { maxLength: 4 },
      ),
      machine: fc.constantFrom(...machines.map(([, description]) => description)),
    })
    fc.assert(
      fc.property(option, ({ machine, ...options }) => {
        const { points } = lubricationCard(machine, options)
        const dry = new Set(['commutator', 'brushes', 'tyre', 'switch-contacts'])
        expect(points.filter((point) => dry.has(point.kind))).toEqual([])
      }),
    )
  })

  it('refuses a household product where oil reaches plastic, with the plastic named, and takes it where all is metal', () => {
    const household = { chosen: { lubricant: 'household' } }
    const soft = lubricationCard(describeConstruction('side-brush-bogie'), household)
    const gears = soft.points.filter((point) => point.kind === 'gear-train')
    expect(gears.length).toBeGreaterThan(0)
    for (const point of gears) {
      expect(point.product).toBe('gear grease')
      expect(point.refused).toMatch(/^No petroleum jelly: .+ is acetal/)
    }
    const unsafe = new Set(products.filter((product) => !product.plasticSafe).map((product) => product.id))
    const metal = lubricationCard(describeConstruction('three-rail-single'), household)
    expect(metal.points.some((point) => unsafe.has(point.product ?? ''))).toBe(true)
  })

  it('follows the maker’s advice before the general card, but not into a plastic', () => {
    const bogie = describeConstruction('side-brush-bogie')
    const advised = lubricationCard(bogie, {
      advice: [{ point: 'gear-train', product: 'light oil', amount: 'one drop at the idler' }],
    })
    expect(advised.points.find((point) => point.kind === 'gear-train')).toMatchObject({
      product: 'light oil',
      amount: 'one drop at the idler',
      because: 'By the maker’s advice.',
    })
    const harmful = lubricationCard(bogie, {
      advice: [{ point: 'gear-train', product: 'petroleum jelly', amount: '' }],
    })
    expect(harmful.points.find((point) => point.kind === 'gear-train')?.product).toBe('gear grease')
  })

  it('names what stands in for what is not on the shelf, and says where nothing does', () => {
    const tank = describeConstruction('tank-can')
    const instead = (shelf: string[]) =>
      lubricationCard(tank, { shelf }).points.find((point) => point.kind === 'worm')?.instead
    expect(instead(['gear grease'])).toBe(null)
    expect(instead(['gear oil'])).toBe('gear oil')
    expect(instead([])).toBe('')
  })

  it('oils a worn live bearing generously, and the bearing beside the commutator only when it squeals', () => {
    const tank = describeConstruction('tank-can')
    const plain = lubricationCard(tank)
    const worn = lubricationCard(tank, { worn: new Set(['driver-1.bearings']) })
    expect(worn.drops - plain.drops).toBe(1)
    const squealing = lubricationCard(tank, { squeals: new Set(['motor.bearing-commutator']) })
    expect(squealing.drops - plain.drops).toBe(0.25)
  })
})
