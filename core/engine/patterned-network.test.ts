import fc from 'fast-check'
import { Matrix, solve } from 'ml-matrix'
import { describe, expect, it } from 'vitest'
import { PatternedNetwork, UNJOINED_OHMS } from './patterned-network'

const ohmsOf = (network: PatternedNetwork, from: number, to: number): number => {
  const volts = network.potentials(from, to, 1)
  return (volts[from] as number) - (volts[to] as number)
}

describe('a network whose joints stay and whose values change', () => {
  it('divides like two resistors in series and in parallel (derived)', () => {
    const network = new PatternedNetwork(3, [
      [0, 1],
      [1, 2],
      [0, 2],
    ])
    network.factorise([1 / 10, 1 / 20, 0])
    expect(ohmsOf(network, 0, 2)).toBeCloseTo(30, 5)
    network.factorise([1 / 10, 1 / 20, 1 / 30])
    expect(ohmsOf(network, 0, 2)).toBeCloseTo(15, 5)
  })

  it('has nothing between a balanced bridge’s middle points (derived: Wheatstone)', () => {
    const network = new PatternedNetwork(4, [
      [0, 1],
      [1, 3],
      [0, 2],
      [2, 3],
      [1, 2],
    ])
    network.factorise([1 / 10, 1 / 20, 1 / 30, 1 / 60, 1 / 5])
    const volts = network.potentials(0, 3, 1)
    expect((volts[1] as number) - (volts[2] as number)).toBeCloseTo(0, 6)
  })

  it('calls two islands unjoined', () => {
    const network = new PatternedNetwork(4, [
      [0, 1],
      [2, 3],
      [1, 2],
    ])
    network.factorise([1, 1, 0])
    expect(ohmsOf(network, 0, 3)).toBeGreaterThan(UNJOINED_OHMS)
    expect(ohmsOf(network, 0, 1)).toBeCloseTo(1, 6)
  })

  it('agrees with a general solver on random networks, value set after value set', () => {
    const network = fc.integer({ min: 3, max: 14 }).chain((size) =>
      fc.record({
        size: fc.constant(size),
        ends: fc.array(fc.tuple(fc.integer({ min: 0, max: size - 1 }), fc.integer({ min: 0, max: size - 1 })), {
          minLength: 1,
          maxLength: 30,
        }),
        seeds: fc.array(fc.array(fc.double({ min: 0.001, max: 500, noNaN: true }), { minLength: 48, maxLength: 48 }), {
          minLength: 2,
          maxLength: 3,
        }),
      }),
    )
    fc.assert(
      fc.property(network, ({ size, ends, seeds }) => {
        // A chain through all nodes keeps them in one piece.
        const all: Array<readonly [number, number]> = [
          ...ends,
          ...Array.from({ length: size - 1 }, (_, node) => [node, node + 1] as const),
        ]
        const patterned = new PatternedNetwork(size, all)
        for (const values of seeds) {
          const conductances = all.map((_, index) => values[index % values.length] as number)
          patterned.factorise(conductances)
          const laplacian = Matrix.zeros(size, size)
          for (const [index, [from, to]] of all.entries()) {
            if (from === to) continue
            const value = conductances[index] as number
            laplacian.set(from, from, laplacian.get(from, from) + value)
            laplacian.set(to, to, laplacian.get(to, to) + value)
            laplacian.set(from, to, laplacian.get(from, to) - value)
            laplacian.set(to, from, laplacian.get(to, from) - value)
          }
          const reduced = laplacian.subMatrix(1, size - 1, 1, size - 1)
          const injected = Matrix.columnVector(
            Array.from({ length: size - 1 }, (_, index) => (index + 1 === size - 1 ? 1 : 0)),
          )
          const expected = solve(reduced, injected).get(size - 2, 0)
          expect(Math.abs(ohmsOf(patterned, size - 1, 0) - expected)).toBeLessThan(1e-4 * Math.max(1, expected))
        }
      }),
      { numRuns: 150 },
    )
  })
})
