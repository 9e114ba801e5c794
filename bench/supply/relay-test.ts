import type { SweepInstrument, SweepSurroundings } from './sweep-steps'

export interface RelayTestPlan {
  /** V of smooth DC up to which it is tried. */
  readonly mostVolts: number
  /** V r.m.s. of the running supply, at which it must stay at rest. */
  readonly acVolts: number
  readonly hertz: number
  readonly ampsLimit: number
  /** Times pull-in and drop-out are read. */
  readonly repeats: number
}

/** What somebody notices where the current shows nothing: it clicks, it is silent, or what it switches is on from the start. */
export type HeardOfRelay = 'clicks' | 'silent' | 'always-on'

/** V between which it happened; null when it did not. */
export type VoltBracket = readonly [below: number, above: number] | null

/** What the test of a relay tells, in the order it happens. */
export type RelayTestEvent =
  | { readonly kind: 'doing'; readonly what: string; readonly done: number; readonly of: number }
  | {
      readonly kind: 'pull-in' | 'drop-out'
      readonly repeat: number
      readonly between: VoltBracket
      readonly volts: number
      readonly amps: number
    }
  /** Nothing to be seen in the current up to the most volts: somebody is asked what they hear. */
  | { readonly kind: 'asks'; readonly volts: number; readonly amps: number }
  | { readonly kind: 'heard'; readonly what: HeardOfRelay; readonly volts: number; readonly amps: number }
  /** Volts of AC at which it pulled in although it must not; null when it stayed at rest. */
  | { readonly kind: 'on-ac'; readonly between: VoltBracket; readonly volts: number; readonly amps: number }
  | { readonly kind: 'stopped'; readonly why: 'short' | 'open'; readonly sentence: string }

/** DC up to the nominal volts, AC at three quarters of them, three times. */
export function usualRelayTest(nominalVolts: number): RelayTestPlan {
  return { mostVolts: nominalVolts, acVolts: Math.round(nominalVolts * 0.75), hertz: 50, ampsLimit: 2, repeats: 3 }
}

const COARSE_VOLTS = 0.5
const FINE_VOLTS = 0.1
/** Its flux follows slowly: a step waits for it. */
const STEP_SECONDS = 0.3
const OFF_SECONDS = 0.4
const ASK_AGAIN_SECONDS = 0.25
const SHORT_SHARE = 0.6
const OPEN_AMPS = 0.002
/** What it switches comes in or goes out: the admittance changes at least so many times. */
const JUMP = 1.35

interface Look {
  readonly volts: number
  readonly amps: number
  readonly siemens: number
}

/**
 * Reads at which volts of smooth DC a relay pulls in and lets go, from what it switches coming in and going out of the
 * current, and whether the AC that runs the train leaves it at rest. The motors' leads are off meanwhile.
 *
 * @param heard what somebody noticed since `askAnew`, once they have said it
 * @returns what happens, as it happens; output off at every end
 */
