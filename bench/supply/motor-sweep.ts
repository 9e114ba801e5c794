import {
  heldReadings,
  protectiveStart,
  runningReading,
  type SweepEvent,
  type SweepStep,
  type SweepSurroundings,
  type SweepInstrument,
} from './sweep-steps'

export interface SweepPlan {
  readonly ampsLimit: number
  /** Hz of the supply; 0 is smooth DC. */
  readonly hertz: number
  /** Volts at each of which every held angle is read. */
  readonly lockedVolts: readonly number[]
  readonly lockedAngles: number
  readonly steps: readonly SweepStep[]
}

/** A brush bridges two segments over a fifth of the turn of a three-pole armature: with fewer, one in ten sheets would miss it. */
const ANGLES = 12
/** A wound field adds its own ohms, which no angle changes: half as many tell enough. */
const SERIES_ANGLES = 6
const REPEATS = 3
/** A small winding takes so much before it is left to cool, and about so long each reading lasts; judged. */
const COOL_AFTER_JOULES = 30
const COOL_SECONDS = 8
const READING_SECONDS = 1.5

/**
 * The usual plan for a motor with a magnet: held readings at twelve angles, at two voltages well apart (they tell a drop
 * at the brushes from ohms); five voltages each way, three repeats.
 *
 * What is read at the higher volts (up forward, repeats, down in reverse) lies in the middle of the warming, as the mean
 * of the held readings before and after does, so that the winding's drift falls out of their comparison.
 */
export function usualPlan(nominalVolts: number): SweepPlan {
  const up = [0.4, 0.55, 0.7, 0.85, 1].map((share) => share * nominalVolts)
  return {
    ampsLimit: 1.5,
    hertz: 0,
    lockedVolts: [nominalVolts / 12, nominalVolts / 4],
    lockedAngles: ANGLES,
    steps: [...inOneGo('forward', up), ...repeatsAt(nominalVolts), ...inOneGo('reverse', [...up].reverse())],
  }
}

/**
 * The usual plan for a motor with a wound field, which turns the same way on either polarity: held at six angles, up and
 * down with repeats between. On DC it stays well below its nominal volts, where no reactance holds it back.
 */
export function usualSeriesPlan(nominalVolts: number, supply: 'dc' | 'ac'): SweepPlan {
  const up = (supply === 'dc' ? [0.3, 0.4, 0.5, 0.6] : [0.55, 0.7, 0.85, 1]).map((share) => share * nominalVolts)
  return {
    ampsLimit: 3,
    hertz: supply === 'ac' ? 50 : 0,
    lockedVolts: [nominalVolts / 8],
    lockedAngles: SERIES_ANGLES,
    steps: [
      ...inOneGo('forward', up),
      ...repeatsAt(up.at(-1) ?? nominalVolts),
      ...inOneGo('forward', [...up].reverse()),
    ],
  }
}

function inOneGo(direction: 'forward' | 'reverse', volts: readonly number[]): SweepStep[] {
  return volts.map((level, index) => ({ direction, volts: level, from: index === 0 ? 'off' : 'running', repeat: null }))
}

function repeatsAt(volts: number): SweepStep[] {
  return Array.from({ length: REPEATS }, (_, index) => ({
    direction: 'forward',
    volts,
    from: 'off',
    repeat: { number: index + 1, of: REPEATS },
  }))
}

/**
 * Measures a motor: a protective start at low volts, half of the held readings cold, the running ones with each step
 * settled, the other half warm. The output is off whenever a hand is near, and at every end.
 *
 * @param supply set to its limit here
 * @param surroundings time and hands
 * @returns what happens, as it happens; whoever stops listening stops the sweep, output off
 */
export async function* sweepMotor(
  supply: SweepInstrument,
  plan: SweepPlan,
  surroundings: SweepSurroundings,
): AsyncGenerator<SweepEvent> {
  const total = 1 + plan.lockedAngles + plan.steps.length
  let done = 0
  const doing = (what: string): SweepEvent => ({ kind: 'doing', what, done: done++, of: total })
  try {
    await supply.setAmpsLimit(plan.ampsLimit)
    await supply.reverse(false)
    if (plan.hertz > 0) await supply.setHertz(plan.hertz)
    yield doing('Low volts first')
    const start = await protectiveStart(supply, surroundings)
    if (start) {
      yield start
      return
    }
    const cold = Math.ceil(plan.lockedAngles / 2)
    const holds = { of: plan.lockedAngles, volts: plan.lockedVolts }
    if (yield* heldReadings(supply, { ...holds, first: 1, last: cold }, surroundings, doing)) return
    let joules = 0
    for (const step of plan.steps) {
      if (step.from === 'off' && joules > COOL_AFTER_JOULES) {
        joules = 0
        await supply.output(false)
        yield { kind: 'cooling', seconds: COOL_SECONDS }
        await surroundings.pause(COOL_SECONDS)
      }
      yield doing(
        step.repeat
          ? `Once more at ${step.volts.toFixed(1)} V, ${step.repeat.number} of ${step.repeat.of}`
          : `${plan.hertz > 0 ? 'AC' : step.direction === 'forward' ? 'Forward' : 'Reverse'}, ${step.volts.toFixed(1)} V`,
      )
      const event = await runningReading(supply, plan, step, surroundings)
      yield event
      if (event.kind === 'stopped') return
      if (event.kind === 'running') joules += Math.abs(event.volts * event.amps) * READING_SECONDS
    }
    await supply.output(false)
    await supply.reverse(false)
    yield* heldReadings(supply, { ...holds, first: cold + 1, last: plan.lockedAngles }, surroundings, doing)
  } finally {
    await supply.output(false).catch(() => {})
    if (plan.hertz > 0) await supply.setHertz(0).catch(() => {})
  }
}
