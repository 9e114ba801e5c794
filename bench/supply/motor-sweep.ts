/** What the sweep needs of a supply; the client has it, simulated or real. */
export interface SweepInstrument {
  setVolts(volts: number): Promise<void>
  setAmpsLimit(amps: number): Promise<void>
  output(on: boolean): Promise<void>
  reverse(reversed: boolean): Promise<void>
  measureVolts(): Promise<number>
  measureAmps(): Promise<number>
  /** A stretch of current at a fixed rate, where it can. */
  record?(seconds: number): Promise<{ readonly rate: number; readonly amps: readonly number[] }>
}

export interface SweepPlan {
  readonly nominalVolts: number
  readonly ampsLimit: number
  /** Volts of the running readings, each way. */
  readonly runningVolts: readonly number[]
  /** Volts at each of which every held angle is read: two well apart tell a drop at the brushes from ohms. */
  readonly lockedVolts: readonly number[]
  readonly lockedAngles: number
  /** Times the nominal reading is repeated. */
  readonly repeats: number
}

/** What a sweep asks for or tells, in the order it happens. */
export type SweepEvent =
  | { readonly kind: 'doing'; readonly what: string; readonly done: number; readonly of: number }
  | { readonly kind: 'hold'; readonly turn: number; readonly of: number }
  | { readonly kind: 'let-go' }
  | { readonly kind: 'locked'; readonly volts: number; readonly amps: number; readonly turn: number }
  | { readonly kind: 'running'; readonly direction: 'forward' | 'reverse'; readonly volts: number; readonly amps: number; readonly record: { readonly rate: number; readonly amps: readonly number[] } | null; readonly steady: boolean }
  | { readonly kind: 'stopped'; readonly why: 'short' | 'stalled' | 'open'; readonly sentence: string }

export interface SweepSurroundings {
  /** Waits; an accelerated supply waits less. */
  pause(seconds: number): Promise<void>
  /** Resolves once the armature is held, a little further round than the time before. */
  held(turn: number): Promise<void>
  /** Resolves once it is free again. */
  free(): Promise<void>
}

const PROTECTIVE_VOLTS = 1.5
/** A supply that cannot hold its voltage at so few volts is shorted. */
const SHORT_SHARE = 0.6
const OPEN_AMPS = 0.002
const STEADY_SHARE = 0.015
const SETTLE_SECONDS = 0.25
const MOST_SETTLES = 12
const RECORD_SECONDS = 0.4
/** A brush bridges two segments over a fifth of the turn of a three-pole armature: with fewer, one in ten sheets would miss it. */
const ANGLES = 12

/** The usual plan for a motor: held readings at so many angles, five voltages each way, three repeats. */
export function usualPlan(nominalVolts: number): SweepPlan {
  return { nominalVolts, ampsLimit: 1.5, runningVolts: [0.4, 0.55, 0.7, 0.85, 1].map((share) => share * nominalVolts), lockedVolts: [nominalVolts / 12, nominalVolts / 4], lockedAngles: ANGLES, repeats: 3 }
}

/**
 * Measures a motor: a protective start at low volts, held readings at several angles, a stepped sweep both ways with
 * each step settled, repeats at the nominal voltage. The output is off whenever a hand is near, and at every end.
 *
 * @param supply set to its limit here
 * @param surroundings time and hands
 * @returns what happens, as it happens; whoever stops listening stops the sweep, output off
 */
export async function* sweepMotor(supply: SweepInstrument, plan: SweepPlan, surroundings: SweepSurroundings): AsyncGenerator<SweepEvent> {
  const total = 1 + plan.lockedAngles + 2 * plan.runningVolts.length + plan.repeats
  let done = 0
  const doing = (what: string): SweepEvent => ({ kind: 'doing', what, done: done++, of: total })
  try {
    await supply.setAmpsLimit(plan.ampsLimit)
    await supply.reverse(false)
    yield doing('Low volts first')
    const start = await protectiveStart(supply, surroundings)
    if (start) {
      yield start
      return
    }
    const cold = Math.ceil(plan.lockedAngles / 2)
    if (yield* heldReadings(supply, plan, surroundings, 1, cold, doing)) return
    // Up forward, repeats, down in reverse: what is read at the higher volts lies in the middle of the warming, as the
    // mean of the held readings does, so that the winding's drift falls out of their comparison.
    const steps: readonly SweepStep[] = [
      ...plan.runningVolts.map((volts, index) => ({ direction: 'forward' as const, volts, from: index === 0 ? 'off' as const : 'running' as const, repeat: 0 })),
      ...Array.from({ length: plan.repeats }, (_, index) => ({ direction: 'forward' as const, volts: plan.nominalVolts, from: 'off' as const, repeat: index + 1 })),
      ...[...plan.runningVolts].reverse().map((volts, index) => ({ direction: 'reverse' as const, volts, from: index === 0 ? 'off' as const : 'running' as const, repeat: 0 })),
    ]
    for (const step of steps) {
      yield doing(step.repeat > 0 ? `Once more at ${step.volts} V, ${step.repeat} of ${plan.repeats}` : `${step.direction === 'forward' ? 'Forward' : 'Reverse'}, ${step.volts.toFixed(1)} V`)
      const event = await runningReading(supply, plan, step, surroundings)
      yield event
      if (event.kind === 'stopped') return
    }
    await supply.output(false)
    await supply.reverse(false)
    // The other half warm: on average the held readings are then as warm as the running ones.
    yield* heldReadings(supply, plan, surroundings, cold + 1, plan.lockedAngles, doing)
  } finally {
    await supply.output(false).catch(() => {})
  }
}

