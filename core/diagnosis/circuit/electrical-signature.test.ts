import { describe, expect, it } from 'vitest'
import { seededUniform } from '../../measure/seeded-random'
import { Circuit, offTheTrack, ohmsBetween } from '../../engine/circuit'
import type { ComponentState } from '../../engine/description-schema'
import { operatingPoint } from '../../engine/operating-point'
import { runningPositions } from '../../engine/pickup-map'
import { describeConstruction } from '../../knowledge/constructions'
import { diagnosisKnowledge } from '../../knowledge/diagnosis-knowledge'
import { CompiledEngine } from '../compiled-engine'
import { SignatureSolver, type Run } from './electrical-signature'

describe('what the circuit shows, solved once for all meters', () => {
  it.each(['side-brush-bogie', 'tender-pickup', 'articulated', 'three-rail-twin'] as const)(
    'agrees with the engine’s own circuit on %s in random states',
    (construction) => {
      const description = describeConstruction(construction, construction === 'three-rail-twin' ? 'ac' : 'dc')
      const circuit = new Circuit(description)
      const solver = new SignatureSolver(description, [])
      const switches = runningPositions(description)
      const { plus, minus } = description.rails
      const random = seededUniform(construction.length)
      const faulty = description.components.filter((component) => component.faults.length > 0)
      const supply = {
        plus,
        minus,
        ohms: 0.1,
        ...(description.power === 'ac' ? { volts: 14, limitAmps: 4 } : { volts: 9, limitAmps: 2 }),
      }
      const sound = operatingPoint(circuit, { switches }, supply)
      let compared = 0
      for (let round = 0; round < 120; round++) {
        const states: Record<string, ComponentState> = {}
        for (let count = 0; count < 3; count++) {
          const component = faulty[Math.floor(random() * faulty.length)]
          const state = component?.faults[Math.floor(random() * component.faults.length)]
          if (component && state && state !== 'intermittent') states[component.id] = state
        }
        const signature = solver.solve([{ states }])
        const point = operatingPoint(circuit, { states, switches }, supply)
        expect(signature.run('track')?.limited).toBe(point.limited)
        if (!point.limited) {
          expect(signature.run('track')?.amps).toBeCloseTo(Math.abs(point.supplyAmps), 4)
          const slowest = Math.min(
            ...point.motors.map((motor, index) =>
              Math.abs(motor.radPerSecond / (sound.motors[index]?.radPerSecond ?? 1)),
            ),
          )
          expect(signature.run('track')?.speed).toBeCloseTo(slowest, 3)
          compared++
        }
        const rails = ohmsBetween(circuit, { states, switches }, plus, minus)
        if (rails < 1e5) expect(Math.abs(signature.railOhms - rails)).toBeLessThan(1e-3 * Math.max(1, rails))
        else expect(signature.railOhms).toBeGreaterThan(9e4)
        const [motor] = description.motors
        const [first, second] = [motor?.feeds.plus, motor?.feeds.minus].map(
          (feed) => description.components.find((component) => component.id === feed)?.to ?? '',
        )
        const terminals = ohmsBetween(
          circuit,
          { states: { ...states, ...offTheTrack(description) }, switches },
          first ?? '',
          second ?? '',
        )
        if (terminals < 1e5)
          expect(Math.abs((signature.motorOhms[0] ?? 0) - terminals)).toBeLessThan(1e-3 * Math.max(1, terminals))
      }
      expect(compared).toBeGreaterThan(40)
    },
  )

  it('does not run a decoder that ignores DC on DC, and does on DCC', () => {
    const solver = new SignatureSolver(describeConstruction('centre-motor', 'dcc'), [])
    const signature = solver.solve([{ decoderRunsOn: ['dcc'] }])
    expect(signature.run('track')?.speed).toBe(0)
    expect(signature.run('dcc-track')?.speed).toBeCloseTo(1, 3)
    expect(signature.run('decoder-bypassed')?.speed).toBeCloseTo(1, 3)
  })

  it('turns the other way with its magnet turned, and stands behind a dead feed', () => {
    const solver = new SignatureSolver(describeConstruction('side-brush-bogie'), [])
    expect(solver.healthy.run('track')?.way).toBe(1)
    expect(solver.solve([{ turned: 'motor.magnet-turned' }]).run('track')?.way).toBe(-1)
    expect(solver.solve([{ supply: 'open' }]).run('track')).toMatchObject({ speed: 0, amps: 0 })
    expect(solver.solve([{ supply: 'open' }]).run('terminals')?.speed).toBeCloseTo(1, 3)
  })

  it('reads the supply at the motor behind an open brush, where nothing flows, and nothing behind an open lead', () => {
    const description = describeConstruction('open-frame')
    const solver = new SignatureSolver(description, [])
    const volts = (id: string): number => solver.solve([{ states: { [id]: 'open' } }]).run('track')?.motorVolts ?? -1
    expect(volts('motor.brush-plus')).toBeCloseTo(9, 1)
    expect(volts('motor.lead-plus')).toBeLessThan(0.1)
  })

  it('hears a decoder on the programming track only through pickups and motor: its answer is a pulse of at least 60 mA through the motor (NMRA S-9.2.3)', () => {
    const description = describeConstruction('centre-motor', 'dcc')
    const solver = new SignatureSolver(description, [])
    expect(solver.healthy.programming).toEqual({ answers: true, dcOperation: true, addressKnown: true })
    const [brush] = description.components.filter((component) => component.kind === 'brush')
    expect(solver.solve([{ states: { [brush?.id ?? '']: 'open' } }]).programming?.answers).toBe(false)
    expect(solver.solve([{ states: { 'decoder.rail-plus': 'open' } }]).programming?.answers).toBe(false)
    expect(solver.solve([{ decoderRunsOn: [] }]).programming?.answers).toBe(false)
    // Whatever it is set to, it answers there.
    expect(solver.solve([{ decoderRunsOn: ['dcc'] }]).programming).toEqual({
      answers: true,
      dcOperation: false,
      addressKnown: true,
    })
    expect(new SignatureSolver(describeConstruction('centre-motor'), []).healthy.programming).toBeNull()
  })

  it('lets current past a shorted coil while it turns, and has an ohmmeter meet the short circuit only where the armature happens to stand', () => {
    const description = describeConstruction('side-brush-bogie')
    const solver = new SignatureSolver(description, [])
    const found = solver.solve([
      { armature: { motor: description.motors[0]?.id ?? '', defect: { kind: 'coil-shorted' } } },
    ])
    expect(found.run('track')?.amps).toBeGreaterThan(2 * (solver.healthy.run('track')?.amps ?? 0))
    // Three segments: for a third of the turn the brushes stand right across it.
    expect(found.shortedShare).toBeCloseTo(1 / 3, 9)
    // Elsewhere the winding reads half a coil where it read two thirds, brushes as before.
    const sound = solver.healthy.motorOhms[0] as number
    expect(found.motorOhms[0]).toBeGreaterThan(0.7 * sound)
    expect(found.motorOhms[0]).toBeLessThan(0.85 * sound)
  })

  it('with a shorted coil makes the supply give way at three segments and only draws more at five, where no brushes stand right across a coil', () => {
    const track = (construction: string): { sound: Run | undefined; bad: Run | undefined } => {
      const description = describeConstruction(construction)
      const solver = new SignatureSolver(description, [])
      return {
        sound: solver.healthy.run('track'),
        bad: solver
          .solve([{ armature: { motor: description.motors[0]?.id ?? '', defect: { kind: 'coil-shorted' } } }])
          .run('track'),
      }
    }
    const [three, five] = [track('open-frame'), track('centre-motor')]
    expect(three.bad).toMatchObject({ limited: true, caughtTrips: true })
    expect(five.bad).toMatchObject({ limited: false, catches: 0 })
    expect(five.bad?.speed).toBeGreaterThan(0.8)
    expect(five.bad?.amps).toBeGreaterThan(1.5 * (five.sound?.amps ?? 0))
  })

  it('with one of two motors dead has the other drag the machine along: that is seen as faltering, and one truck’s wheels stand', () => {
    const engine = new CompiledEngine(describeConstruction('three-rail-twin', 'ac'), diagnosisKnowledge)
    const off = engine.suspects.findIndex(({ id }) => id === 'brush-stuck-off@motor-rear.brushes')
    const variant = engine.variants.findIndex(({ suspect }) => suspect === off)
    const row = engine.circuitRow([variant], 1)
    const seen = (id: string): Record<string, number> => {
      const test = engine.indexOfTest(id)
      const offset = engine.outcomes.offsets[test] as number
      return Object.fromEntries(
        (engine.tests[test]?.test.outcomes ?? []).map((outcome, index) => [
          outcome.id,
          row.chances(test)[offset + index] as number,
        ]),
      )
    }
    expect(row.turns).toBe(true)
    expect(seen('track-run')).toMatchObject({ stands: 0, falters: 0.75 })
    expect(seen('wheels-turn').some).toBe(1)
    expect(seen('truck-turns@driven-wheels.rear-truck').none).toBe(1)
    expect(seen('truck-turns@driven-wheels.front-truck').all).toBe(1)
  })

  it('has a motor run light where its worm slips: it draws less, and what drags in the train holds it no more', () => {
    const description = describeConstruction('split-frame')
    const solver = new SignatureSolver(description, [])
    const motor = description.motors[0]?.id ?? ''
    const amps = (...faults: Parameters<SignatureSolver['solve']>[0]): number =>
      solver.solve(faults).run('track')?.amps ?? Number.NaN
    expect(amps({ relieved: [motor] })).toBeLessThan(0.8 * amps())
    expect(amps({ relieved: [motor] }, { magnets: { [motor]: 0.6 } })).toBeLessThan(amps({ magnets: { [motor]: 0.6 } }))

    const engine = new CompiledEngine(description, diagnosisKnowledge)
    const worst = (id: string): number =>
      engine.variants.reduce(
        (found, { suspect, severity }, variant) =>
          engine.suspects[suspect]?.id === id && severity > (engine.variants[found]?.severity ?? 0) ? variant : found,
        -1,
      )
    const [slips, rods, armature] = ['worm-slips@worm-seat.worm.seat', 'rods-bent@rods', 'bearing-dry@motor'].map(worst)
    expect([slips, rods, armature]).not.toContain(-1)
    const drawn = (...variants: readonly (number | undefined)[]): readonly number[] => {
      const row = engine.circuitRow(
        variants.map((variant) => variant ?? -1).sort((one, other) => one - other),
        variants.length,
      )
      const test = engine.indexOfTest('track-current')
      const offset = engine.outcomes.offsets[test] as number
      return [...row.chances(test).slice(offset, offset + (engine.tests[test]?.test.outcomes.length ?? 0))]
    }
    expect(drawn(rods)).not.toEqual(drawn())
    expect(drawn(rods, slips)).toEqual(drawn(slips))
    expect(drawn(armature, slips)).not.toEqual(drawn(slips))
  })
})
