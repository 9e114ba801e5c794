import { describe, expect, it } from 'vitest'
import { constructionPlans, describeConstruction } from '../knowledge/constructions'
import { Circuit, offTheTrack, ohmsBetween } from './circuit'
import { clampPath, motorClamp, railClamp } from './motor-clamp'

const every = constructionPlans.flatMap(({ id }) => {
  const description = describeConstruction(id)
  return description.motors.map((motor) => ({ name: `${id}, ${motor.name}`, description, motor }))
})

describe('where to clamp one motor alone', () => {
  it.each(every)(
    '$name: the ohms between the clips are those of what lies between them in line, and of nothing beside it',
    ({ description, motor }) => {
      const clamp = motorClamp(description, motor.id)
      const { through } = clampPath(description, clamp)
      expect(through.map((component) => component.id)).toContain(motor.armature)
      const states = Object.fromEntries(clamp.open.map((component) => [component, 'open' as const]))
      const between = ohmsBetween(
        new Circuit(description),
        { states: { ...offTheTrack(description), ...states } },
        clamp.plus,
        clamp.minus,
      )
      expect(between).toBeCloseTo(
        through.reduce((sum, component) => sum + (component.ohms ?? 0), 0),
        3,
      )
    },
  )

  it('with a wound field the current runs field, drum, brush lead, brushes and winding, and the fed end is kept apart', () => {
    const twin = describeConstruction('three-rail-twin')
    const path = clampPath(twin, motorClamp(twin, 'motor-front'))
    expect(path.through.map((component) => component.kind)).toEqual([
      'field',
      'switch',
      'conductor',
      'brush',
      'winding',
      'brush',
    ])
    expect(path.cutAtPlus.map((component) => component.id)).toEqual(['sequence.forward-in', 'motor-rear.field'])
  })

  it('by the rails with the motors off no winding is left in the way, and an unknown motor is refused', () => {
    const twin = describeConstruction('three-rail-twin')
    expect(railClamp(twin, true).open).toEqual(twin.motors.map((motor) => motor.feeds.plus))
    expect(clampPath(twin, railClamp(twin, true)).through.some((component) => component.kind === 'winding')).toBe(false)
    expect(() => motorClamp(twin, 'third')).toThrow(RangeError)
  })
})
