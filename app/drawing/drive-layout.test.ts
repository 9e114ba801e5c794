import { describe, expect, it } from 'vitest'
import { driveTrain } from '~~/core/engine/drive-train'
import { constructionPlans, describeConstruction } from '~~/core/knowledge/constructions'
import { layOutDrive } from './drive-layout'

describe.each(constructionPlans.map((plan) => [plan.id] as const))('the drive of %s', (id) => {
  const machine = describeConstruction(id)
  const layout = layOutDrive(machine, driveTrain(machine))

  it('places every turning part once, none on another, inside the drawing, axles from front to back', () => {
    expect(new Set(layout.rotors.map((drawn) => drawn.rotor.id)).size).toBe(layout.rotors.length)
    for (const drawn of layout.rotors) {
      expect(drawn.x).toBeLessThan(layout.width)
      expect(drawn.y).toBeLessThan(layout.height)
      for (const other of layout.rotors)
        if (other !== drawn)
          expect([drawn.rotor.id, other.rotor.id, Math.hypot(other.x - drawn.x, other.y - drawn.y) > 60]).toEqual([
            drawn.rotor.id,
            other.rotor.id,
            true,
          ])
    }
    const axles = layout.rotors.filter((drawn) => drawn.rotor.kind === 'axle')
    const place = (rotor: string): number => machine.wheelSets.find((wheelSet) => wheelSet.rotor === rotor)?.xMm ?? 0
    const byHeight = [...axles].sort((first, second) => first.y - second.y).map((drawn) => place(drawn.rotor.id))
    expect(byHeight).toEqual([...byHeight].sort((first, second) => first - second))
  })

  it('draws every link between parts that turn; the far half of a split axle with its own axle', () => {
    const near = machine.links.filter((link) => link.kind !== 'muff' && !link.id.includes('.far.'))
    expect(layout.links.map((drawn) => drawn.link.id)).toEqual(near.map((link) => link.id))
    const gripped = machine.links.filter((link) => link.kind === 'muff').map((link) => link.from)
    for (const drawn of layout.rotors)
      expect([drawn.rotor.id, drawn.split]).toEqual([drawn.rotor.id, gripped.includes(drawn.rotor.id)])
  })
})
