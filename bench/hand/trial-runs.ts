import { Casualty } from '../casualty/casualty'
import type { CasualtyFault } from '../casualty/faults'
import { Circuit, offTheTrack, ohmsBetween } from '../../core/engine/circuit'
import type { EngineDescription } from '../../core/engine/description-schema'
import { polesOf, type Pole } from '../../core/engine/poles'
import type { TrueFault } from './true-faults'

/** What a run looked like. */
export interface RunRecord {
  /** Of each motor. */
  readonly meanSpeeds: readonly number[]
  /** Share of the time a motor that turns at all turned at less than half its usual speed; the worst motor's. */
  readonly slowShare: number
  readonly meanAmps: number
  /** Across the first motor's armature. */
  readonly armatureVolts: number
  /** Share of the time without current, of those with any at all. */
  readonly deadShare: number
  readonly limitedShare: number
  /** By lamp: its mean power against its rating, and how much of the time it is dark. */
  readonly lamps: Readonly<Record<string, { readonly share: number; readonly darkShare: number }>>
  readonly way: number
}

export const VOLTS = 9
/** A three-rail machine is run on its transformer. */
const AC_VOLTS = 14
const AC_HERTZ = 50
const STEP = 2e-4
/** Every so many steps the eye takes notice; five of these are one period of the mains, over which lamp and meter go on regardless. */
const SEEN_EVERY = 20
const PERIOD = 5
const SETTLE_SECONDS = 0.25
const RUN_SECONDS = 1.6
/** From here on a meter shows nothing. */
export const OPEN_OHMS = 1e4

/** Runs of a simulated engine, one after the other, each with a seed of its own: what is fed where, and what came of it. */
export class TrialRuns {
  /** To which pole of the motor each point of the circuit leads, through what always conducts. */
  readonly poles: ReadonlyMap<string, Pole>
  /** Where the motor's leads begin; behind a decoder, its own rail leads. */
  readonly leads: Readonly<Record<Pole, string>>
  private readonly feeds: ReturnType<typeof feedsOf>
  private count = 0
  private readonly healthy = new Map<string, RunRecord>()

  /**
   * @param description the engine
   * @param bare the same engine without its decoder; the same where it has none
   * @param seed of everything left to chance
   */
  constructor(
    private readonly description: EngineDescription,
    private readonly bare: EngineDescription,
    private readonly seed: number,
  ) {
    this.poles = polesOf(description)
    const [motor] = description.motors
    const begin = (pole: Pole): string =>
      description.decoder?.[pole] ?? description.components.find(({ id }) => id === motor?.feeds[pole])?.from ?? ''
    this.leads = { plus: begin('plus'), minus: begin('minus') }
    this.feeds = feedsOf(description, this.leads, this.poles)
  }

  get decoded(): boolean {
    return this.bare !== this.description
  }

  /** The same engine with nothing wrong. */
  sound(feed: string): RunRecord {
    const known = this.healthy.get(feed)
    if (known) return known
    const record = this.simulate(feed, [])
    this.healthy.set(feed, record)
    return record
  }

