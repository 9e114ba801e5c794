import { ohmsBetween, type Circuit, type Condition } from './circuit'
import type { CircuitComponent, ComponentState } from './description-schema'
import { operatingPoint } from './operating-point'

/** A measurement one could make: ohms between two points, or a supply clamped to two and what it then does. */
export type ProbeTest =
  | { readonly kind: 'ohms'; readonly first: string; readonly second: string }
  | { readonly kind: 'run'; readonly plus: string; readonly minus: string; readonly volts: number }
  | { readonly kind: 'volts'; readonly first: string; readonly second: string; readonly volts: number }

export interface SingleFault {
  readonly component: string
  readonly state: ComponentState
}

export interface IdenticalFaults {
  readonly faults: readonly SingleFault[]
  /** What each test reads with any of them. */
  readonly readings: readonly number[]
}

/** Readings closer than this share of each other look the same on a bench meter. */
const SAME_SHARE = 0.05
/** Above this an ohmmeter shows open; below this nothing. */
const OPEN_OHMS = 1e6
const NOTHING = 0.02

/**
 * Which single faults cannot be told from each other, and which not from a sound engine, by the tests named.
 *
 * @param circuit the engine
 * @param tests measurements
 * @param condition what is known already: switches, confirmed faults
 * @returns groups of faults that read alike, largest first; the first reading alike with the sound engine has `sound`
 */
export function identicalFaults(
  circuit: Circuit,
  tests: readonly ProbeTest[],
  condition: Condition = {},
): Array<IdenticalFaults & { readonly sound: boolean }> {
  const readings = (states: Condition['states']): number[] =>
    tests.flatMap((test) => readTest(circuit, test, { ...condition, states: { ...condition.states, ...states } }))
  const sound = readings({})
  const groups: Array<{ faults: SingleFault[]; readings: number[]; sound: boolean }> = []
  for (const fault of singleFaults(circuit.components)) {
    const found = readings({ [fault.component]: fault.state })
    const group = groups.find((entry) => alike(entry.readings, found))
    if (group) group.faults.push(fault)
    else groups.push({ faults: [fault], readings: found, sound: alike(sound, found) })
  }
  return groups.sort((first, second) => second.faults.length - first.faults.length)
}

/** Every fault a component may have, one at a time. */
export function singleFaults(components: readonly CircuitComponent[]): SingleFault[] {
  return components.flatMap((component) => component.faults.map((state) => ({ component: component.id, state })))
}

/** What a test reads: Ω; or the supply's A and each motor's rad/s; or V. */
export function readTest(circuit: Circuit, test: ProbeTest, condition: Condition): number[] {
  if (test.kind === 'ohms') return [ohmsBetween(circuit, condition, test.first, test.second)]
  if (test.kind === 'run') {
    const point = operatingPoint(circuit, condition, {
      plus: test.plus,
      minus: test.minus,
      volts: test.volts,
      limitAmps: 3,
    })
    return [point.supplyAmps, ...point.motors.map((motor) => motor.radPerSecond)]
  }
  const point = operatingPoint(circuit, condition, { ...circuit.description.rails, volts: test.volts, limitAmps: 3 })
  return [(point.nodeVolts[test.first] ?? 0) - (point.nodeVolts[test.second] ?? 0)]
}

function alike(first: readonly number[], second: readonly number[]): boolean {
  return first.every((value, index) => {
    const other = second[index] as number
    if (value > OPEN_OHMS || other > OPEN_OHMS) return value > OPEN_OHMS && other > OPEN_OHMS
    return Math.abs(value - other) <= Math.max(NOTHING, SAME_SHARE * Math.max(Math.abs(value), Math.abs(other)))
  })
}
