import { minimalRemoval, isNoWay } from '../../strip/minimal-removal'
import { Circuit, ohmsBetween, type Condition } from '../../engine/circuit'
import type { EngineDescription, Turnable } from '../../engine/description-schema'
import { driveTrain, pullsAgainstItself, travelPerRadian } from '../../engine/drive-train'
import { DECODER_SWITCH, hasDecoder } from '../../engine/fit-decoder'
import { operatingPoint } from '../../engine/operating-point'
import { refitted } from '../../engine/refit'

/** What an assembly will do when it is put on the track. */
export type AssemblyOutcome = 'forward' | 'reverse' | 'short' | 'fights-itself' | 'still'

const TRIAL_VOLTS = 12
/** Rails that read less than this with the motors out of the way are shorted, Ω. */
const SHORT_OHMS = 5
/** rad/s under which a motor counts as standing. */
const STANDING = 1

/**
 * What the engine does on a track with plus on the rail named so, refitted like this: forward, reverse, a short, its
 * trucks against each other, or nothing.
 *
 * @param description the engine
 * @param turned what is the other way round
 * @param condition switches and states; magnets are set from what is turned
 * @param supply on DCC a decoder drives forward whichever way its rail leads lie; on DC it follows the rails
 */
export function predictAssembly(
  description: EngineDescription,
  turned: readonly Turnable[] = [],
  condition: Condition = {},
  supply: 'dc' | 'dcc' = 'dc',
): AssemblyOutcome {
  const { description: assembled, magnets } = refitted(description, turned)
  const circuit = new Circuit(assembled)
  const { plus, minus } = assembled.rails
  const armaturesOut = Object.fromEntries(assembled.motors.map((motor) => [motor.armature, 'open' as const]))
  if (
    ohmsBetween(circuit, { ...condition, states: { ...condition.states, ...armaturesOut } }, plus, minus) < SHORT_OHMS
  )
    return 'short'
  const switches = hasDecoder(assembled)
    ? { ...condition.switches, [DECODER_SWITCH]: supply === 'dcc' ? forwardPosition(circuit, condition) : 'straight' }
    : (condition.switches ?? {})
  const point = operatingPoint(
    circuit,
    { ...condition, switches, magnets: { ...condition.magnets, ...magnets } },
    { plus, minus, volts: TRIAL_VOLTS },
  )
  const train = driveTrain(assembled)
  if (pullsAgainstItself(train)) return 'fights-itself'
  const ways = new Set(
    point.motors
      .filter((motor) => Math.abs(motor.radPerSecond) > STANDING)
      .map((motor) => {
        const driven = assembled.motors.find((entry) => entry.id === motor.motor)
        const ofThis = assembled.wheelSets.findIndex(
          (wheelSet) => train.turning.get(wheelSet.rotor)?.motor === driven?.id,
        )
        const travel = ofThis >= 0 ? (train.wheels[ofThis]?.travelPerRadian ?? null) : travelPerRadian(train)
        return Math.sign((travel ?? 0) * motor.radPerSecond)
      }),
  )
  if (ways.size === 0) return 'still'
  if (ways.size > 1) return 'fights-itself'
  return ways.has(1) ? 'forward' : 'reverse'
}

/** A decoder told to go forward puts plus on its plus lead, whichever rail it gets it from. */
function forwardPosition(circuit: Circuit, condition: Condition): string {
  const waiting = operatingPoint(circuit, condition, { ...circuit.description.rails, volts: TRIAL_VOLTS })
  const at = (pole: 'plus' | 'minus'): number => waiting.nodeVolts[circuit.description.decoder?.[pole] ?? ''] ?? 0
  return at('plus') >= at('minus') ? 'straight' : 'crossed'
}

export interface Reversal {
  readonly turnables: readonly Turnable[]
  readonly outcome: AssemblyOutcome
  /** Minutes with getting there and back. */
  readonly minutes: number
}

/**
 * The ways to turn the engine's direction round, cheapest first: single ones, and pairs where no single one does.
 * What would make a short or set the trucks against each other is left out.
 *
 * @param description the engine
 * @param turned what is the other way round now
 * @param off parts that are off already
 */
export function reversals(
  description: EngineDescription,
  turned: readonly Turnable[] = [],
  off: ReadonlySet<string> = new Set(),
  condition: Condition = {},
  supply: 'dc' | 'dcc' = 'dc',
): Reversal[] {
  const now = predictAssembly(description, turned, condition, supply)
  const wanted: AssemblyOutcome = now === 'reverse' ? 'forward' : 'reverse'
  const tried = (entries: readonly Turnable[]): Reversal[] => {
    const outcome = predictAssembly(description, toggled(turned, entries), condition, supply)
    return outcome === (now === 'forward' || now === 'reverse' ? wanted : 'forward')
      ? [{ turnables: entries, outcome, minutes: minutesFor(description, entries, off) }]
      : []
  }
  const singles = description.turnables.flatMap((entry) => tried([entry]))
  const pairs =
    singles.length > 0
      ? []
      : description.turnables.flatMap((first, index) =>
          description.turnables.slice(index + 1).flatMap((second) => tried([first, second])),
        )
  return [...singles, ...pairs].sort((first, second) => first.minutes - second.minutes)
}

function toggled(turned: readonly Turnable[], entries: readonly Turnable[]): Turnable[] {
  return [...turned.filter((entry) => !entries.includes(entry)), ...entries.filter((entry) => !turned.includes(entry))]
}

function minutesFor(description: EngineDescription, entries: readonly Turnable[], off: ReadonlySet<string>): number {
  const goal = entries.flatMap((entry) => description.accesses.find((access) => access.id === entry.access)?.off ?? [])
  const plan = minimalRemoval(description, goal, { off })
  const work = entries.reduce((sum, entry) => sum + entry.minutes, 0)
  return isNoWay(plan) ? Number.POSITIVE_INFINITY : work + plan.minutes + plan.refitMinutes
}