  simulate(
    feed: string,
    physics: readonly CasualtyFault[],
    decoder: ReadonlySet<TrueFault['decoder']> = new Set(),
  ): RunRecord {
    // Past the decoder: its rail leads joined to the motor's, so that the machine is what it was before.
    const bypassed = feed === 'decoder-bypassed'
    const wired = bypassed ? this.bare : this.description
    const there = physics
      .map((fault) =>
        bypassed && 'component' in fault ? { ...fault, component: this.pastDecoder(fault.component) } : fault,
      )
      .filter(
        (fault) =>
          !bypassed ||
          !('component' in fault) ||
          wired.components.some(
            ({ id, faults }) => id === fault.component && (faults as readonly string[]).includes('open'),
          ),
      )
    const casualty = new Casualty(wired, there, { seed: this.seed + 1 + 101 * this.count++, onStand: true })
    if (!bypassed && this.decoded)
      casualty.setSwitch(
        'decoder',
        decoder.has('dead') || decoder.has(feed === 'dcc-track' ? 'another-address' : 'no-dc') ? 'silent' : 'straight',
      )
    const [plus, minus] = this.clips(feed)
    const ac = wired.power === 'ac'
    casualty.apply({
      plus,
      minus,
      volts: ac ? AC_VOLTS : VOLTS,
      ohms: 0.1,
      limitAmps: ac ? 4 : 2,
      hertz: ac ? AC_HERTZ : 0,
    })
    casualty.run(SETTLE_SECONDS, STEP)
    const speeds: number[][] = wired.motors.map(() => [])
    const eachAmps: number[] = []
    const eachLamp: Record<string, number[]> = {}
    let armatureVolts = 0
    let limited = 0
    let count = 0
    casualty.run(RUN_SECONDS, STEP, () => {
      if (count++ % SEEN_EVERY !== 0) return
      const now = casualty.now
      for (const [motor, speed] of now.radPerSecond.entries()) speeds[motor]?.push(speed)
      eachAmps.push(Math.abs(now.supplyAmps))
      armatureVolts += Math.abs(casualty.armatures[0]?.volts ?? 0)
      for (const [lamp, power] of Object.entries(now.lamps)) (eachLamp[lamp] ??= []).push(power)
      if (now.limited) limited++
    })
    const seen = (list: readonly number[]): readonly number[] =>
      ac ? list.slice(PERIOD).map((_, at) => mean(list.slice(at, at + PERIOD))) : list
    const amps = seen(eachAmps)
    const meanSpeeds = speeds.map((each) => mean(each.map(Math.abs)))
    const share = (list: readonly number[], test: (value: number) => boolean): number =>
      list.filter(test).length / list.length
    return {
      meanSpeeds,
      slowShare: Math.max(
        ...speeds.map((each, motor) => share(each, (speed) => Math.abs(speed) < 0.5 * (meanSpeeds[motor] as number))),
      ),
      meanAmps: mean(amps),
      armatureVolts: armatureVolts / eachAmps.length,
      deadShare: share(amps, (value) => value < 0.002),
      limitedShare: limited / eachAmps.length,
      lamps: Object.fromEntries(
        Object.entries(eachLamp).map(([lamp, powers]) => {
          const power = seen(powers)
          return [lamp, { share: mean(power), darkShare: share(power, (value) => value < 0.02) }]
        }),
      ),
      way: Math.sign(mean(speeds[0] as number[])) || 1,
    }
  }

  /** What is joined past the decoder still goes through the motor's own lead. */
  private pastDecoder(component: string): string {
    const [lead, joined] = [this.description.motors[0]?.feeds, this.bare.motors[0]?.feeds]
    if (component === lead?.plus) return joined?.plus ?? component
    return component === lead?.minus ? (joined?.minus ?? component) : component
  }

  /** Where a person puts the two clips. */
  clips(feed: string): readonly [string, string] {
    const { plus, minus } = this.description.rails
    const [first, second] = this.feeds[feed] ?? [plus, minus]
    return [first ?? plus, second ?? minus]
  }
}

/** By feed: the nodes of both clips. */
function feedsOf(
  description: EngineDescription,
  leads: Readonly<Record<Pole, string>>,
  poles: ReadonlyMap<string, Pole>,
): Readonly<Record<string, readonly [string | undefined, string | undefined]>> {
  const [motor] = description.motors
  const component = (id: string | undefined) => description.components.find((entry) => entry.id === id)
  const at = (stage: string, pole: Pole) =>
    description.nodes.filter((node) => node.stage === stage && poles.get(node.id) === pole)
  // On a wheel that leads to the motor: others of its side may be insulated from everything but the rail.
  const circuit = new Circuit(description)
  const carrying = (pole: Pole): string | undefined =>
    at('tread', pole).find(
      ({ id }) => ohmsBetween(circuit, { states: offTheTrack(description) }, id, leads[pole]) < OPEN_OHMS,
    )?.id
  return {
    wheels: [carrying('plus'), carrying('minus')],
    pickups: [at('pickup', 'plus')[0]?.id, at('pickup', 'minus')[0]?.id],
    'motor-leads': [component(motor?.feeds.plus)?.from, component(motor?.feeds.minus)?.from],
    terminals: [component(motor?.feeds.plus)?.to, component(motor?.feeds.minus)?.to],
    brushes: [component(`${motor?.id}.brush-plus`)?.from, component(`${motor?.id}.brush-minus`)?.from],
  }
}

function mean(list: readonly number[]): number {
  return list.reduce((sum, value) => sum + value, 0) / list.length
}