const fallenOff: SweepEvent = { kind: 'stopped', why: 'open', sentence: 'Nothing flows any more: a clamp fell off, or a lead came loose. The output is off; the readings before it stand.' }

interface SweepStep {
  readonly direction: 'forward' | 'reverse'
  readonly volts: number
  /** Whether it starts anew for this reading, or goes on from the one before. */
  readonly from: 'off' | 'running'
  /** Which repeat it is; 0 for none. */
  readonly repeat: number
}

async function runningReading(supply: SweepInstrument, plan: SweepPlan, { direction, volts, from }: SweepStep, surroundings: SweepSurroundings): Promise<SweepEvent> {
  if (from === 'off') {
    await supply.output(false)
    await surroundings.pause(SETTLE_SECONDS)
    await supply.reverse(direction === 'reverse')
    await supply.setVolts(volts)
    await supply.output(true)
  } else await supply.setVolts(volts)
  const reading = await settledReading(supply, surroundings)
  if (Math.abs(reading.volts) < SHORT_SHARE * volts) return { kind: 'stopped', why: 'stalled', sentence: `At ${volts.toFixed(1)} V it takes more than ${plan.ampsLimit} A: it has stalled or seized. The output is off.` }
  return Math.abs(reading.amps) < OPEN_AMPS ? fallenOff : { kind: 'running', direction, ...reading }
}

/** @returns true when nothing flowed any more */
async function* heldReadings(supply: SweepInstrument, plan: SweepPlan, surroundings: SweepSurroundings, first: number, last: number, doing: (what: string) => SweepEvent): AsyncGenerator<SweepEvent, boolean> {
  for (let turn = first; turn <= last; turn++) {
    yield { kind: 'hold', turn, of: plan.lockedAngles }
    await surroundings.held(turn)
    yield doing(`Held, ${turn} of ${plan.lockedAngles}`)
    for (const volts of plan.lockedVolts) {
      await supply.setVolts(volts)
      await supply.output(true)
      await surroundings.pause(SETTLE_SECONDS)
      const reading = { volts: await supply.measureVolts(), amps: await supply.measureAmps() }
      await supply.output(false)
      if (Math.abs(reading.amps) < OPEN_AMPS) {
        yield fallenOff
        return true
      }
      yield { kind: 'locked', ...reading, turn }
    }
  }
  await surroundings.free()
  yield { kind: 'let-go' }
  return false
}

async function protectiveStart(supply: SweepInstrument, { pause }: SweepSurroundings): Promise<SweepEvent | null> {
  await supply.setVolts(PROTECTIVE_VOLTS)
  await supply.output(true)
  await pause(SETTLE_SECONDS)
  const [volts, amps] = [await supply.measureVolts(), await supply.measureAmps()]
  await supply.output(false)
  if (Math.abs(volts) < SHORT_SHARE * PROTECTIVE_VOLTS) return { kind: 'stopped', why: 'short', sentence: `A short: at ${PROTECTIVE_VOLTS} V the supply is at its limit with ${Math.abs(amps).toFixed(2)} A. The output is off.` }
  if (Math.abs(amps) < OPEN_AMPS) return { kind: 'stopped', why: 'open', sentence: `Nothing flows at ${PROTECTIVE_VOLTS} V: a clamp is off, or the circuit is open. The output is off.` }
  return null
}

async function settledReading(supply: SweepInstrument, { pause }: SweepSurroundings): Promise<{ volts: number; amps: number; record: { rate: number; amps: readonly number[] } | null; steady: boolean }> {
  let before = Number.NaN
  let steady = false
  for (let count = 0; count < MOST_SETTLES && !steady; count++) {
    await pause(SETTLE_SECONDS)
    const amps = await supply.measureAmps()
    steady = Math.abs(amps - before) <= STEADY_SHARE * Math.abs(amps)
    before = amps
  }
  const record = supply.record ? await supply.record(RECORD_SECONDS) : null
  const volts = await supply.measureVolts()
  // A recorded stretch gives the mean over many turns; a single reading only over a few.
  const amps = record && record.amps.length > 0 ? record.amps.reduce((sum, value) => sum + value, 0) / record.amps.length : await supply.measureAmps()
  return { volts, amps, record, steady }
}