export async function* relayTest(
  supply: SweepInstrument,
  plan: RelayTestPlan,
  { pause }: Pick<SweepSurroundings, 'pause'>,
  heard: () => HeardOfRelay | null,
  askAnew: () => void,
): AsyncGenerator<RelayTestEvent> {
  const total = 2 * plan.repeats + 1
  const look = async (volts: number): Promise<Look> => {
    await supply.setVolts(volts)
    await pause(STEP_SECONDS)
    const [seen, amps] = [Math.abs(await supply.measureVolts()), Math.abs(await supply.measureAmps())]
    return { volts: seen, amps, siemens: amps / Math.max(seen, 0.05) }
  }
  try {
    await supply.setAmpsLimit(plan.ampsLimit)
    await supply.reverse(false)
    await supply.setHertz(0)
    let [from, fallFrom] = [COARSE_VOLTS, Number.POSITIVE_INFINITY]
    let step = COARSE_VOLTS
    for (let repeat = 1; repeat <= plan.repeats; repeat++) {
      yield { kind: 'doing', what: `Volts rise, ${repeat} of ${plan.repeats}`, done: 2 * (repeat - 1), of: total }
      await supply.output(false)
      await pause(OFF_SECONDS)
      await supply.setVolts(from)
      await supply.output(true)
      const rise = await watchFor(look, from, plan.mostVolts, step, (before, now) => now > JUMP * before)
      if (rise.stopped) return yield rise.stopped
      if (rise.between === null) {
        yield* askWhatIsHeard(rise.last, look, plan.mostVolts, pause, heard, askAnew)
        return
      }
      if (step === FINE_VOLTS)
        yield { kind: 'pull-in', repeat, between: rise.between, volts: rise.last.volts, amps: rise.last.amps }
      yield { kind: 'doing', what: `Volts fall, ${repeat} of ${plan.repeats}`, done: 2 * repeat - 1, of: total }
      const fall = await watchFor(
        look,
        Math.min(rise.between[1], fallFrom),
        0,
        -step,
        (before, now) => now < before / JUMP,
      )
      if (fall.stopped && fall.stopped.kind === 'stopped' && fall.stopped.why === 'short') return yield fall.stopped
      const dropOut: RelayTestEvent = {
        kind: 'drop-out',
        repeat,
        between: fall.between,
        volts: fall.last.volts,
        amps: fall.last.amps,
      }
      if (fall.between === null) {
        // It hangs: there is nothing more to read until it has been freed.
        if (step !== FINE_VOLTS)
          yield { kind: 'pull-in', repeat, between: rise.between, volts: rise.last.volts, amps: rise.last.amps }
        yield dropOut
        return
      }
      if (step === FINE_VOLTS) yield dropOut
      else {
        // The first time only shows where to look: from here on in fine steps.
        from = Math.max(FINE_VOLTS, rise.between[0] - COARSE_VOLTS)
        fallFrom = fall.between[1] + COARSE_VOLTS
        step = FINE_VOLTS
        repeat = 0
      }
    }
    yield { kind: 'doing', what: `On AC, up to ${plan.acVolts} V`, done: total - 1, of: total }
    await supply.output(false)
    await pause(OFF_SECONDS)
    await supply.setHertz(plan.hertz)
    await supply.setVolts(COARSE_VOLTS)
    await supply.output(true)
    const onAc = await watchFor(look, COARSE_VOLTS, plan.acVolts, COARSE_VOLTS, (before, now) => now > JUMP * before)
    if (onAc.stopped) return yield onAc.stopped
    yield { kind: 'on-ac', between: onAc.between, volts: onAc.last.volts, amps: onAc.last.amps }
  } finally {
    await supply.output(false).catch(() => {})
    await supply.setHertz(0).catch(() => {})
  }
}

/** Steps the volts until the admittance jumps, the end is reached or the supply gives way. */
async function watchFor(
  look: (volts: number) => Promise<Look>,
  from: number,
  to: number,
  step: number,
  jumped: (before: number, now: number) => boolean,
): Promise<{ readonly between: VoltBracket; readonly last: Look; readonly stopped: RelayTestEvent | null }> {
  let before = await look(from)
  const count = Math.floor(Math.abs(to - from) / Math.abs(step) + 1e-9)
  for (let index = 1; index <= count; index++) {
    // Falling, it ends at the least the supply gives, not at nothing.
    const [last, volts] = [index - 1, index].map((done) =>
      Math.max(FINE_VOLTS, Number((from + done * step).toFixed(3))),
    ) as [number, number]
    if (volts === last) break
    const now = await look(volts)
    if (now.volts < SHORT_SHARE * volts)
      return {
        between: null,
        last: now,
        stopped: {
          kind: 'stopped',
          why: 'short',
          sentence: `A short: at ${volts.toFixed(1)} V the supply is at its limit with ${now.amps.toFixed(2)} A. The output is off.`,
        },
      }
    if (now.amps < OPEN_AMPS && volts >= 1)
      return {
        between: null,
        last: now,
        stopped: {
          kind: 'stopped',
          why: 'open',
          sentence: 'Nothing flows: a clamp is off, or the pickup does not connect. The output is off.',
        },
      }
    if (jumped(before.siemens, now.siemens))
      return { between: step > 0 ? [last, volts] : [volts, last], last: now, stopped: null }
    before = now
  }
  return { between: null, last: before, stopped: null }
}

/** Coil, contact and load look alike in the current when nothing comes in: an ear tells them apart. */
async function* askWhatIsHeard(
  last: Look,
  look: (volts: number) => Promise<Look>,
  mostVolts: number,
  pause: SweepSurroundings['pause'],
  heard: () => HeardOfRelay | null,
  askAnew: () => void,
): AsyncGenerator<RelayTestEvent> {
  askAnew()
  let reading = last
  let low = false
  for (let what = heard(); ; what = heard()) {
    if (what !== null) return yield { kind: 'heard', what, volts: reading.volts, amps: reading.amps }
    yield { kind: 'asks', volts: reading.volts, amps: reading.amps }
    await pause(ASK_AGAIN_SECONDS)
    // Up and down again and again, so that there is something to hear.
    low = !low
    reading = await look(low ? FINE_VOLTS : mostVolts)
  }
}
