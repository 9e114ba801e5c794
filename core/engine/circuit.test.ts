import fc from 'fast-check'
import { Matrix, solve } from 'ml-matrix'
import { describe, expect, it } from 'vitest'
import { bareDescription, onlyCircuit, resistor } from './bare-description.test-data'
import { Circuit, ohmsBetween } from './circuit'
import type { EngineDescription, Motor } from './description-schema'
import { operatingPoint, type OperatingPoint } from './operating-point'

const ideal = { plus: 'plus', minus: 'minus', ohms: 1e-4 } as const
const point = (description: EngineDescription, volts: number, more = {}, condition = {}): OperatingPoint =>
  operatingPoint(new Circuit(description), condition, { ...ideal, volts, ...more })

describe('networks worked by hand', () => {
  it('a divider: 12 V over 100 and 200 Ω leaves 8 V on the lower one and draws 40 mA (derived)', () => {
    const divider = onlyCircuit([resistor('upper', 'plus', 'middle', 100), resistor('lower', 'middle', 'minus', 200)])
    const { nodeVolts, supplyAmps, componentAmps } = point(divider, 12)
    expect(nodeVolts.middle).toBeCloseTo(8, 4)
    expect(supplyAmps).toBeCloseTo(0.04, 6)
    expect(componentAmps.lower).toBeCloseTo(0.04, 6)
  })

  it('an unbalanced bridge: 100/200 beside 200/100 with 100 Ω across (derived)', () => {
    // Node equations at 10 V, in mS: 25·a − 10·b = 100 and −10·a + 25·b = 50, so a = 300/52.5 and b = 225/52.5 V.
    const bridge = onlyCircuit([
      resistor('r1', 'plus', 'a', 100),
      resistor('r2', 'a', 'minus', 200),
      resistor('r3', 'plus', 'b', 200),
      resistor('r4', 'b', 'minus', 100),
      resistor('across', 'a', 'b', 100),
    ])
    const { nodeVolts, componentAmps } = point(bridge, 10)
    expect(nodeVolts.a).toBeCloseTo(300 / 52.5, 4)
    expect(nodeVolts.b).toBeCloseTo(225 / 52.5, 4)
    expect(componentAmps.across).toBeCloseTo((300 - 225) / 52.5 / 100, 6)
  })

  it('a ladder of four equal rungs: the halves of Fibonacci, 21/34 of its input left after the first rung (derived)', () => {
    const rungs = [1, 2, 3, 4].flatMap((step) => [
      resistor(`along-${step}`, step === 1 ? 'plus' : `n${step - 1}`, `n${step}`, 1),
      resistor(`down-${step}`, `n${step}`, 'minus', 1),
    ])
    const { nodeVolts, supplyAmps } = point(onlyCircuit(rungs), 34)
    // From the far end: 1, 2, 3, 5, 8, 13, 21, 34; volts are every second one, the current in is 21.
    expect([nodeVolts.n4, nodeVolts.n3, nodeVolts.n2, nodeVolts.n1].map((volts) => Math.round(volts ?? 0))).toEqual([
      1, 2, 5, 13,
    ])
    expect(supplyAmps).toBeCloseTo(21, 1)
  })

  it('an ohmmeter reads series as a sum, parallel as its parallel value, and nothing where nothing passes', () => {
    const circuit = new Circuit(
      onlyCircuit([
        resistor('a', 'plus', 'm', 30),
        resistor('b', 'm', 'minus', 60),
        resistor('c', 'm', 'minus', 30),
        resistor('gap', 'minus', 'island', null),
      ]),
    )
    expect(ohmsBetween(circuit, {}, 'plus', 'm')).toBeCloseTo(30, 6)
    expect(ohmsBetween(circuit, {}, 'plus', 'minus')).toBeCloseTo(50, 6)
    expect(ohmsBetween(circuit, {}, 'plus', 'island')).toBe(Number.POSITIVE_INFINITY)
    expect(ohmsBetween(circuit, { states: { a: 'open' } }, 'plus', 'minus')).toBe(Number.POSITIVE_INFINITY)
    expect(ohmsBetween(circuit, { states: { a: 'shorted' } }, 'plus', 'minus')).toBeCloseTo(20.02, 5)
  })

  it('names a node nothing connects with null instead of a made-up voltage', () => {
    expect(
      point(onlyCircuit([resistor('load', 'plus', 'minus', 100), resistor('gap', 'minus', 'island', null)]), 12)
        .nodeVolts.island,
    ).toBeNull()
  })
})

