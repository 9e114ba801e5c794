import { describe, expect, it } from 'vitest'
import { constructionPlans, describeConstruction } from '../knowledge/constructions'
import { partsOfMotor } from './parts-of-motor'

describe('parts of a motor', () => {
  it('every inner part of every construction belongs to exactly one motor', () => {
    for (const { id } of constructionPlans) {
      const description = describeConstruction(id)
      const lists = description.motors.map((motor) => [...partsOfMotor(description, motor)])
      const inner = description.parts.filter((part) => part.kind === 'motor-part').map((part) => part.id)
      const all = lists.flat()
      expect(new Set(all).size, id).toBe(all.length)
      expect(all, id).toEqual(expect.arrayContaining(inner))
    }
  })

  it('of two motors in one unit each has its own brushes', () => {
    const twin = describeConstruction('three-rail-twin')
    const [front, rear] = twin.motors
    if (!front || !rear) throw new Error('two motors')
    const named = (motor: typeof front) =>
      [...partsOfMotor(twin, motor)].map((part) => twin.parts.find(({ id }) => id === part)?.name ?? '')
    expect(named(front).some((name) => /brush.*front/i.test(name))).toBe(true)
    expect(named(front).some((name) => /rear/i.test(name))).toBe(false)
    expect(named(rear).some((name) => /front/i.test(name))).toBe(false)
  })
})
