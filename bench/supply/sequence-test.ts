import type { SweepInstrument, SweepSurroundings } from './sweep-steps'

export interface SequenceTestPlan {
  /** V r.m.s. at which it runs between the interruptions. */
  readonly volts: number
  readonly hertz: number
  readonly ampsLimit: number
  readonly interruptions: number
  /** False with the motor's leads off, to look at the drum: then every position is asked for. */
  readonly motorOn: boolean
}

export type SeenRunning = 'forward' | 'reverse' | 'stands'

/** What the test of a sequence switch tells, in the order it happens. `number` 0 is the position it was found in. */
export type SequenceTestEvent =
  | { readonly kind: 'doing'; readonly what: string; readonly done: number; readonly of: number }
  | {
      readonly kind: 'asks'
      readonly number: number
      readonly volts: number
      readonly amps: number
      readonly draws: 'motor' | 'little' | 'unknown'
    }
  | {
      readonly kind: 'position'
      readonly number: number
      readonly position: 'forward' | 'reverse' | 'neutral'
      readonly volts: number
      readonly amps: number
    }
  /** V r.m.s. between which the drum moved while the volts rose; null when it did not up to the test volts. */
  | { readonly kind: 'pull-in'; readonly between: readonly [below: number, above: number] | null }
  | { readonly kind: 'stopped'; readonly why: 'short' | 'open'; readonly sentence: string }

/** Three quarters of the nominal voltage, eight interruptions: twice round. */
export function usualSequenceTest(nominalVolts: number, motorOn: boolean): SequenceTestPlan {
  return { volts: Math.round(nominalVolts * 0.75), hertz: 50, ampsLimit: 3, interruptions: 8, motorOn }
}

const OFF_SECONDS = 0.4
const DWELL_SECONDS = 0.6
const ASK_AGAIN_SECONDS = 0.25
const SHORT_SHARE = 0.6
const OPEN_AMPS = 0.002
const RAMP_STEP_VOLTS = 0.25
const RAMP_STEP_SECONDS = 0.1
/** The motor comes in or goes out: the admittance changes at least so many times. */
const JUMP = 1.6

/**
 * Interrupts the supply again and again and names the position after each. With the motor's leads on, neutral is known
 * by the current, and only the direction is asked for; the volts that pull the switch in are found by a slow rise.
 *
 * @param answered what somebody saw it do since `askAnew`, once they have said it
 */
export async function* sequenceTest(
  supply: SweepInstrument,
  plan: SequenceTestPlan,
  { pause }: Pick<SweepSurroundings, 'pause'>,
  answered: () => SeenRunning | null,
  askAnew: () => void,
): AsyncGenerator<SequenceTestEvent> {
  const total = plan.interruptions + 2
  const seenSiemens: number[] = []
  try {
    await supply.setAmpsLimit(plan.ampsLimit)
    await supply.reverse(false)
    await supply.setHertz(plan.hertz)
    let position: 'forward' | 'reverse' | 'neutral' = 'neutral'
    for (let number = 0; number <= plan.interruptions; number++) {
      yield {
        kind: 'doing',
        what: number === 0 ? `As found, at ${plan.volts} V` : `Interruption ${number}`,
        done: number,
        of: total,
      }
      await supply.output(false)
      if (number > 0) await pause(OFF_SECONDS)
      await supply.setVolts(plan.volts)
      await supply.output(true)
      await pause(DWELL_SECONDS)
      const look = async (): Promise<{ volts: number; amps: number }> => ({
        volts: await supply.measureVolts(),
        amps: await supply.measureAmps(),
      })
      let reading = await look()
      if (reading.volts < SHORT_SHARE * plan.volts) {
        yield {
          kind: 'stopped',
          why: 'short',
          sentence: `A short: the supply is at its limit with ${reading.amps.toFixed(2)} A. The output is off.`,
        }
        return
      }
      if (reading.amps < OPEN_AMPS) {
        yield {
          kind: 'stopped',
          why: 'open',
          sentence: 'Nothing flows: a clamp is off, or the centre pickup does not connect. The output is off.',
        }
        return
      }
      const siemens = reading.amps / reading.volts
      seenSiemens.push(siemens)
      const draws = plan.motorOn ? drawOf(siemens, seenSiemens) : 'unknown'
      askAnew()
      for (let seen = draws === 'little' ? ('stands' as const) : answered(); ; seen = answered()) {
        if (seen !== null) {
          position = seen === 'stands' ? 'neutral' : seen
          break
        }
        yield { kind: 'asks', number, ...reading, draws }
        await pause(ASK_AGAIN_SECONDS)
        reading = await look()
      }
      yield { kind: 'position', number, position, ...reading }
    }
    if (plan.motorOn) {
      yield { kind: 'doing', what: 'Volts rise slowly until it pulls in', done: total - 1, of: total }
      yield { kind: 'pull-in', between: await pullIn(supply, plan, pause) }
    }
  } finally {
    await supply.output(false).catch(() => {})
    await supply.setHertz(0).catch(() => {})
  }
}

/** Motor or only coil and lamps: told once both have been seen; before that it may be either. */
function drawOf(siemens: number, seen: readonly number[]): 'motor' | 'little' | 'unknown' {
  const [least, most] = [Math.min(...seen), Math.max(...seen)]
  if (most < JUMP * least) return 'unknown'
  return siemens > Math.sqrt(least * most) ? 'motor' : 'little'
}

/** From an interruption the volts rise step by step; the motor coming in or going out shows the drum move. */
async function pullIn(
  supply: SweepInstrument,
  plan: SequenceTestPlan,
  pause: SweepSurroundings['pause'],
): Promise<readonly [number, number] | null> {
  await supply.output(false)
  await pause(OFF_SECONDS)
  await supply.setVolts(RAMP_STEP_VOLTS)
  await supply.output(true)
  let before: number | null = null
  for (let volts = 2 * RAMP_STEP_VOLTS; volts <= plan.volts; volts += RAMP_STEP_VOLTS) {
    await supply.setVolts(volts)
    await pause(RAMP_STEP_SECONDS)
    const siemens = (await supply.measureAmps()) / Math.max(RAMP_STEP_VOLTS / 2, await supply.measureVolts())
    if (before !== null && (siemens > JUMP * before || siemens < before / JUMP)) return [volts - RAMP_STEP_VOLTS, volts]
    before = siemens
  }
  return null
}