describe('random networks', () => {
  const network = fc.integer({ min: 2, max: 9 }).chain((size) =>
    fc.record({
      size: fc.constant(size),
      // A spanning path keeps it in one piece; the rest falls where it falls.
      path: fc.array(fc.double({ min: 0.1, max: 1e4, noNaN: true }), { minLength: size - 1, maxLength: size - 1 }),
      others: fc.array(
        fc.tuple(
          fc.integer({ min: 0, max: size - 1 }),
          fc.integer({ min: 0, max: size - 1 }),
          fc.double({ min: 0.1, max: 1e4, noNaN: true }),
        ),
        { maxLength: 14 },
      ),
    }),
  )
  const built = ({ size, path, others }: { size: number; path: number[]; others: Array<[number, number, number]> }) => {
    const name = (index: number): string => (index === 0 ? 'plus' : index === size - 1 ? 'minus' : `n${index}`)
    const branches = [
      ...path.map((ohms, index): [number, number, number] => [index, index + 1, ohms]),
      ...others.filter(([from, to]) => from !== to),
    ]
    return {
      name,
      branches,
      description: onlyCircuit(
        branches.map(([from, to, ohms], index) => resistor(`r${index}`, name(from), name(to), ohms)),
      ),
    }
  }

  it('agree with a general linear-algebra package', () => {
    fc.assert(
      fc.property(network, (given) => {
        const { name, branches, description } = built(given)
        const source = 0.5
        const matrix = Matrix.zeros(given.size, given.size)
        const stamp = (from: number, to: number, conductance: number): void => {
          for (const [row, column, sign] of [
            [from, from, 1],
            [to, to, 1],
            [from, to, -1],
            [to, from, -1],
          ] as const)
            matrix.set(row, column, matrix.get(row, column) + sign * conductance)
        }
        for (const [from, to, ohms] of branches) stamp(from, to, 1 / ohms)
        stamp(0, given.size - 1, 1 / source)
        const injected = Matrix.zeros(given.size, 1)
        injected.set(0, 0, 12 / source)
        // The last node is the reference.
        for (let column = 0; column < given.size; column++)
          matrix.set(given.size - 1, column, column === given.size - 1 ? 1 : 0)
        injected.set(given.size - 1, 0, 0)
        const expected = solve(matrix, injected)
        const { nodeVolts } = point(description, 12, { ohms: source })
        for (let index = 0; index < given.size; index++)
          expect(nodeVolts[name(index)]).toBeCloseTo(expected.get(index, 0), 6)
      }),
      { numRuns: 200 },
    )
  })

  it('keep charge at every node and power in all', () => {
    fc.assert(
      fc.property(network, fc.double({ min: 1, max: 24, noNaN: true }), (given, volts) => {
        const { description } = built(given)
        const { nodeVolts, componentAmps, supplyAmps, supplyVolts } = point(description, volts, { ohms: 0.2 })
        for (const node of description.nodes) {
          const out = description.components.reduce(
            (sum, component) =>
              sum +
              (component.from === node.id ? 1 : component.to === node.id ? -1 : 0) * (componentAmps[component.id] ?? 0),
            0,
          )
          const fed = node.id === 'plus' ? supplyAmps : node.id === 'minus' ? -supplyAmps : 0
          expect(Math.abs(out - fed)).toBeLessThan(1e-7 * Math.max(1, Math.abs(supplyAmps)))
        }
        const turnedToHeat = description.components.reduce(
          (sum, component) =>
            sum +
            (componentAmps[component.id] ?? 0) * ((nodeVolts[component.from] ?? 0) - (nodeVolts[component.to] ?? 0)),
          0,
        )
        expect(turnedToHeat).toBeCloseTo(supplyAmps * supplyVolts, 5)
      }),
      { numRuns: 200 },
    )
  })
})

const magnetMotor = (more: Partial<Motor> = {}): Motor => ({
  id: 'motor',
  name: 'Motor',
  kind: 'open-frame',
  part: 'thing',
  armature: 'winding',
  field: null,
  backEmf: 0.01,
  coulombTorque: 0.001,
  viscousTorque: 2e-7,
  segments: 3,
  rotor: 'rotor',
  feeds: { plus: 'lead', minus: 'lead' },
  opens: true,
  ...more,
})

