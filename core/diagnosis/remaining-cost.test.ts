import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { RemainingCost, type GroupPrices } from './remaining-cost'

const permutations = (items: readonly number[]): number[][] =>
  items.length <= 1
    ? [[...items]]
    : items.flatMap((item, index) =>
        permutations([...items.slice(0, index), ...items.slice(index + 1)]).map((rest) => [item, ...rest]),
      )

/** Expected minutes of looking at groups in this order until the one fault is met, parts paid once. */
const minutesOf = (
  order: readonly number[],
  chances: readonly number[],
  { lookMinutes, lookParts, partCost }: GroupPrices,
): number => {
  const off = new Set<number>()
  let [spent, total] = [0, 0]
  for (const group of order) {
    spent += lookMinutes[group] as number
    for (const part of lookParts[group] as readonly number[]) {
      if (!off.has(part)) spent += partCost[part] as number
      off.add(part)
    }
    total += (chances[group] as number) * spent
  }
  return total
}

const groupsOf = (count: number): Int16Array =>
  Int16Array.from(Array.from({ length: count }, (_, group) => [group, -1, -1]).flat())

describe('what remains to be spent', () => {
  it('is the best order there is for one fault with independent costs: chance over cost (Kalagnanam and Henrion 1990)', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            chance: fc.double({ min: 0.01, max: 1, noNaN: true }),
            minutes: fc.double({ min: 0.2, max: 30, noNaN: true }),
          }),
          { minLength: 1, maxLength: 6 },
        ),
        (groups) => {
          const sum = groups.reduce((total, { chance }) => total + chance, 0)
          const chances = groups.map(({ chance }) => chance / sum)
          const prices: GroupPrices = {
            lookMinutes: groups.map(({ minutes }) => minutes),
            lookParts: groups.map(() => []),
            repairParts: groups.map(() => []),
            partCost: [],
          }
          const best = Math.min(...permutations([...groups.keys()]).map((order) => minutesOf(order, chances, prices)))
          expect(
            new RemainingCost(prices, groupsOf(groups.length)).of(Float64Array.from(chances), groups.length, []),
          ).toBeCloseTo(best, 8)
        },
      ),
      { numRuns: 200 },
    )
  })

  it('is the best order there is for one fault behind shared covers: the cover whose best few have most chance per minute', () => {
    const group = fc.record({
      chance: fc.double({ min: 0.01, max: 1, noNaN: true }),
      minutes: fc.double({ min: 0.2, max: 20, noNaN: true }),
      cover: fc.integer({ min: -1, max: 2 }),
    })
    fc.assert(
      fc.property(
        fc.array(group, { minLength: 1, maxLength: 6 }),
        fc.array(fc.double({ min: 0.5, max: 25, noNaN: true }), { minLength: 3, maxLength: 3 }),
        (groups, partCost) => {
          const sum = groups.reduce((total, { chance }) => total + chance, 0)
          const chances = groups.map(({ chance }) => chance / sum)
          const lookParts = groups.map(({ cover }) => (cover < 0 ? [] : [cover]))
          const prices: GroupPrices = {
            lookMinutes: groups.map(({ minutes }) => minutes),
            lookParts,
            repairParts: lookParts,
            partCost,
          }
          const best = Math.min(...permutations([...groups.keys()]).map((order) => minutesOf(order, chances, prices)))
          expect(
            new RemainingCost(prices, groupsOf(groups.length)).of(Float64Array.from(chances), groups.length, []),
          ).toBeCloseTo(best, 6)
        },
      ),
      { numRuns: 300 },
    )
  })

  it('goes as far down the order as the last of several faults, and pays a cover once', () => {
    // Worked by hand: order is group 0 (1 min), then the cover (4 min) with group 1 (2 min).
    const prices: GroupPrices = { lookMinutes: [1, 2], lookParts: [[], [0]], repairParts: [[0], [0]], partCost: [4] }
    const both = new RemainingCost(prices, Int16Array.from([0, 1, -1]))
    expect(both.of(Float64Array.of(1), 1, [])).toBeCloseTo(1 + 4 + 2)
    expect(both.of(Float64Array.of(1), 1, [0])).toBeCloseTo(1 + 2)
    // Alone, group 0 still needs the cover off for its repair.
    expect(new RemainingCost(prices, Int16Array.from([0, -1, -1])).of(Float64Array.of(1), 1, [])).toBeCloseTo(1 + 4)
  })

  it('is, down its own order, what somebody with paper would add up for any sets of faults', () => {
    const groups = 5
    const partsOf = fc.uniqueArray(fc.nat(39), { maxLength: 4 })
    const drawn = fc.record({
      lookMinutes: fc.array(fc.double({ min: 0.2, max: 20, noNaN: true }), { minLength: groups, maxLength: groups }),
      lookParts: fc.array(partsOf, { minLength: groups, maxLength: groups }),
      repairParts: fc.array(partsOf, { minLength: groups, maxLength: groups }),
      partCost: fc.array(fc.double({ min: 0.1, max: 9, noNaN: true }), { minLength: 40, maxLength: 40 }),
      off: partsOf,
      sets: fc.array(
        fc.record({
          members: fc.array(fc.integer({ min: -1, max: groups - 1 }), { minLength: 3, maxLength: 3 }),
          weight: fc.double({ min: 0.01, max: 1, noNaN: true }),
        }),
        { minLength: 1, maxLength: 8 },
      ),
    })
    fc.assert(
      fc.property(drawn, ({ off, sets, ...prices }) => {
        const cost = new RemainingCost(prices, Int16Array.from(sets.flatMap(({ members }) => members)))
        const found = cost.of(
          Float64Array.from(sets, ({ weight }) => weight),
          sets.length,
          off,
        )
        const order = cost.sequence
        const worth = (parts: Iterable<number>): number =>
          [...parts].reduce((sum, part) => sum + (prices.partCost[part] as number), 0)
        const paper = sets.reduce((total, { members, weight }) => {
          const last = Math.max(...members.map((group) => order.indexOf(group)))
          const seen = order.slice(0, last + 1)
          const opened = new Set(seen.flatMap((group) => prices.lookParts[group] as number[]))
          const needed = new Set([...opened, ...members.flatMap((group) => prices.repairParts[group] ?? [])])
          for (const part of off) needed.delete(part)
          return (
            total +
            weight * (seen.reduce((sum, group) => sum + (prices.lookMinutes[group] as number), 0) + worth(needed))
          )
        }, 0)
        expect(found).toBeCloseTo(paper, 8)
      }),
      { numRuns: 300 },
    )
  })

  it('costs nothing where nothing is wrong', () => {
    expect(
      new RemainingCost(
        { lookMinutes: [3], lookParts: [[]], repairParts: [[]], partCost: [] },
        Int16Array.from([-1, -1, -1]),
      ).of(Float64Array.of(1), 1, []),
    ).toBe(0)
  })
})
