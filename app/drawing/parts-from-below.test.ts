import { describe, expect, it } from 'vitest'
import { constructionPlans, describeConstruction } from '~~/core/knowledge/constructions'
import { DRAWING } from './engine-parts-layout'
import { layOutFromBelow } from './parts-from-below'

describe('the engine from below', () => {
  it('shows every wheel, axle, rod and collector of every construction, within the drawing', () => {
    for (const { id } of constructionPlans) {
      const description = describeConstruction(id)
      const shapes = layOutFromBelow(description)
      const drawn = new Set(shapes.flatMap(({ parts }) => parts))
      const wanted = description.parts.filter((part) => ['wheel', 'axle', 'rod'].includes(part.kind))
      for (const part of wanted) expect(drawn, `${id}: ${part.id}`).toContain(part.id)
      for (const { shape } of shapes) {
        expect(shape.width, id).toBeGreaterThan(0)
        expect(shape.height, id).toBeGreaterThan(0)
        expect(shape.x + shape.width, id).toBeLessThanOrEqual(DRAWING.width)
        expect(shape.y + shape.height, id).toBeLessThanOrEqual(DRAWING.height)
      }
    }
  })

  it('a strip reaches along the wheels whose wipers lead to it, on their side', () => {
    const shapes = layOutFromBelow(describeConstruction('tank-can'))
    const strips = shapes.filter(({ parts }) => parts.includes('wiper-strip')).map(({ shape }) => shape)
    const wheels = shapes.filter(({ key }) => /^driver-\d\.right$/.test(key)).map(({ shape }) => shape)
    expect(strips).toHaveLength(1)
    expect(wheels).toHaveLength(3)
    for (const wheel of wheels) {
      const middle = wheel.x + wheel.width / 2
      expect(strips[0]?.x).toBeLessThan(middle)
      expect((strips[0]?.x ?? 0) + (strips[0]?.width ?? 0)).toBeGreaterThan(middle)
      // Turned over, the right side lies at the bottom; the strip lies further in than the wheels.
      expect(wheel.y).toBeGreaterThan(DRAWING.height / 2)
      expect(strips[0]?.y).toBeLessThan(wheel.y)
    }
  })
})
