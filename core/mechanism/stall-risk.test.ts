import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seededUniform } from '../measure/seeded-random'
import { coastingDistance, inertiaAtShaft, stayAliveSeconds } from './coasting'
import { stallRisk, type ContactPoint, type DeadStretch } from './stall-risk'

const sure = (id: string, pole: 'plus' | 'minus', atMm: number, failChance = 0): ContactPoint => ({
  id,
  pole,
  atMm,
  failChance,
})

describe('stall risk', () => {
  // Derived: 40 mm dead under two points 28 mm apart leaves 12 mm with neither on live metal.
  it('leaves 12 mm without supply for two points 28 mm apart over 40 mm of dead rail', () => {
    const risk = stallRisk({
      points: [sure('front', 'plus', 0), sure('rear', 'plus', 28), sure('other', 'minus', 14)],
      stretches: [{ pole: 'plus', fromMm: 0, toMm: 40 }],
    })
    expect(risk.withoutContactMm).toBe(12)
    expect(risk.longestWithoutMm).toBe(12)
    expect(risk.interruptionsPerPass).toBeCloseTo(1, 12)
    expect(risk.worst.noSupply).toBe(1)
  })

  it('never stops on what it can roll over, and always on what it cannot', () => {
    const question = {
      points: [sure('front', 'plus', 0), sure('rear', 'plus', 28), sure('other', 'minus', 14)],
      stretches: [{ pole: 'plus', fromMm: 0, toMm: 40 } as DeadStretch],
      patchMm: 1,
    }
    expect(stallRisk({ ...question, bridgedMm: 12 }).stopsPerPass).toBe(0)
    expect(stallRisk({ ...question, bridgedMm: 11 }).stopsPerPass).toBeCloseTo(1, 12)
  })

  // Derived: 1 − (1 − 0.2·0.5)(1 − 0.1) = 0.19.
  it('multiplies the chances of the points on live metal, rail by rail', () => {
    const risk = stallRisk({
      points: [sure('a', 'plus', 0, 0.2), sure('b', 'plus', 30, 0.5), sure('c', 'minus', 10, 0.1)],
      stretches: [],
    })
    for (const position of risk.positions) expect(position.noSupply).toBeCloseTo(0.19, 12)
  })

  it('a machine that spans the dead piece rides over it; one that does not, does not', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 200 }), fc.integer({ min: 1, max: 120 }), (apart, dead) => {
        const risk = stallRisk({
          points: [sure('a', 'plus', 0), sure('b', 'plus', apart), sure('c', 'minus', 0), sure('d', 'minus', apart)],
          stretches: [{ pole: 'plus', fromMm: 0, toMm: dead }],
        })
        expect(risk.withoutContactMm).toBe(Math.max(0, dead - apart))
        expect(risk.interruptionsPerPass).toBeCloseTo(dead > apart ? 1 : 0, 12)
      }),
    )
  })

  it('a further point never makes it worse', () => {
    const point = fc.record({
      pole: fc.constantFrom('plus' as const, 'minus' as const),
      atMm: fc.integer({ min: 0, max: 150 }),
      failChance: fc.double({ min: 0, max: 1, noNaN: true }),
    })
    fc.assert(
      fc.property(
        fc.array(point, { minLength: 2, maxLength: 8 }),
        point,
        fc.integer({ min: 1, max: 80 }),
        (points, extra, dead) => {
          const named = [...points, extra].map((entry, index) => ({ id: String(index), ...entry }))
          const stretches: DeadStretch[] = [{ pole: 'plus', fromMm: 0, toMm: dead }]
          const [before, after] = [named.slice(0, -1), named].map(
            (list) =>
              new Map(
                stallRisk({ points: list, stretches }).positions.map((position) => [
                  position.frontMm,
                  position.noSupply,
                ]),
              ),
          )
          for (const [frontMm, chance] of after ?? [])
            expect(chance).toBeLessThanOrEqual((before?.get(frontMm) ?? 1) + 1e-12)
        },
      ),
    )
  })

  it('counts interruptions and stops as drawing the luck of every patch does', () => {
    const points = [
      sure('a', 'plus', 0, 0.3),
      sure('b', 'plus', 40, 0.6),
      sure('c', 'minus', 0, 0.2),
      sure('d', 'minus', 40, 0.1),
    ]
    const stretches: DeadStretch[] = [{ pole: 'plus', fromMm: 0, toMm: 30 }]
    const patchMm = 5
    const risk = stallRisk({ points, stretches, patchMm, bridgedMm: 10 })
    const random = seededUniform(7)
    const runs = 20_000
    let [interruptions, stops] = [0, 0]
    for (let run = 0; run < runs; run++) {
      // Contact by contact: each has its luck for a patch, and is dead where the rail is.
      const phase = Math.floor(random() * patchMm)
      let luck: boolean[] = []
      let [dark, lit] = [0, false]
      for (const [index, { frontMm }] of risk.positions.entries()) {
        if (index === 0 || (index + phase) % patchMm === 0) luck = points.map((point) => random() >= point.failChance)
        const touches = (pole: 'plus' | 'minus') =>
          points.some(
            (point, which) =>
              point.pole === pole &&
              luck[which] &&
              !(pole === 'plus' && frontMm - point.atMm >= 0 && frontMm - point.atMm < 30),
          )
        if (touches('plus') && touches('minus')) [dark, lit] = [0, true]
        else if (lit) {
          dark += 1
          if (dark === 1) interruptions += 1
          if (dark === 11) stops += 1
        }
      }
    }
    expect(Math.abs(interruptions / runs - risk.interruptionsPerPass)).toBeLessThan(
      4 * Math.sqrt((risk.interruptionsPerPass * 3) / runs),
    )
    expect(Math.abs(stops / runs - risk.stopsPerPass)).toBeLessThan(4 * Math.sqrt((risk.stopsPerPass * 3) / runs))
  })

  it('refuses a chance of 1.2 and a stretch that ends before it begins', () => {
    expect(() => stallRisk({ points: [sure('a', 'plus', 0, 1.2)], stretches: [] })).toThrow('between 0 and 1, not 1.2')
    expect(() =>
      stallRisk({ points: [sure('a', 'plus', 0)], stretches: [{ pole: 'plus', fromMm: 10, toMm: 10 }] }),
    ).toThrow('end behind where it begins')
  })
})

