import { describe, expect, it } from 'vitest'
import { seededUniform } from '../measure/seeded-random'
import { Circuit, offTheTrack, ohmsBetween } from '../engine/circuit'
import type { ComponentState } from '../engine/description-schema'
import { operatingPoint } from '../engine/operating-point'
import { runningPositions } from '../engine/pickup-map'
import { describeConstruction } from '../knowledge/constructions'
import { diagnosisKnowledge } from '../knowledge/diagnosis-knowledge'
import { CompiledEngine } from './compiled-engine'
import { SignatureSolver } from './electrical-signature'

describe('what the circuit shows, solved once for all meters', () => {
  it.each(['side-brush-bogie', 'tender-pickup', 'articulated', 'three-rail-twin'] as const)('agrees with the engine’s own circuit on %s in random states', (construction) => {
    const description = describeConstruction(construction, construction === 'three-rail-twin' ? 'ac' : 'dc')
    const circuit = new Circuit(description)
    const solver = new SignatureSolver(description, [])
    const switches = runningPositions(description)
    const { plus, minus } = description.rails
    const random = seededUniform(construction.length)
    const faulty = description.components.filter((component) => component.faults.length > 0)
    const sound = operatingPoint(circuit, { switches }, { plus, minus, volts: 9, ohms: 0.1, limitAmps: 2 })
    let compared = 0
    for (let round = 0; round < 120; round++) {
      const states: Record<string, ComponentState> = {}
      for (let count = 0; count < 3; count++) {
        const component = faulty[Math.floor(random() * faulty.length)]
        const state = component?.faults[Math.floor(random() * component.faults.length)]
        if (component && state && state !== 'intermittent') states[component.id] = state
      }
      const signature = solver.solve([{ states }])
      const point = operatingPoint(circuit, { states, switches }, { plus, minus, volts: 9, ohms: 0.1, limitAmps: 2 })
      expect(signature.runs.track?.limited).toBe(point.limited)
      if (!point.limited) {
        expect(signature.runs.track?.amps).toBeCloseTo(Math.abs(point.supplyAmps), 4)
        const slowest = Math.min(...point.motors.map((motor, index) => Math.abs(motor.radPerSecond / (sound.motors[index]?.radPerSecond ?? 1))))
        expect(signature.runs.track?.speed).toBeCloseTo(slowest, 3)
        compared++
      }
      const rails = ohmsBetween(circuit, { states, switches }, plus, minus)
      if (rails < 1e5) expect(Math.abs(signature.railOhms - rails)).toBeLessThan(1e-3 * Math.max(1, rails))
      else expect(signature.railOhms).toBeGreaterThan(9e4)
      const [motor] = description.motors
      const [first, second] = [motor?.feeds.plus, motor?.feeds.minus].map((feed) => description.components.find((component) => component.id === feed)?.to ?? '')
      const terminals = ohmsBetween(circuit, { states: { ...states, ...offTheTrack(description) }, switches }, first ?? '', second ?? '')
      if (terminals < 1e5) expect(Math.abs((signature.motorOhms[0] ?? 0) - terminals)).toBeLessThan(1e-3 * Math.max(1, terminals))
    }
    expect(compared).toBeGreaterThan(40)
  })

  it('does not run a decoder that ignores DC on DC, and does on DCC', () => {
    const solver = new SignatureSolver(describeConstruction('centre-motor', 'dcc'), [])
    const { runs } = solver.solve([{ decoderRunsOn: ['dcc'] }])
    expect(runs.track?.speed).toBe(0)
    expect(runs['dcc-track']?.speed).toBeCloseTo(1, 3)
    expect(runs['decoder-bypassed']?.speed).toBeCloseTo(1, 3)
  })

  it('turns the other way with its magnet turned, and stands behind a dead feed', () => {
    const solver = new SignatureSolver(describeConstruction('side-brush-bogie'), [])
    expect(solver.healthy.runs.track?.way).toBe(1)
    expect(solver.solve([{ turned: 'motor.magnet-turned' }]).runs.track?.way).toBe(-1)
    expect(solver.solve([{ supply: 'open' }]).runs.track).toMatchObject({ speed: 0, amps: 0 })
    expect(solver.solve([{ supply: 'open' }]).runs.terminals?.speed).toBeCloseTo(1, 3)
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
    expect(solver.solve([{ decoderRunsOn: ['dcc'] }]).programming).toEqual({ answers: true, dcOperation: false, addressKnown: true })
    expect(new SignatureSolver(describeConstruction('centre-motor'), []).healthy.programming).toBeNull()
  })

  it('lets current past a shorted coil while it turns, and has an ohmmeter meet the short circuit only where the armature happens to stand', () => {
    const description = describeConstruction('side-brush-bogie')
    const solver = new SignatureSolver(description, [])
    const shorted = { motor: description.motors[0]?.id ?? '', pull: 0.6, ohmsTimes: 0.65, leak: 1.2, catches: 0.25 }
    const found = solver.solve([{ winding: shorted }])
    expect(found.runs.track?.amps).toBeGreaterThan(2 * (solver.healthy.runs.track?.amps ?? 0))
    expect(found.shortedShare).toBe(0.25)
    // At rest only the winding itself reads less, brushes as before: what goes past it is a matter of the turning.
    const sound = solver.healthy.motorOhms[0] as number
    expect(found.motorOhms[0]).toBeGreaterThan(0.65 * sound)
    expect(found.motorOhms[0]).toBeLessThan(0.75 * sound)
  })

  it('with one of two motors dead has the other drag the machine along: that is seen as faltering, and one truck’s wheels stand', () => {
    const engine = new CompiledEngine(describeConstruction('three-rail-twin', 'ac'), diagnosisKnowledge)
    const off = engine.suspects.findIndex(({ id }) => id === 'brush-stuck-off@motor-rear.brushes')
    const variant = engine.variants.findIndex(({ suspect }) => suspect === off)
    const row = engine.circuitRow([variant], 1)
    const seen = (id: string): Record<string, number> => {
      const test = engine.indexOfTest(id)
      const offset = engine.outcomes.offsets[test] as number
      return Object.fromEntries((engine.tests[test]?.test.outcomes ?? []).map((outcome, index) => [outcome.id, row.chances(test)[offset + index] as number]))
    }
    expect(row.turns).toBe(true)
    expect(seen('track-run')).toMatchObject({ stands: 0, falters: 0.75 })
    expect(seen('wheels-turn').some).toBe(1)
    expect(seen('truck-turns@driven-wheels.rear-truck').none).toBe(1)
    expect(seen('truck-turns@driven-wheels.front-truck').all).toBe(1)
  })
})
