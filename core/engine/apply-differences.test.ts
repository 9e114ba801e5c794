import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { constructionPlans, describeConstruction } from '../knowledge/constructions'
import { isNoWay, planAccess } from '../strip/minimal-removal'
import { isRefusedStrip, planStrip } from '../strip/plan-strip'
import { wayBack } from '../strip/way-back'
import { applyDifferences } from './apply-differences'
import { isSound } from './check-description'
import { Circuit } from './circuit'
import type { EngineDescription } from './description-schema'
import type { Difference } from './difference-schema'
import { driveTrain } from './drive-train'
import { operatingPoint } from './operating-point'
import { pickupMap } from './pickup-map'

const tank = describeConstruction('tank-can')
const with_ = (...differences: Difference[]): EngineDescription => {
  const { description, flagged } = applyDifferences(tank, differences)
  expect(flagged).toEqual([])
  return description
}
const at12 = (description: EngineDescription) =>
  operatingPoint(new Circuit(description), {}, { ...description.rails, volts: 12 })

describe('what one example differs in changes what is computed of it', () => {
  it('another motor: its ohms and its magnet, and no brushes where it is closed', () => {
    const open = applyDifferences(describeConstruction('open-frame'), [
      { kind: 'motor', motor: 'motor', name: 'Five-pole can', motorKind: 'can', ohms: 40, backEmf: 0.012, segments: 5 },
    ]).description
    expect(open.motors[0]).toMatchObject({ name: 'Five-pole can', segments: 5, opens: false, backEmf: 0.012 })
    expect(open.components.find((component) => component.id === 'motor.winding')?.ohms).toBe(40)
    expect(at12(open).motors[0]?.radPerSecond).toBeLessThan(
      at12(describeConstruction('open-frame')).motors[0]?.radPerSecond ?? 0,
    )
  })

  it('a closed motor that opens: its commutator is reached behind the end plate, and the way back puts the plate on again', () => {
    const opens = with_({ kind: 'opened', motor: 'motor', heldBy: 'two tongues', minutes: 3 })
    expect(tank.accesses.some(({ id }) => id === 'motor.commutator')).toBe(false)
    const plan = planAccess(opens, 'motor.commutator')
    if (isNoWay(plan)) throw new Error('no way to the commutator')
    const steps = [...plan.order]
    expect(steps.indexOf('motor')).toBeLessThan(steps.indexOf('motor.end-plate'))
    expect(steps.at(-1)).toBe('motor.end-plate')
    expect(isSound(opens)).toBe(true)
    expect(
      applyDifferences(opens, [{ kind: 'opened', motor: 'motor', heldBy: 'glue', minutes: 3 }]).flagged,
    ).toHaveLength(1)
  })

  it('a wiper on the idle pony axle of the rail that lacked one adds a point that collects', () => {
    const machine = describeConstruction('open-frame')
    const added = applyDifferences(machine, [{ kind: 'pickup', wheelSet: 'pony', side: 'right', to: 'bus.right' }])
    expect(added.flagged).toEqual([])
    const collecting = (description: EngineDescription) =>
      pickupMap(description).filter((point) => point.collects && point.rail === 'plus').length
    expect(collecting(added.description)).toBe(collecting(machine) + 1)
  })

  it('a wiper of the type and another of the example are two wipers', () => {
    const ofType = applyDifferences(describeConstruction('open-frame'), [
      { kind: 'pickup', wheelSet: 'pony', side: 'right', to: 'bus.right' },
    ]).description
    const { description, flagged } = applyDifferences(ofType, [
      { kind: 'pickup', wheelSet: 'tender-1', side: 'right', to: 'bus.right' },
    ])
    expect(flagged).toEqual([])
    expect(description.parts.filter((part) => part.id.startsWith('added-wiper')).map((part) => part.id)).toEqual([
      'added-wiper-1',
      'added-wiper-2',
    ])
  })

  it('a resistor in the pickup lead: in series, and the motor slower', () => {
    const slowed = with_({ kind: 'resistor', component: 'lead.right', ohms: 47, name: 'Resistor, 47 Ω' })
    expect(at12(slowed).motors[0]?.radPerSecond).toBeLessThan(0.8 * (at12(tank).motors[0]?.radPerSecond ?? 0))
    expect(Math.abs(at12(slowed).componentAmps['added-resistor-1'] ?? 0)).toBeCloseTo(
      Math.abs(at12(slowed).componentAmps['lead.right'] ?? 0),
      9,
    )
  })

  it('a tyre takes its wheel’s pickup, taking it off gives it back', () => {
    const tyred = with_({ kind: 'tyre', wheelSet: 'driver-1', side: 'right', fitted: true })
    const collects = (description: EngineDescription) =>
      pickupMap(description).find((point) => point.id === 'driver-1.right')?.collects
    expect([collects(tank), collects(tyred)]).toEqual([true, false])
    expect(
      collects(
        with_(
          { kind: 'tyre', wheelSet: 'driver-1', side: 'right', fitted: true },
          { kind: 'tyre', wheelSet: 'driver-1', side: 'right', fitted: false },
        ),
      ),
    ).toBe(true)
  })

  it('the ratio from motor to wheel as the type gives it, on every driven axle; wheels of another size', () => {
    for (const id of ['tank-can', 'centre-motor', 'side-brush-bogie']) {
      const { description } = applyDifferences(describeConstruction(id), [{ kind: 'gear-ratio', turns: 14.8 }])
      const orders = driveTrain(description)
        .wheels.filter((wheel) => wheel.driven)
        .map((wheel) => wheel.order ?? 0)
      for (const order of orders) expect(1 / order).toBeCloseTo(14.8, 4)
    }
    expect(
      with_({ kind: 'wheels', wheelSets: ['driver-1', 'driver-2'], diameterMm: 14.6 }).wheelSets.map(
        (wheelSet) => wheelSet.diameterMm,
      ),
    ).toEqual([14.6, 14.6, 15.2])
  })

  it('a part that is not there: bridged or not, and nothing has to come off for it any more', () => {
    expect(applyDifferences(tank, [{ kind: 'omitted', part: 'lead.right', bridged: false }]).flagged[0]?.message).toBe(
      'There is no way from rail to rail through Can motor: no track could ever run it.',
    )
    expect(at12(with_({ kind: 'omitted', part: 'lamp-front', bridged: false })).lamps).toEqual({})
    expect(at12(with_({ kind: 'omitted', part: 'lead.right', bridged: true })).supplyAmps).toBeCloseTo(
      at12(tank).supplyAmps,
      3,
    )
    const without = with_({ kind: 'omitted', part: 'weight', bridged: false })
    const plan = planAccess(without, 'motor.terminals')
    expect(isNoWay(plan) ? [] : plan.order).not.toContain('weight')
  })

  it('a decoder: nothing but the decoder reaches the motor then', () => {
    const chipped = with_({ kind: 'decoder' })
    const still = at12(chipped)
    expect(still.motors[0]?.radPerSecond).toBe(0)
    const straight = operatingPoint(
      new Circuit(chipped),
      { switches: { decoder: 'straight' } },
      { ...chipped.rails, volts: 12 },
    )
    expect(straight.motors[0]?.radPerSecond).toBeGreaterThan(500)
  })

  it('a part held otherwise takes its own minutes, one hidden under a detail comes off after it', () => {
    const body = tank.parts.find((part) => part.kind === 'body' && part.removal)?.id ?? ''
    const held = with_({
      kind: 'fastened',
      part: body,
      heldBy: '4 screws M2 × 6, countersunk',
      minutes: 7,
      refitMinutes: null,
    })
    const part = held.parts.find((entry) => entry.id === body)
    expect([part?.heldBy, part?.removal?.minutes]).toEqual(['4 screws M2 × 6, countersunk', 7])
    const hidden = with_({ kind: 'covered', part: body, name: 'Chimney cap', heldBy: 'a push fit', minutes: 0.5 })
    const plan = planStrip(hidden, [`off.${body}`])
    if (isRefusedStrip(plan)) throw new Error(plan.refused.message)
    const names = plan.steps.map((step) => step.name)
    expect(names.indexOf('Chimney cap')).toBeGreaterThanOrEqual(0)
    expect(names.indexOf('Chimney cap')).toBeLessThan(plan.steps.findIndex((step) => step.part === body))
    expect(
      wayBack(
        hidden,
        plan.steps.map((step) => step.part),
      ).some((step) => step.kind === 'fit' && step.name === 'Chimney cap'),
    ).toBe(true)
  })

  it('one that points at something that is gone is passed over and named, the others still count', () => {
    const { description, flagged } = applyDifferences(tank, [
      { kind: 'material', part: 'brass-dome', materials: ['brass'] },
      { kind: 'weight', unit: 'locomotive', grams: 20, place: 'over the rear axle' },
      { kind: 'omitted', part: 'worm', bridged: false },
      { kind: 'decoder' },
      { kind: 'decoder' },
    ])
    expect(description.units[0]?.massGrams).toBe(230)
    expect(flagged.map(({ index, message }) => [index, message])).toEqual([
      [0, 'It speaks of a part “brass-dome”, which this construction does not have.'],
      [2, 'Worm turns in the drive: the engine could not be described without it.'],
      [4, 'It has a decoder already.'],
    ])
  })

  it('no list of differences ever makes an engine unreadable', () => {
    const id = (list: ReadonlyArray<{ id: string }>) => fc.constantFrom(...list.map((entry) => entry.id), 'nowhere')
    const machine = fc.constantFrom(...constructionPlans.map((plan) => describeConstruction(plan.id)))
    const cases = machine.chain((base) =>
      fc.tuple(
        fc.constant(base),
        fc.array(
          fc.oneof(
            fc.record({ kind: fc.constant('omitted' as const), part: id(base.parts), bridged: fc.boolean() }),
            fc.record({
              kind: fc.constant('pickup' as const),
              wheelSet: id(base.wheelSets),
              side: fc.constantFrom('left' as const, 'right' as const),
              to: id(base.nodes),
            }),
            fc.record({
              kind: fc.constant('tyre' as const),
              wheelSet: id(base.wheelSets),
              side: fc.constantFrom('left' as const, 'right' as const),
              fitted: fc.boolean(),
            }),
            fc.record({
              kind: fc.constant('resistor' as const),
              component: id(base.components),
              ohms: fc.double({ min: 0.1, max: 1000, noNaN: true }),
              name: fc.constant('Resistor'),
            }),
            fc.record({ kind: fc.constant('gear-ratio' as const), turns: fc.double({ min: 1, max: 90, noNaN: true }) }),
            fc.record({
              kind: fc.constant('weight' as const),
              unit: id(base.units),
              grams: fc.integer({ min: -400, max: 400 }),
              place: fc.constant('somewhere'),
            }),
            fc.constant({ kind: 'decoder' as const }),
          ),
          { maxLength: 6 },
        ),
      ),
    )
    fc.assert(
      fc.property(cases, ([base, differences]) => {
        const { description, flagged } = applyDifferences(base, differences)
        expect(isSound(description)).toBe(true)
        for (const { message } of flagged) expect(message).toMatch(/\.$/)
        const point = operatingPoint(new Circuit(description), {}, { ...description.rails, volts: 12 })
        for (const amps of [point.supplyAmps, ...Object.values(point.componentAmps)])
          expect(Number.isFinite(amps)).toBe(true)
      }),
      { numRuns: 150 },
    )
  })
})
