import Ajv from 'ajv'
import { describe, expect, it } from 'vitest'
import { predictAssembly } from '../diagnosis/places/polarity'
import { ConstructionPlan } from '../engine/assemblies/plan-schema'
import { checkDescription } from '../engine/check-description'
import { Circuit } from '../engine/circuit'
import { EngineDescription } from '../engine/description-schema'
import { driveTrain, pullsAgainstItself } from '../engine/drive-train'
import { operatingPoint } from '../engine/operating-point'
import { pickupMap, runningPositions } from '../engine/pickup-map'
import { isNoWay, planAccess } from '../strip/minimal-removal'
import { constructionPlans, describeConstruction } from './constructions'

const ajv = new Ajv({ allErrors: true, strict: true })
const plain = (value: unknown): object => JSON.parse(JSON.stringify(value)) as object
const isDescription = ajv.compile(plain(EngineDescription))
const isPlan = ajv.compile(plain(ConstructionPlan))
const machines = constructionPlans.flatMap((plan) =>
  (plan.power === 'ac' ? (['ac'] as const) : (['dc', 'dcc'] as const)).map((power) =>
    describeConstruction(plan.id, power),
  ),
)

describe.each(machines.map((machine) => [machine.name, machine] as const))('%s', (_name, machine) => {
  const circuit = new Circuit(machine)
  const switches = runningPositions(machine)
  const on = (volts: number, condition = {}) =>
    operatingPoint(circuit, { switches, ...condition }, { ...machine.rails, volts })
  const turns = (point: ReturnType<typeof on>): number[] => point.motors.map((motor) => motor.radPerSecond)

  it('passes its schema and has nothing to complain of', () => {
    expect(isDescription(plain(machine))).toBe(true)
    expect(checkDescription(machine)).toEqual([])
  })

  it('runs both ways on its rails and pulls one way with all its wheels', () => {
    const forward = turns(on(12))
    expect(forward.every((speed) => speed > 50)).toBe(true)
    const train = driveTrain(machine)
    expect(pullsAgainstItself(train)).toBe(false)
    expect(train.wheels.some((wheel) => wheel.driven)).toBe(true)
    if (machine.power === 'ac') {
      // Turned round by its sequence switch, not by the supply.
      expect(turns(on(-12)).every((speed) => speed > 50)).toBe(true)
      expect(turns(on(12, { switches: { ...switches, sequence: 'reverse' } })).every((speed) => speed < -50)).toBe(true)
      expect(
        turns(on(12, { switches: { ...switches, sequence: 'neutral-after-forward' } })).every((speed) => speed === 0),
      ).toBe(true)
    } else {
      turns(on(-12)).forEach((speed, index) => expect(speed).toBeCloseTo(-(forward[index] as number), 6))
      expect(predictAssembly(machine)).toBe('forward')
    }
  })

  it('stops with any one element of its series path open', () => {
    // By Kirchhoff’s law what carries the whole motor current has no way round it.
    const healthy = on(12)
    const whole = healthy.motors.reduce((sum, motor) => sum + Math.abs(motor.amps), 0)
    const series = machine.components.filter(
      (component) =>
        component.faults.includes('open') &&
        !component.lamp &&
        Math.abs(Math.abs(healthy.componentAmps[component.id] ?? 0) - whole) < 1e-6,
    )
    if (machine.motors.length === 1)
      expect(series.map((component) => component.id)).toEqual(expect.arrayContaining([machine.motors[0]?.armature]))
    for (const component of series)
      expect([component.id, ...turns(on(12, { states: { [component.id]: 'open' } }))]).toEqual([
        component.id,
        ...machine.motors.map(() => 0),
      ])
  })

  it('shows a short from rail to rail, and turns round when its motor leads are swapped', () => {
    const bridge = {
      ...machine,
      components: [
        ...machine.components,
        {
          ...(machine.components[0] as (typeof machine.components)[number]),
          id: 'screwdriver',
          from: machine.rails.plus,
          to: machine.rails.minus,
          ohms: 0.05,
          closedIn: null,
        },
      ],
    }
    expect(predictAssembly(bridge, [], { switches })).toBe('short')
    expect(
      operatingPoint(new Circuit(bridge), { switches }, { ...machine.rails, volts: 12, limitAmps: 2 }),
    ).toMatchObject({ limited: true })
    if (machine.power === 'ac') return
    const [motor] = machine.motors
    const feeds = machine.components.filter(
      (component) => component.id === motor?.feeds.plus || component.id === motor?.feeds.minus,
    )
    const swapped = {
      ...machine,
      components: machine.components.map((component) =>
        feeds.includes(component)
          ? { ...component, to: feeds.find((other) => other !== component)?.to ?? '' }
          : component,
      ),
    }
    expect(predictAssembly(swapped)).toBe('reverse')
  })

  it('collects from both poles, and every place in it can be reached by hand tools', () => {
    const poles = new Set(pickupMap(machine).flatMap((point) => (point.collects ? [point.rail] : [])))
    expect(poles).toEqual(new Set(['plus', 'minus']))
    for (const access of machine.accesses)
      expect([access.id, isNoWay(planAccess(machine, access.id))]).toEqual([access.id, false])
  })

  it('gives what a repairer asks for: a reason beside every mark, a care point on every bearing, gear and contact', () => {
    const cared = new Set(machine.carePoints.map((point) => point.part))
    for (const motor of machine.motors) expect(cared.has(motor.part)).toBe(true)
    for (const wheelSet of machine.wheelSets) expect(cared.has(wheelSet.rotor)).toBe(true)
    for (const part of machine.parts.filter((entry) => entry.removal && entry.removal.risk >= 0.1))
      expect(part.removal?.replacement).not.toBe('scrap-box')
  })
})

describe('the constructions as written down', () => {
  it.each(constructionPlans.map((plan) => [plan.id, plan] as const))('%s passes the plan’s schema', (_id, plan) => {
    isPlan(plan)
    expect(isPlan.errors ?? []).toEqual([])
  })

  it('gives the generic machine, said to be so, where none is known', () => {
    expect(describeConstruction('never-heard-of-it').name).toBe('Generic, construction not known')
  })

  it('wheels of one truck that are geared together turn the same way, whatever the idlers between', () => {
    for (const machine of machines) {
      const train = driveTrain(machine)
      for (const truck of machine.trucks) {
        const ways = new Set(
          machine.wheelSets
            .filter((wheelSet) => wheelSet.truck === truck.id && train.turning.has(wheelSet.rotor))
            .map((wheelSet) => Math.sign(train.turning.get(wheelSet.rotor)?.turnsPerMotorTurn ?? 0)),
        )
        expect(ways.size).toBeLessThan(2)
      }
    }
  })

  it('two trucks, one mirrored: a short; both mirrored: only the direction turns (common practice)', () => {
    for (const id of ['articulated', 'centre-motor', 'axle-cup']) {
      const machine = describeConstruction(id)
      const trucks = machine.turnables.filter((turnable) =>
        turnable.effects.some((effect) => effect.kind === 'swap-rails'),
      )
      expect(trucks).toHaveLength(2)
      for (const truck of trucks) expect(predictAssembly(machine, [truck])).toBe('short')
      expect(predictAssembly(machine, trucks)).toBe('reverse')
    }
  })
})
