import { DrivenMotor } from '../casualty/driven-motor'
import { SeededRandom } from '../casualty/random'
import { Circuit, offTheTrack, ohmsBetween } from '../../core/engine/circuit'
import type { ComponentState, EngineDescription } from '../../core/engine/description-schema'
import { driveTrain } from '../../core/engine/drive-train'
import { runningPositions } from '../../core/engine/pickup-map'
import { operatingPoint } from '../../core/engine/operating-point'
import type { BenchTest } from '../../core/diagnosis/places/bench-tests'
import { appearances } from './appearances'
import { OPEN_OHMS, TrialRuns, VOLTS, type RunRecord } from './trial-runs'
import type { TrueFault } from './true-faults'

/** A programming track feeds so much and gives way there; the answer is a pulse through the motor (NMRA S-9.2.3). */
const PROGRAMMING_VOLTS = 12
const PROGRAMMING_LIMIT_AMPS = 0.25
const ANSWER_AMPS = 0.06
/** A decoder draws little: it wakes behind a contact no engine would run by, Ω from its rail; from memory. */
const WAKING_OHMS = 200
/** Below this share of a sound engine's volts there are none to speak of; above the other as many as there should be. */
const NOTHING_SHARE = 0.08
const FULL_SHARE = 0.8
/** Below this share of its speed a motor stands, for all one sees. */
const STANDS = 0.04
/** Of the usual current: what is below is called little. Judged. */
const LITTLE = 0.4
/** Hands slip, eyes tire: how often an outcome is noted wrongly. */
const MISREAD = 0.025

/** Somebody at the bench who makes tests on a casualty and says how they came out. Knows nothing of what is likely. */
export class BenchHand {
  private readonly random: SeededRandom
  private triedWith: readonly TrueFault[] | null = null
  private turnsOn: string | null = null
  private readonly signs = new Map<string, boolean>()
  private readonly runs: TrialRuns

  /**
   * @param description the engine
   * @param faults what is wrong with it
   * @param seed of everything left to chance
   * @param bare the same engine without its decoder; the same where it has none
   */
  constructor(
    private readonly description: EngineDescription,
    private faults: readonly TrueFault[],
    seed: number,
    bare: EngineDescription = description,
  ) {
    this.random = new SeededRandom(seed * 7919 + 17)
    this.runs = new TrialRuns(description, bare, seed)
  }

  get left(): readonly TrueFault[] {
    return this.faults
  }

  /** Does a remedy at a place; says what it mended. */
  mend(remedy: string, placeId: string, success: number): TrueFault[] {
    const mended = this.faults.filter((fault) => this.mends(fault, remedy, placeId))
    if (mended.length === 0 || this.random.next() > success) return []
    this.faults = this.faults.filter((fault) => !mended.includes(fault))
    return mended
  }

  /** Another motor takes everything inside the old one with it. */
  mends(fault: TrueFault, remedy: string, placeId: string): boolean {
    if (remedy === 'exchange-motor')
      return ['brushes', 'brush-springs', 'gaps', 'winding', 'winding-insulation', 'motor'].includes(fault.place.role)
    return fault.place.id === placeId && fault.remedies.includes(remedy)
  }

  /** @returns null where it cannot be done: it is to be judged on a machine that turns, and this one does not */
  make({ test, place }: BenchTest): string | null {
    if (test.needsRunning && this.runsOn() === null) return null
    const outcomes = test.outcomes.map((outcome) => outcome.id)
    const seen = this.see(test.id, test.reading, place)
    if (this.random.next() < MISREAD) return this.random.pick(outcomes)
    return outcomes.includes(seen) ? seen : (outcomes[0] as string)
  }

