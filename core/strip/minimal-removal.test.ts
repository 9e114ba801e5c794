import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bareDescription, part } from '../engine/bare-description.test-data'
import type { Part } from '../engine/description-schema'
import { isNoWay, minimalRemoval, removalCost, type RemovalPlan } from './minimal-removal'

const engine = (parts: Part[]) => bareDescription({ parts })
const plan = (parts: Part[], goal: string[][], options = {}): RemovalPlan => {
  const found = minimalRemoval(engine(parts), goal, options)
  if (isNoWay(found)) throw new Error(found.message)
  return found
}

/** Can these come off one after the other, by trying. */
function comesOff(parts: readonly Part[], chosen: ReadonlySet<string>): boolean {
  const gone = new Set<string>()
  for (let round = 0; round < parts.length; round++) {
    for (const { id, removal } of parts) {
      if (chosen.has(id) && removal?.needs.every((group) => group.some((other) => gone.has(other)))) gone.add(id)
    }
  }
  return gone.size === chosen.size
}

describe('the cheapest way in', () => {
  it('takes either screw route, the cheaper one, and in an order that works', () => {
    const parts = [
      part('screw-left', [], { minutes: 3 }),
      part('cap', [], { minutes: 1 }),
      part('screw-right', [['cap']], { minutes: 1 }),
      part('plate', [['screw-left', 'screw-right']]),
    ]
    expect(plan(parts, [['plate']])).toMatchObject({ order: ['cap', 'screw-right', 'plate'], minutes: 3 })
  })

  it('prefers what is off already, and what serves two goals', () => {
    const parts = [
      part('lid', [], { minutes: 5 }),
      part('base', [], { minutes: 2 }),
      part('brush', [['lid', 'base']]),
      part('gear', [['lid']]),
    ]
    expect(plan(parts, [['brush']]).order).toEqual(['base', 'brush'])
    expect(plan(parts, [['brush'], ['gear']]).order).toEqual(['lid', 'brush', 'gear'])
    expect(plan(parts, [['brush']], { off: new Set(['lid']) }).order).toEqual(['brush'])
  })

  it('weighs a brittle, irreplaceable cap against minutes', () => {
    const parts = [
      part('brittle-cap', [], { minutes: 1, risk: 0.1, replacement: 'none' }),
      part('long-way', [], { minutes: 20 }),
      part('brush', [['brittle-cap', 'long-way']]),
    ]
    expect(plan(parts, [['brush']]).order).toEqual(['long-way', 'brush'])
  })

  it('says what stands in the way: a mark to leave it alone, a missing tool, a part that must stay', () => {
    const parts = [
      part('pressed-gear', [], { leaveAlone: 'pressed for good.', tools: ['press'] }),
      part('shaft', [['pressed-gear']]),
    ]
    expect(minimalRemoval(engine(parts), [['shaft']])).toMatchObject({
      code: 'left-alone',
      part: 'pressed-gear',
      message: 'Part pressed-gear is better left alone: pressed for good.',
    })
    const overruled = new Set(['pressed-gear'])
    expect(
      minimalRemoval(engine(parts), [['shaft']], { overruled, tools: new Set(['pliers' as const]) }),
    ).toMatchObject({ code: 'no-tool', message: 'Part pressed-gear needs a tool that is not on the bench: press.' })
    expect(plan(parts, [['shaft']], { overruled }).order).toEqual(['pressed-gear', 'shaft'])
    expect(minimalRemoval(engine(parts), [['shaft']], { on: new Set(['shaft']) })).toMatchObject({
      code: 'must-stay',
      part: 'shaft',
    })
  })

  it('is not fooled by two parts that hold each other', () => {
    const parts = [part('a', [['b', 'c']]), part('b', [['a']]), part('c', [], { minutes: 9 })]
    expect(plan(parts, [['b']])).toMatchObject({ order: ['c', 'a', 'b'], minutes: 11 })
    expect(
      minimalRemoval(engine(parts.slice(0, 2).map((entry) => (entry.id === 'a' ? part('a', [['b']]) : entry))), [
        ['b'],
      ]),
    ).toMatchObject({ code: 'circle' })
  })

  it('equals the best of all subsets, tried one by one, on random graphs with alternatives and circles', () => {
    const names = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h']
    const group = fc.uniqueArray(fc.constantFrom(...names), { minLength: 1, maxLength: 3 })
    const graph = fc.tuple(
      ...names.map((id) =>
        fc
          .record({
            needs: fc.array(group, { maxLength: 2 }),
            minutes: fc.integer({ min: 0, max: 9 }),
            risk: fc.constantFrom(0, 0, 0.1),
            stays: fc.boolean(),
          })
          .map(({ needs, minutes, risk, stays }) => ({
            made: part(
              id,
              needs.map((entry) => entry.filter((other) => other !== id)).filter((entry) => entry.length > 0),
              { minutes, risk },
            ),
            stays: stays && minutes > 7,
          })),
      ),
    )
    fc.assert(
      fc.property(graph, fc.array(group, { minLength: 1, maxLength: 2 }), (entries, goal) => {
        const parts = entries.map(({ made }) => made)
        const on = new Set(entries.filter(({ stays }) => stays).map(({ made }) => made.id))
        let best = Number.POSITIVE_INFINITY
        for (let bits = 0; bits < 1 << names.length; bits++) {
          const chosen = new Set(names.filter((_, index) => bits & (1 << index)))
          if (
            [...chosen].some((id) => on.has(id)) ||
            !goal.every((one) => one.some((id) => chosen.has(id))) ||
            !comesOff(parts, chosen)
          )
            continue
          best = Math.min(
            best,
            parts
              .filter(({ id }) => chosen.has(id))
              .reduce((sum, { removal }) => sum + (removal ? removalCost(removal) : 0), 0),
          )
        }
        const found = minimalRemoval(engine(parts), goal, { on })
        if (isNoWay(found)) expect(best).toBe(Number.POSITIVE_INFINITY)
        else {
          expect(found.cost).toBeCloseTo(best, 9)
          expect(comesOff(parts, new Set(found.order))).toBe(true)
        }
      }),
      { numRuns: 400 },
    )
  })
})
