import type { SweepInstrument, SweepSurroundings } from './sweep-steps'

/** What the quick test after a step of the rebuild tells, in the order it happens. */
export type StepTestEvent =
  | { readonly kind: 'doing'; readonly what: string }
  /** It runs: somebody must say which way. Comes again and again with fresh readings until answered. */
  | { readonly kind: 'asks'; readonly volts: number; readonly amps: number }
  | {
      readonly kind: 'read'
      readonly turns: Turns
      readonly readings: ReadonlyArray<{ readonly volts: number; readonly amps: number }>
    }
  | { readonly kind: 'stopped'; readonly why: 'short' | 'open'; readonly sentence: string }

/** What somebody saw it do with red on plus. */
export type Turns = 'forward' | 'reverse' | 'stands'

export interface StepTestPlan {
  /** Low: a step that binds is felt here before anything burns. */
  readonly volts: number
  readonly ampsLimit: number
  /** Readings that count, for their repeatability. */
  readonly repeats: number
}

/** A third of the nominal voltage, and little current. */
export function usualStepTest(nominalVolts: number): StepTestPlan {
  return { volts: Math.round((nominalVolts * 10) / 3) / 10, ampsLimit: 0.6, repeats: 5 }
}

const RUN_UP_SECONDS = 1
const BETWEEN_SECONDS = 0.3
const SHORT_SHARE = 0.6
const OPEN_AMPS = 0.002

/**
 * Runs an engine that is half together for a moment at low volts: current with its repeats, and which way it turned
 * as somebody saw it. The output is off at every end.
 *
 * @param answered what was seen, once somebody has said it
 */
export async function* stepTest(
  supply: SweepInstrument,
  plan: StepTestPlan,
  { pause }: Pick<SweepSurroundings, 'pause'>,
  answered: () => Turns | null,
): AsyncGenerator<StepTestEvent> {
  try {
    await supply.setAmpsLimit(plan.ampsLimit)
    await supply.reverse(false)
    await supply.setVolts(plan.volts)
    yield { kind: 'doing', what: `${plan.volts.toFixed(1)} V for a moment` }
    await supply.output(true)
    await pause(RUN_UP_SECONDS)
    const readings: Array<{ volts: number; amps: number }> = []
    for (let seen = answered(); seen === null || readings.length < plan.repeats; seen = answered()) {
      const reading = { volts: await supply.measureVolts(), amps: await supply.measureAmps() }
      if (Math.abs(reading.volts) < SHORT_SHARE * plan.volts) {
        yield {
          kind: 'stopped',
          why: 'short',
          sentence: `A short: at ${plan.volts.toFixed(1)} V the supply is at its limit with ${Math.abs(reading.amps).toFixed(2)} A. The output is off: look at the step just done.`,
        }
        return
      }
      if (Math.abs(reading.amps) < OPEN_AMPS) {
        yield {
          kind: 'stopped',
          why: 'open',
          sentence: 'Nothing flows: a clamp is off, or the step just done opened the circuit. The output is off.',
        }
        return
      }
      readings.push(reading)
      // Only the latest count: it may have been helped by a finger at first.
      if (readings.length > plan.repeats) readings.shift()
      yield { kind: 'asks', ...reading }
      await pause(BETWEEN_SECONDS)
    }
    await supply.output(false)
    yield { kind: 'read', turns: answered() ?? 'stands', readings }
  } finally {
    await supply.output(false).catch(() => {})
  }
}