  private see(id: string, reading: BenchTest['test']['reading'], place: BenchTest['place']): string {
    switch (reading.kind) {
      case 'motion': {
        const rocked = reading.feed === 'track-rocked'
        return this.motion(reading.feed, rocked)
      }
      case 'current': {
        const run = this.record(reading.feed, false)
        const sound = this.runs.sound(reading.feed)
        if (run.limitedShare > 0.5 || run.meanAmps > 1.8 * sound.meanAmps) return 'high'
        if (run.meanAmps < 0.5 * reading.resolutionAmps) return 'nothing'
        if (run.deadShare > 0.06 && run.deadShare < 0.97) return 'flickers'
        if (run.meanAmps > 1.3 * sound.meanAmps) return 'raised'
        return run.meanAmps < LITTLE * sound.meanAmps ? 'little' : 'usual'
      }
      case 'direction': {
        const feed = this.runsOn() ?? 'track'
        return this.record(feed, false).way * this.runs.sound(feed).way < 0 ? 'wrong' : 'right'
      }
      case 'lamp': {
        const [lamp = ''] = place.components
        const run = this.record('track', false).lamps[lamp]
        const sound = this.runs.sound('track').lamps[lamp]
        if (!run || !sound) throw new Error(`The casualty has no lamp “${lamp}”.`)
        const share = run.share / Math.max(1e-9, sound.share)
        if (run.darkShare > 0.08 && run.darkShare < 0.95) return 'flickers'
        return share > 0.5 ? 'bright' : share > 0.04 ? 'dim' : 'dark'
      }
      case 'functions':
        return this.functions()
      case 'motor-volts':
        return this.motorVolts()
      case 'wheels-turn':
        return this.wheelsTurn(place.role === 'driven-wheels' ? place.truck : null)
      case 'rail-ohms':
        return this.railOhms()
      case 'motor-ohms':
        return this.motorOhms()
      case 'wheel-continuity':
        return this.continuity(place.components)
      case 'component-ohms':
        return this.across(place.components, reading.expect)
      case 'programming':
        return this.program(reading.reads)
      case 'signs':
        return this.look(id, place, place.role === 'engine' || place.components.length === 0)
    }
  }

  private motion(feed: string, rocked: boolean): string {
    const run = this.record(feed, rocked)
    const sound = this.runs.sound(feed)
    const shares = this.shares(run, sound)
    const slowest = Math.min(...shares)
    if (run.limitedShare > 0.5 && slowest < 0.5) return 'trips'
    if (shares.every((share) => share < STANDS)) return 'stands'
    // Half of it stands: it drags itself along.
    return slowest < 0.5 || run.slowShare > 0.07 ? 'falters' : 'runs'
  }

  /** Where a supply has to be put for it to turn, nothing taken off; null where it turns nowhere. Tried once after each repair. */
  private runsOn(): string | null {
    if (this.triedWith !== this.faults) [this.triedWith, this.turnsOn] = [this.faults, this.findFeed()]
    return this.turnsOn
  }

  private findFeed(): string | null {
    const feeds = ['track', ...(this.runs.decoded ? ['dcc-track'] : []), 'wheels', 'pickups']
    return (
      feeds.find((feed) =>
        this.shares(this.record(feed, false), this.runs.sound(feed)).some((share) => share >= STANDS),
      ) ?? null
    )
  }

  /** Of each motor's usual speed. */
  private shares(run: RunRecord, sound: RunRecord): number[] {
    return run.meanSpeeds.map((speed, motor) => speed / Math.max(1e-9, sound.meanSpeeds[motor] as number))
  }

  /** Each time it is run anew, and what comes and goes does so anew. */
  private record(feed: string, rocked: boolean): RunRecord {
    return this.runs.simulate(
      feed,
      this.faults.flatMap((fault) => (rocked ? (fault.rocked ?? fault.physics) : fault.physics)),
      this.toDecoder,
    )
  }

  private get toDecoder(): ReadonlySet<TrueFault['decoder']> {
    return new Set(this.faults.map((fault) => fault.decoder))
  }

  /** What the components are in, at one moment. */
  private momentStates(): Record<string, ComponentState> {
    const states: Record<string, ComponentState> = {}
    for (const fault of this.faults.flatMap((entry) => entry.physics)) {
      if (fault.kind === 'component')
        states[fault.component] =
          fault.state === 'intermittent' ? (this.random.next() < 0.35 ? 'open' : 'good') : fault.state
      if (fault.kind === 'film' && this.random.next() < fault.brokenShare) states[fault.component] = 'open'
      if (fault.kind === 'open-coil') states[this.description.motors[0]?.armature ?? ''] = 'good'
    }
    return states
  }

  private motorVolts(): string {
    // The circuit below knows nothing of single coils: what one takes from the armature, by the supply giving way or in a field before it, it takes from the voltmeter too.
    if (this.armatureDamaged) {
      const run = this.record('track', false)
      const share = run.armatureVolts / this.runs.sound('track').armatureVolts
      if (run.deadShare < 0.5 && share > NOTHING_SHARE && share < FULL_SHARE) return 'low'
    }
    const circuit = new Circuit(this.description)
    const [plus, minus] = this.runs.clips('terminals')
    const read = (states: Record<string, ComponentState>): number => {
      const point = operatingPoint(
        circuit,
        {
          states,
          ...(this.runs.decoded
            ? {
                switches: {
                  ...runningPositions(this.description),
                  decoder: this.toDecoder.has('dead') || this.toDecoder.has('no-dc') ? 'silent' : 'straight',
                },
              }
            : {}),
        },
        { ...this.description.rails, volts: VOLTS, ohms: 0.1, limitAmps: 2 },
      )
      return Math.abs((point.nodeVolts[plus] ?? 0) - (point.nodeVolts[minus] ?? 0))
    }
    const sound = read({})
    const shares = Array.from({ length: 10 }, () => read(this.momentStates()) / sound)
    const [low, high] = [Math.min(...shares), Math.max(...shares)]
    if (high - low > 0.3) return 'jumps'
    return low > FULL_SHARE ? 'full' : high > NOTHING_SHARE ? 'low' : 'none'
  }

