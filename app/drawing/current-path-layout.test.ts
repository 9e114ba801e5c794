import { describe, expect, it } from 'vitest'
import { constructionPlans, describeConstruction } from '~~/core/knowledge/constructions'
import { layOutCurrentPath } from './current-path-layout'

const machines = constructionPlans.flatMap((plan) =>
  (plan.power === 'ac' ? (['ac'] as const) : (['dc', 'dcc'] as const)).map((power) =>
    describeConstruction(plan.id, power),
  ),
)

describe.each(machines.map((machine) => [machine.name, machine] as const))(
  'the current path of %s',
  (_name, machine) => {
    const layout = layOutCurrentPath(machine)

    it('stands plus at the left, minus at the right, nothing outside and no point on another', () => {
      const [first, last] = [machine.rails.plus, machine.rails.minus].map(
        (rail) => layout.nodes.find((node) => node.id === rail)?.x ?? Number.NaN,
      )
      expect(first).toBe(Math.min(...layout.nodes.map((node) => node.x)))
      expect(last).toBe(Math.max(...layout.nodes.map((node) => node.x)))
      for (const node of layout.nodes) {
        expect(node.x).toBeGreaterThan(0)
        expect(node.x).toBeLessThan(layout.width)
        expect(node.y).toBeGreaterThan(0)
        expect(node.y).toBeLessThan(layout.height)
        for (const other of layout.nodes)
          if (other !== node && !other.rail && !node.rail)
            expect(Math.hypot(other.x - node.x, other.y - node.y)).toBeGreaterThan(20)
      }
    })

    it('shows every motor with its winding, and every component between two points that are shown', () => {
      const shown = new Set(layout.components.map((drawn) => drawn.component.id))
      for (const motor of machine.motors) expect(shown.has(motor.armature)).toBe(true)
      const nodes = new Set(layout.nodes.map((node) => node.id))
      for (const drawn of layout.components)
        expect(nodes.has(drawn.component.from) && nodes.has(drawn.component.to)).toBe(true)
      for (const drawn of layout.components) expect(drawn.y).toBeLessThanOrEqual(layout.height)
    })
  },
)

it('draws insulation once it no longer keeps apart', () => {
  const tank = describeConstruction('tank-can')
  const has = (faulty: string[]): boolean =>
    layOutCurrentPath(tank, new Set(faulty)).components.some((drawn) => drawn.component.id === 'strip-frame')
  expect([has([]), has(['strip-frame'])]).toEqual([false, true])
})