describe('a motor in its circuit', () => {
  const onTrack = onlyCircuit([resistor('lead', 'plus', 'terminal', 1), resistor('winding', 'terminal', 'minus', 19)], {
    motors: [magnetMotor()],
  })

  it('turns where V = I·R + Ke·ω and Ke·I = Tc + b·ω meet (derived)', () => {
    const {
      motors: [motor],
      supplyAmps,
    } = point(onTrack, 12)
    // ω = (Ke·V/R − Tc)/(b + Ke²/R) with R = 20 Ω.
    const speed = ((0.01 * 12) / 20 - 0.001) / (2e-7 + 0.01 ** 2 / 20)
    expect(motor?.radPerSecond).toBeCloseTo(speed, 1)
    expect(supplyAmps).toBeCloseTo((0.001 + 2e-7 * speed) / 0.01, 5)
    expect(motor?.volts).toBeCloseTo(12 - supplyAmps, 3)
  })

  it('stands and draws V/R below its start voltage of R·Tc/Ke = 2 V, and starts above it (derived)', () => {
    expect(point(onTrack, 1.9)).toMatchObject({ motors: [{ radPerSecond: 0 }] })
    expect(point(onTrack, 1.9).supplyAmps).toBeCloseTo(0.095, 4)
    expect(point(onTrack, 2.1).motors[0]?.radPerSecond).toBeGreaterThan(5)
  })

  it('turns the other way with the leads, or the magnet, the other way round', () => {
    const forward = point(onTrack, 12).motors[0]?.radPerSecond ?? 0
    expect(point(onTrack, -12).motors[0]?.radPerSecond).toBeCloseTo(-forward, 6)
    expect(point(onTrack, 12, {}, { magnets: { motor: -1 } }).motors[0]?.radPerSecond).toBeCloseTo(-forward, 6)
  })

  it('with a weak magnet runs faster when light and draws more (common practice)', () => {
    const sound = point(onTrack, 12)
    const weak = point(onTrack, 12, {}, { magnets: { motor: 0.7 } })
    expect(weak.motors[0]?.radPerSecond).toBeGreaterThan(sound.motors[0]?.radPerSecond ?? 0)
    expect(weak.supplyAmps).toBeGreaterThan(sound.supplyAmps)
  })

  it('a supply at its current limit gives that current and no more, and says so', () => {
    const shorted = point(onTrack, 12, { limitAmps: 0.5 }, { states: { winding: 'shorted' } })
    expect(shorted.limited).toBe(true)
    expect(shorted.supplyAmps).toBeCloseTo(0.5, 6)
    expect(shorted.supplyVolts).toBeCloseTo(0.5 * 1.02, 3)
    expect(point(onTrack, 12, { limitAmps: 0.5 }).limited).toBe(false)
  })

  it('two motors side by side settle as if each were alone on a stiff supply', () => {
    const twin = onlyCircuit([resistor('winding', 'plus', 'minus', 20), resistor('winding-2', 'plus', 'minus', 30)], {
      motors: [magnetMotor(), magnetMotor({ id: 'second', armature: 'winding-2', backEmf: 0.008 })],
    })
    const alone = onlyCircuit([resistor('winding-2', 'plus', 'minus', 30)], {
      motors: [magnetMotor({ id: 'second', armature: 'winding-2', backEmf: 0.008 })],
    })
    expect(point(twin, 12).motors[1]?.radPerSecond).toBeCloseTo(point(alone, 12).motors[0]?.radPerSecond ?? 0, 0)
  })

  it('a series motor meets V = I·(R + K·ω) and K·I² = Tc + b·ω, whichever way its supply is (derived)', () => {
    const series = onlyCircuit([resistor('field', 'plus', 'between', 5), resistor('winding', 'between', 'minus', 4)], {
      motors: [
        magnetMotor({ kind: 'ac-series', field: 'field', backEmf: 0.03, coulombTorque: 0.002, viscousTorque: 2e-6 }),
      ],
    })
    for (const volts of [14, -14]) {
      const {
        motors: [motor],
        supplyAmps,
      } = point(series, volts)
      const speed = motor?.radPerSecond ?? 0
      expect(speed).toBeGreaterThan(0)
      expect(Math.abs(supplyAmps) * (9 + 0.03 * speed)).toBeCloseTo(14, 2)
      expect(0.03 * supplyAmps ** 2).toBeCloseTo(0.002 + 2e-6 * speed, 6)
    }
  })
})

it('refuses a clamp at a point that is not there', () => {
  expect(() => new Circuit(bareDescription({ components: [resistor('r', 'here', 'there', 1)] }))).toThrow(
    'There is no point “here”',
  )
})
