import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { currentTraits, motorTraits, wheelTraits } from './construction-traits'
import { fittingConstructions, knownTraits } from './fitting-constructions'

describe('what machine is it', () => {
  it('each construction shows what its summary tells (read by hand, common practice)', () => {
    expect(Object.fromEntries(knownTraits().map(({ id, traits }) => [id, Object.values(traits)]))).toEqual({
      'open-frame': ['coupled-axles', 'over-an-axle', 'wipers-and-frame'],
      'tender-pickup': ['coupled-axles', 'over-an-axle', 'unit-each'],
      'split-frame': ['coupled-axles', 'over-an-axle', 'frame-halves'],
      'tank-can': ['coupled-axles', 'over-an-axle', 'wipers-and-frame'],
      'tank-open': ['coupled-axles', 'over-an-axle', 'wipers-and-frame'],
      articulated: ['two-coupled-groups', 'shaft-both-ways', 'wipers'],
      'side-brush-bogie': ['one-bogie', 'in-a-bogie', 'truck-each'],
      'centre-motor': ['both-bogies', 'shaft-both-ways', 'wipers'],
      'motor-bogie-unit': ['one-bogie', 'in-a-bogie', 'wipers'],
      'axle-cup': ['one-axle', 'shaft-one-way', 'cups'],
      'narrow-gauge': ['frame-axles', 'over-an-axle', 'wipers'],
      'three-rail-single': ['coupled-axles', 'over-an-axle', 'centre-rail'],
      'three-rail-twin': ['both-bogies', 'one-each', 'centre-rail'],
    })
  })

  it('all three answered truly leave at most three, the true one among them', () => {
    for (const { id, traits } of knownTraits()) {
      const left = fittingConstructions(traits)
      expect(left.map(({ construction }) => construction)).toContain(id)
      expect(left.length).toBeLessThanOrEqual(3)
      expect(left.every(({ against }) => against.length === 0)).toBe(true)
    }
  })

  it('one wrong answer still leaves the true one in sight, and says which answer is against it', () => {
    const cups = fittingConstructions({ wheels: 'one-axle', motor: 'in-a-bogie', current: 'cups' })
    expect(cups).toEqual([{ construction: 'axle-cup', against: ['motor'] }])
  })

  it('another answer never brings back what fitted worse (property)', () => {
    const keys = <T extends object>(of: T) => fc.constantFrom(...(Object.keys(of) as Array<keyof T>))
    fc.assert(
      fc.property(keys(wheelTraits), keys(motorTraits), keys(currentTraits), (wheels, motor, current) => {
        const before = fittingConstructions({ wheels, motor })
        const after = fittingConstructions({ wheels, motor, current })
        if (before.every(({ against }) => against.length === 0) && after.every(({ against }) => against.length === 0))
          for (const { construction } of after)
            expect(before.map((entry) => entry.construction)).toContain(construction)
      }),
    )
  })
})