  /** Lamps by their functions: each has its current, and the decoder has its own and hears. */
  private functions(): string {
    const { lamps } = this.record('dcc-track', false)
    const sound = this.runs.sound('dcc-track').lamps
    const reached = Object.entries(sound).every(([lamp, { share }]) => (lamps[lamp]?.share ?? 0) > 0.04 * share)
    const { rails, decoder } = this.description
    const circuit = new Circuit(this.description)
    const states = this.momentStates()
    const awake = (['plus', 'minus'] as const).every(
      (pole) => ohmsBetween(circuit, { states }, rails[pole], decoder?.[pole] ?? rails[pole]) < WAKING_OHMS,
    )
    const heard = !this.toDecoder.has('dead') && !this.toDecoder.has('another-address')
    return reached && awake && heard ? 'lights' : 'dark'
  }

  /** Asked on the programming track. */
  private program(reads: 'anything' | 'dc-operation' | 'address'): string {
    const circuit = new Circuit(this.description)
    const { plus, minus } = this.description.rails
    const states = this.momentStates()
    const amps = (decoder: string): number =>
      PROGRAMMING_VOLTS /
      Math.max(
        0.1,
        ohmsBetween(circuit, { states, switches: { ...runningPositions(this.description), decoder } }, plus, minus),
      )
    const waiting = amps('silent')
    const answers =
      !this.toDecoder.has('dead') && waiting < PROGRAMMING_LIMIT_AMPS && amps('straight') - waiting >= ANSWER_AMPS
    if (!answers) return 'silent'
    if (reads === 'anything') return 'answers'
    return reads === 'dc-operation'
      ? this.toDecoder.has('no-dc')
        ? 'dc-off'
        : 'dc-on'
      : this.toDecoder.has('another-address')
        ? 'another'
        : 'as-called'
  }

  private wheelsTurn(truck: string | null): string {
    const { motors } = this.description
    const { wheels } = driveTrain(this.description)
    const looked = this.description.wheelSets.filter(
      (wheelSet, index) => wheels[index]?.driven && (truck === null || wheelSet.truck === truck),
    )
    const slips = new Set(
      this.faults.flatMap((fault) =>
        fault.physics.flatMap((entry) => (entry.kind === 'slipping-link' ? [entry.link] : [])),
      ),
    )
    const feed = this.runsOn() ?? 'track'
    const shares = this.shares(this.record(feed, false), this.runs.sound(feed))
    const standing = new Set(
      shares.some((share) => share >= STANDS)
        ? motors.filter((_, motor) => (shares[motor] as number) < STANDS).map(({ id }) => id)
        : [],
    )
    const { turning } = driveTrain(this.description, slips)
    const left = looked.filter(
      ({ rotor }) => turning.has(rotor) && !standing.has(turning.get(rotor)?.motor ?? ''),
    ).length
    return left === 0 ? 'none' : left < looked.length ? 'some' : 'all'
  }

  private steady(read: (states: Record<string, ComponentState>) => number): {
    readonly value: number
    readonly jumps: boolean
  } {
    const values = Array.from({ length: 8 }, () => Math.min(1e7, read(this.momentStates())))
    const sorted = [...values].sort((first, second) => first - second)
    return { value: sorted[4] as number, jumps: (sorted[7] as number) > 20 * Math.max(1, sorted[0] as number) }
  }

  private railOhms(): string {
    const circuit = new Circuit(this.description)
    const { plus, minus } = this.description.rails
    const sound = ohmsBetween(circuit, {}, plus, minus)
    const { value: ofCircuit, jumps } = this.steady((states) => ohmsBetween(circuit, { states }, plus, minus))
    const value = ofCircuit * this.windingTimes()
    if (jumps) return 'jumps'
    return value > OPEN_OHMS ? 'open' : value < 0.5 * sound ? 'low' : 'usual'
  }

  private get armatureDamaged(): boolean {
    return this.faults.some((fault) =>
      fault.physics.some(({ kind }) => kind === 'open-coil' || kind === 'shorted-coil' || kind === 'carbon-bridge'),
    )
  }

