/** What the sweep needs of a supply; the client has it, simulated or real. */
export interface SweepInstrument {
  setVolts(volts: number): Promise<void>
  setAmpsLimit(amps: number): Promise<void>
  output(on: boolean): Promise<void>
  reverse(reversed: boolean): Promise<void>
  /** Hz; 0 is smooth DC. Refused where the supply gives DC only. */
  setHertz(hertz: number): Promise<void>
  measureVolts(): Promise<number>
  measureAmps(): Promise<number>
  /** A stretch of current at a fixed rate, where it can. */
  record?(seconds: number): Promise<{ readonly rate: number; readonly amps: readonly number[] }>
}

/** What a sweep asks for or tells, in the order it happens. */
export type SweepEvent =
  | { readonly kind: 'doing'; readonly what: string; readonly done: number; readonly of: number }
  | { readonly kind: 'hold'; readonly turn: number; readonly of: number }
  | { readonly kind: 'let-go' }
  /** The output is off for a while, so that the winding does not run hot. */
  | { readonly kind: 'cooling'; readonly seconds: number }
  | { readonly kind: 'locked'; readonly volts: number; readonly amps: number; readonly turn: number }
  | {
      readonly kind: 'running'
      readonly direction: 'forward' | 'reverse'
      readonly volts: number
      readonly amps: number
      readonly record: { readonly rate: number; readonly amps: readonly number[] } | null
      readonly steady: boolean
    }
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
const fallenOff: SweepEvent = {
  kind: 'stopped',
  why: 'open',
  sentence:
    'Nothing flows any more: a clamp fell off, or a lead came loose. The output is off; the readings before it stand.',
}

/** One running reading of a sweep. */
export interface SweepStep {
  readonly direction: 'forward' | 'reverse'
  readonly volts: number
  /** Whether it starts anew for this reading, or goes on from the one before. */
  readonly from: 'off' | 'running'
  readonly repeat: { readonly number: number; readonly of: number } | null
}

/**
 * Takes one running reading, settled.
 *
 * @param limits what the supply is set to; on AC no stretch of it is recorded, whose mean would be nothing
 */
export async function runningReading(
  supply: SweepInstrument,
  { ampsLimit, hertz }: { readonly ampsLimit: number; readonly hertz: number },
  { direction, volts, from }: SweepStep,
  surroundings: SweepSurroundings,
): Promise<SweepEvent> {
  if (from === 'off') {
    await supply.output(false)
    await surroundings.pause(SETTLE_SECONDS)
    await supply.reverse(direction === 'reverse')
    await supply.setVolts(volts)
    await supply.output(true)
  } else await supply.setVolts(volts)
  const reading = await settledReading(supply, hertz === 0, surroundings)
  if (Math.abs(reading.volts) < SHORT_SHARE * volts)
    return {
      kind: 'stopped',
      why: 'stalled',
      sentence: `At ${volts.toFixed(1)} V it takes more than ${ampsLimit} A: it has stalled or seized. The output is off.`,
    }
  return Math.abs(reading.amps) < OPEN_AMPS ? fallenOff : { kind: 'running', direction, ...reading }
}

/** Held readings from the `first` angle to the `last` of so many. */
export interface Holds {
  readonly first: number
  readonly last: number
  readonly of: number
  readonly volts: readonly number[]
}

/**
 * Asks for a hand at each angle and reads at the volts given; off before it asks.
 *
 * @returns true when nothing flowed any more
 */
export async function* heldReadings(
  supply: SweepInstrument,
  { first, last, of, volts: levels }: Holds,
  surroundings: SweepSurroundings,
  doing: (what: string) => SweepEvent,
): AsyncGenerator<SweepEvent, boolean> {
  for (let turn = first; turn <= last; turn++) {
    yield { kind: 'hold', turn, of }
    await surroundings.held(turn)
    yield doing(`Held, ${turn} of ${of}`)
    for (const volts of levels) {
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

/** A moment at low volts: why not to go on, or null when nothing speaks against it. */
export async function protectiveStart(
  supply: SweepInstrument,
  { pause }: SweepSurroundings,
): Promise<SweepEvent | null> {
  await supply.setVolts(PROTECTIVE_VOLTS)
  await supply.output(true)
  await pause(SETTLE_SECONDS)
  const [volts, amps] = [await supply.measureVolts(), await supply.measureAmps()]
  await supply.output(false)
  if (Math.abs(volts) < SHORT_SHARE * PROTECTIVE_VOLTS)
    return {
      kind: 'stopped',
      why: 'short',
      sentence: `A short: at ${PROTECTIVE_VOLTS} V the supply is at its limit with ${Math.abs(amps).toFixed(2)} A. The output is off.`,
    }
  if (Math.abs(amps) < OPEN_AMPS)
    return {
      kind: 'stopped',
      why: 'open',
      sentence: `Nothing flows at ${PROTECTIVE_VOLTS} V: a clamp is off, or the circuit is open. The output is off.`,
    }
  return null
}

async function settledReading(
  supply: SweepInstrument,
  recorded: boolean,
  { pause }: Pick<SweepSurroundings, 'pause'>,
): Promise<{ volts: number; amps: number; record: { rate: number; amps: readonly number[] } | null; steady: boolean }> {
  let before = Number.NaN
  let steady = false
  for (let count = 0; count < MOST_SETTLES && !steady; count++) {
    await pause(SETTLE_SECONDS)
    const amps = await supply.measureAmps()
    steady = Math.abs(amps - before) <= STEADY_SHARE * Math.abs(amps)
    before = amps
  }
  const record = recorded && supply.record ? await supply.record(RECORD_SECONDS) : null
  const volts = await supply.measureVolts()
  // A recorded stretch gives the mean over many turns; a single reading only over a few.
  const amps =
    record && record.amps.length > 0
      ? record.amps.reduce((sum, value) => sum + value, 0) / record.amps.length
      : await supply.measureAmps()
  return { volts, amps, record, steady }
}