describe('coasting and stay-alive', () => {
  // Derived: 1000 µF from 16 to 7 V at 0.1 A last 90 ms.
  it('keeps 0.1 A going for 90 ms from 1000 µF between 16 and 7 V', () => {
    expect(stayAliveSeconds(1e-3, 16, 7, 0.1)).toBeCloseTo(0.09, 12)
  })

  it('agrees with the motion followed in small steps', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 50, max: 900, noNaN: true }),
        fc.double({ min: 1e-5, max: 3e-3, noNaN: true }),
        fc.double({ min: 1e-9, max: 2e-6, noNaN: true }),
        fc.double({ min: 5e-8, max: 1e-6, noNaN: true }),
        (speed, coulomb, viscous, inertia) => {
          const seconds = (inertia * speed) / coulomb / 20_000
          let [omega, angle] = [speed, 0]
          while (omega > 0) {
            const next = omega - ((coulomb + viscous * omega) / inertia) * seconds
            angle += ((omega + Math.max(0, next)) / 2) * seconds
            omega = next
          }
          const distance = coastingDistance({
            radPerSecond: speed,
            coulombTorque: coulomb,
            viscousTorque: viscous,
            inertia,
            travelPerRadian: 4e-4,
          })
          expect(distance / (angle * 4e-4)).toBeGreaterThan(0.995)
          expect(distance / (angle * 4e-4)).toBeLessThan(1.005)
        },
      ),
      { numRuns: 50 },
    )
  })

  it('goes over smoothly to friction that does not grow with speed', () => {
    const question = { radPerSecond: 400, coulombTorque: 1e-3, inertia: 2e-7, travelPerRadian: 4e-4 }
    expect(coastingDistance({ ...question, viscousTorque: 1e-15 })).toBeCloseTo(((2e-7 * 400 ** 2) / 2e-3) * 4e-4, 10)
    expect(
      coastingDistance({ ...question, viscousTorque: 2.51e-10 }) /
        coastingDistance({ ...question, viscousTorque: 2.49e-10 }),
    ).toBeCloseTo(1, 5)
  })

  it('refuses an engine without friction', () => {
    expect(() =>
      coastingDistance({ radPerSecond: 1, coulombTorque: 0, viscousTorque: 0, inertia: 1, travelPerRadian: 1 }),
    ).toThrow('roll for ever')
    expect(inertiaAtShaft({ ohms: 20, backEmf: 0.01 }, 0.3, 4e-4)).toBeCloseTo((0.05 * 1e-4) / 20 + 0.3 * 1.6e-7, 14)
  })
})