  /** Seen at the brushes, with the armature wherever it came to rest: against the same armature sound. */
  private windingTimes(): number {
    const physics = this.faults.flatMap((fault) => fault.physics)
    const [motor] = this.description.motors
    if (!motor || !this.armatureDamaged) return 1
    const angle = this.random.between(0, 2 * Math.PI)
    const [damaged, sound] = [physics, []].map((wrong) => {
      const { armature } = new DrivenMotor(motor, this.description, wrong, driveTrain(this.description), 1, 0)
      const amps = armature.step(angle, 0, 1, { volts: 1, ohms: 10 }, Number.POSITIVE_INFINITY, 0)
      return armature.volts / amps
    }) as [number, number]
    return damaged / sound
  }

  private motorOhms(): string {
    const circuit = new Circuit(this.description)
    const [plus, minus] = this.runs.clips('terminals')
    const off = offTheTrack(this.description)
    const sound = ohmsBetween(circuit, { states: off }, plus, minus)
    const { value } = this.steady((states) => ohmsBetween(circuit, { states: { ...off, ...states } }, plus, minus))
    const share = (value * this.windingTimes()) / sound
    return value > OPEN_OHMS ? 'open' : share > 1.2 ? 'high' : share < 0.6 ? 'low' : 'usual'
  }

  /** Every wheel, roller or shoe of a place to the lead it feeds; what leads nowhere by its make is left out. */
  private continuity(treads: readonly string[]): string {
    const { description } = this
    const circuit = new Circuit(description)
    const off = offTheTrack(description)
    const results = treads.flatMap((id): boolean[] => {
      const tread = description.components.find((component) => component.id === id)
      const pole = tread && this.runs.poles.get(tread.to)
      const end = pole && this.runs.leads[pole]
      if (
        !tread ||
        !end ||
        tread.faults.length === 0 ||
        ohmsBetween(circuit, { states: off }, tread.to, end) > OPEN_OHMS
      )
        return []
      const states = this.momentStates()
      // The probe stands on the film; now and then it scratches through.
      const filmed = (states[id] === 'open' || states[id] === 'high-resistance') && this.random.next() < 0.75
      return [!filmed && ohmsBetween(circuit, { states: { ...states, ...off } }, tread.to, end) < 40]
    })
    const closed = results.filter(Boolean).length
    return closed === results.length ? 'all' : closed === 0 ? 'none' : 'some'
  }

  private across(components: readonly string[], expect: 'closed' | 'open'): string {
    const physics = this.faults.flatMap((fault) => fault.physics)
    const states = physics.flatMap((fault) =>
      fault.kind === 'component' && components.includes(fault.component)
        ? [fault.state]
        : fault.kind === 'film' && components.includes(fault.component)
          ? ['intermittent' as const]
          : [],
    )
    if (expect === 'open') return states.includes('shorted') ? 'wrong' : 'as-it-should'
    if (states.includes('open') || states.includes('high-resistance'))
      return this.random.next() < 0.96 ? 'wrong' : 'as-it-should'
    if (!states.includes('intermittent')) return 'as-it-should'
    const luck = this.random.next()
    return luck < 0.5 ? 'jumps' : luck < 0.75 ? 'wrong' : 'as-it-should'
  }

  /** Whether this machine's fault gives this sign: it does or it does not, however often one looks. */
  private shows(sign: string, chance: number): boolean {
    const known = this.signs.get(sign)
    if (known !== undefined) return known
    const shown = this.random.next() < chance
    this.signs.set(sign, shown)
    return shown
  }

  private look(id: string, place: BenchTest['place'], everything: boolean): string {
    const appearance = appearances[id]
    if (!appearance) throw new RangeError(`Nobody has written down what “${id}” looks like.`)
    let seen = appearance.sound
    for (const [outcome, chance] of appearance.stray) if (this.random.next() < chance) seen = outcome
    // Brushes, springs, commutator and armature of one motor are looked at together; its leads and insulation are not.
    const inside = place.role !== 'leads' && place.role !== 'other-insulation'
    // A switch is stepped as a whole, with the coil that moves it.
    const stepped = (fault: TrueFault): boolean => place.role === 'sequence' && fault.place.role === 'sequence-coil'
    const here = (fault: TrueFault): boolean =>
      everything ||
      fault.place.id === place.id ||
      stepped(fault) ||
      (inside && fault.place.motor !== null && fault.place.motor === place.motor)
    for (const [name, outcome, chance] of appearance.shows) {
      if (
        this.faults.some((fault) => fault.name === name && here(fault)) &&
        this.shows(`${id}/${name}/${outcome}`, chance)
      )
        seen = outcome
    }
    return seen
  }
}
