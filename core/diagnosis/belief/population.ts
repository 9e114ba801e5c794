import { seededUniform } from '../../measure/seeded-random'
import type { TestFinding } from '../history'
import { Evidence } from './evidence'
import type { Option, Slots } from './slots'
import { SetWeigher, type Change, type WeighedSet } from './weighed-sets'
import { worth } from './worth'

/** So many sets. */
const SETS = 80
/** As the findings count more and more the sets stay worth this share of their number (Kish). */
const KEPT_WORTH = 0.5
/** Findings of one state are taken in together as long as the sets stay worth this share. */
const KEPT_TOGETHER = 0.15
/** Changes tried on each set at every step. */
const TRIED = 16
/** While the findings hardly count every change is taken, and little is to be gained by it: then so large a part of them. */
const LEAST_TRIED = 0.25
/** When a state is done with, so many times as many are tried again, and each time the sets are noted. */
const TRIED_AGAIN = 12
const NOTED = 4
/** Of the changes tried, so many exchange one thing for another, and so many bring or take away a fault wherever it can be. */
const EXCHANGED = 0.3
const EVERYWHERE = 0.15
/** A change is thought of by how undecided the sets are of it; each of them a little. */
const EVERY_ONE = 0.2
const AS_BEFORE = 0.3
/** A set in which something seen was missing is not what there is. */
const IMPOSSIBLE = -50

interface Particle {
  readonly set: WeighedSet
  /** Natural logarithm of what the complaint says of it. */
  readonly sound: number
}

/** Sets of faults as likely as a history leaves them, all of the same weight. */
export interface Population {
  readonly evidence: Evidence
  readonly particles: readonly SampledSet[]
  /** As they were at several moments of being changed at random: more of them say the same more evenly. */
  readonly sets: readonly SampledSet[]
}

/** A set of them, without the rows of the circuit it was weighed by: those are let go of. */
export interface SampledSet {
  /** By slot its option, −1 where the suspect is absent. */
  readonly core: Int16Array
  /** Natural logarithm of the chance of all findings with it, and by unit of the evidence. */
  readonly log: number
  readonly logs: Float64Array
  /** Natural logarithm of what the complaint says of it. */
  readonly sound: number
}

/**
 * The sets after all that was noted before anything was done. They begin as likely as they were before; then the
 * findings are let count little by little, at every step sets that fit badly give way to copies of those that fit, and
 * each is changed at random so that its chance is kept (sequential Monte Carlo with tempering: Neal 2001; Del Moral,
 * Doucet and Jasra 2006). Always the same for the same findings.
 *
 * @param evidence the findings
 */
export function populationOf(evidence: Evidence): Population {
  const walk = new Walk(evidence, 1)
  let particles: readonly Particle[] = Array.from({ length: SETS }, () => walk.drawnBefore())
  for (let share = 0; share < 1;) {
    const logs = particles.map(({ set, sound }) => set.log + sound)
    const next = nextShare(logs, share)
    particles = walk.resampled(
      particles,
      logs.map((log) => log * (next - share)),
    )
    share = next
    walk.think(particles)
    const tries = Math.ceil(TRIED * Math.max(LEAST_TRIED, share))
    particles = particles.map((particle) => walk.moved(particle, share, tries))
  }
  return settled(evidence, walk, particles)
}

/**
 * The sets after what was done and noted in one more state, from those of the state before (Chopin 2002).
 *
 * @param before the sets of the state before
 * @param evidence all findings and events, those of the new state among them
 * @param state the new one
 */
export function populationAfter(before: Population, evidence: Evidence, state: number): Population {
  const { engine, slots, noted } = evidence
  const known = noted.filter((finding) => finding.state !== state)
  const start = new Evidence(engine, slots, known, before.evidence)
  const walk = new Walk(start, 2)
  const carried = before.particles.map((particle) => {
    const { core, log } = walk.goneOn(before.evidence, particle.core)
    const now = walk.weighed(core)
    return { now, log: log + now.set.log - particle.log + now.sound - particle.sound }
  })
  const fresh = noted
    .filter((finding) => finding.state === state)
    .sort(
      (one, other) =>
        engine.indexOfTest(one.test) - engine.indexOfTest(other.test) || (one.outcome < other.outcome ? -1 : 1),
    )
  const particles = withFindings(start, takenIn(walk, carried), fresh)
  const last = new Walk(evidence, 3)
  return settled(
    evidence,
    last,
    particles.map(({ set }) => last.weighed(set.core)),
  )
}

function settled(evidence: Evidence, walk: Walk, weighed: readonly Particle[]): Population {
  let particles = weighed.map((particle) => walk.withFreeDrawn(particle))
  walk.think(particles)
  const noted = Array.from({ length: NOTED }, (): readonly SampledSet[] => {
    particles = particles.map((particle) => walk.moved(particle, 1, TRIED_AGAIN))
    return particles.map(({ set: { core, log, logs }, sound }) => ({ core, log, logs, sound }))
  })
  return { evidence, particles: noted.at(-1) ?? [], sets: noted.flat() }
}

/** Takes findings in, in halves where all of them together would leave too few sets. */
function withFindings(
  evidence: Evidence,
  particles: readonly Particle[],
  findings: readonly TestFinding[],
): readonly Particle[] {
  if (findings.length === 0) return particles
  const { engine, slots, noted } = evidence
  const walk = new Walk(new Evidence(engine, slots, [...noted, ...findings], evidence), 3 + noted.length)
  const carried = particles.map(({ set, sound }) => {
    const now = walk.weighed(set.core)
    return { now, log: now.set.log - set.log + now.sound - sound }
  })
  if (findings.length > 1 && worth(carried.map(({ log }) => log)) < KEPT_TOGETHER * particles.length) {
    const half = Math.ceil(findings.length / 2)
    const first = findings.slice(0, half)
    const between = new Evidence(engine, slots, [...noted, ...first], evidence)
    return withFindings(between, withFindings(evidence, particles, first), findings.slice(half))
  }
  return takenIn(walk, carried)
}

function takenIn(
  walk: Walk,
  carried: ReadonlyArray<{ readonly now: Particle; readonly log: number }>,
): readonly Particle[] {
  const particles = walk.resampled(
    carried.map(({ now }) => now),
    carried.map(({ log }) => log),
  )
  walk.think(particles)
  return particles.map((particle) => walk.moved(particle, 1, TRIED))
}

/** How far the findings may count next, so that the sets stay worth enough of their number. */
function nextShare(logs: readonly number[], share: number): number {
  const enough = (next: number): boolean => worth(logs.map((log) => log * (next - share))) >= KEPT_WORTH * logs.length
  if (enough(1)) return 1
  let [low, high] = [share, 1]
  for (let step = 0; step < 30; step++) {
    const middle = (low + high) / 2
    if (enough(middle)) low = middle
    else high = middle
  }
  return Math.max(low, share + LEAST_STEP)
}
/** However badly they fit, the findings count for so much more at every step. */
const LEAST_STEP = 1e-3

/** Changes sets at random by one evidence. */
class Walk {
  private readonly uniform: () => number
  private readonly weigher: SetWeigher
  private readonly slots: Slots
  /** Slots of what was not seen: those any finding hangs on, and those none does. */
  private readonly active: readonly number[]
  private readonly free: readonly number[]
  /** By slot: those of the same fault, itself among them. */
  private readonly kin: ReadonlyArray<readonly number[]>
  private readonly soundLog: number
  /** By option: how likely it was before. */
  private readonly before: Float64Array
  /** Options in the order they are thought of, the chance of each, and of those up to it. */
  private readonly thought: Int32Array
  private readonly chance: Float64Array
  private readonly upTo: Float64Array

  constructor(
    private readonly evidence: Evidence,
    seed: number,
  ) {
    const { slots, firstOf, options } = evidence
    this.slots = slots
    this.uniform = seededUniform(seed)
    this.weigher = new SetWeigher(evidence)
    const hangs = (slot: number): boolean => {
      for (let option = firstOf[slot] as number; option < (firstOf[slot + 1] as number); option++)
        if (evidence.concerns(option)) return true
      return false
    }
    this.active = [...slots.slots.keys()].filter((slot) => slots.slots[slot]?.given === false && hangs(slot))
    this.free = [...slots.slots.keys()].filter((slot) => slots.slots[slot]?.given === false && !hangs(slot))
    const faultOf = (slot: number): string => evidence.engine.suspects[slots.slots[slot]?.suspect ?? -1]?.fault.id ?? ''
    this.kin = slots.slots.map((_, slot) => this.active.filter((other) => faultOf(other) === faultOf(slot)))
    this.soundLog = Math.log(slots.soundOnArrival)
    this.before = new Float64Array(options.length)
    for (const [slot, { given, options: ways }] of slots.slots.entries()) {
      const whole = ways.reduce((sum, { weight }) => sum + weight, given ? 0 : 1)
      for (const [way, { weight }] of ways.entries()) this.before[(firstOf[slot] as number) + way] = weight / whole
    }
    this.thought = Int32Array.from([...options.keys()].filter((option) => evidence.concerns(option)))
    this.upTo = new Float64Array(this.thought.length)
    this.chance = new Float64Array(options.length)
  }

  weighed(core: Int16Array): Particle {
    return this.particle(this.weigher.weigh(core))
  }

  private particle(set: WeighedSet): Particle {
    const { options } = this.evidence
    const sound = set.core.every((option) => option < 0 || (options[option] as Option).bornAt > 0)
    return { set, sound: sound ? this.soundLog : 0 }
  }

  drawnBefore(): Particle {
    const { firstOf } = this.evidence
    const core = Int16Array.from(this.slots.slots, ({ given, options }, slot) => {
      const first = firstOf[slot] as number
      return this.drawn(
        options.map((_, way) => first + way),
        given ? 0 : 1,
      )
    })
    return this.weighed(core)
  }

  /** The same set with what no finding hangs on drawn anew: copies of one set are not to share it. */
  withFreeDrawn(particle: Particle): Particle {
    const core = particle.set.core.slice()
    for (const slot of this.free) {
      const first = this.evidence.firstOf[slot] as number
      const ways = this.slots.slots[slot]?.options ?? []
      core[slot] = this.drawn(
        ways.map((_, way) => first + way),
        1,
      )
    }
    const drawn = this.particle({ ...particle.set, core })
    return Math.log(this.uniform()) < drawn.sound - particle.sound ? drawn : particle
  }

  /** One of some options by their weights, or −1. */
  private drawn(options: readonly number[], absent: number): number {
    const weightOf = (option: number): number => (this.evidence.options[option] as Option).weight
    let rest = this.uniform() * options.reduce((sum, option) => sum + weightOf(option), absent) - absent
    if (rest <= 0 && absent > 0) return -1
    return options.find((option) => (rest -= weightOf(option)) <= 0) ?? options.at(-1) ?? -1
  }

  /** A set of the state before as it goes on in this one, and how much likelier it is than that way was to be taken. */
  goneOn(old: Evidence, core: Int16Array): { readonly core: Int16Array; readonly log: number } {
    const { evidence } = this
    const { options, firstOf } = evidence
    const slotOf = new Map(old.slots.slots.map(({ suspect }, slot) => [suspect, slot]))
    let log = 0
    const next = Int16Array.from(this.slots.slots, ({ suspect, given, options: ways }, slot) => {
      const all = ways.map((_, way) => (firstOf[slot] as number) + way)
      const was = slotOf.get(suspect) ?? -1
      const held = was < 0 ? -1 : (core[was] as number)
      const from = held < 0 ? null : (old.options[held] as Option)
      const known = old.slots.slots[was]?.options ?? []
      // It stays as it was, is gone with the repair just made, or came with what was just closed.
      const goesOn = all.filter((option) => {
        const { variant, bornAt, goneAt } = options[option] as Option
        if (!from) return !known.some((way) => way.bornAt === bornAt)
        if (bornAt !== from.bornAt || variant !== from.variant) return false
        const split = from.goneAt === Number.POSITIVE_INFINITY
        return goneAt === from.goneAt || (split && !known.some((way) => way.bornAt === bornAt && way.goneAt === goneAt))
      })
      const absent = from || given ? 0 : 1
      if (goesOn.length === 0 && absent === 0) {
        log += IMPOSSIBLE
        return this.drawn(all, given ? 0 : 1)
      }
      const chosen = this.drawn(goesOn, absent)
      const sum = (from_: readonly number[], rest: number): number =>
        from_.reduce((whole, option) => whole + (options[option] as Option).weight, rest)
      const own = chosen < 0 ? 1 : (options[chosen] as Option).weight
      const taken = own / sum(goesOn, absent)
      const now = own / sum(all, given ? 0 : 1)
      const then =
        was < 0
          ? 1
          : (from?.weight ?? 1) /
            known.reduce((whole, { weight }) => whole + weight, old.slots.slots[was]?.given ? 0 : 1)
      log += Math.log(now / (taken * then))
      return chosen
    })
    return { core: next, log }
  }

  /** Sets by their weights, evenly spaced. */
  resampled(particles: readonly Particle[], logs: readonly number[]): Particle[] {
    const heaviest = logs.reduce((most, log) => Math.max(most, log), Number.NEGATIVE_INFINITY)
    const weights = logs.map((log) => Math.exp(log - heaviest))
    const whole = weights.reduce((sum, weight) => sum + weight, 0)
    const offset = this.uniform()
    let [at, passed] = [0, weights[0] as number]
    return particles.map((_, index) => {
      const position = ((index + offset) / particles.length) * whole
      while (at < particles.length - 1 && passed < position) passed += weights[++at] as number
      return particles[at] as Particle
    })
  }

  /** What changes are thought of, by how undecided the sets are. */
  think(particles: readonly Particle[]): void {
    const { thought, chance, upTo, before, evidence } = this
    const often = new Float64Array(evidence.options.length)
    for (const { set } of particles)
      for (const option of set.core) if (option >= 0) often[option] = (often[option] as number) + 1 / particles.length
    let whole = 0
    for (const [at, option] of thought.entries()) {
      const share = often[option] as number
      chance[option] = EVERY_ONE / thought.length + share * (1 - share) + AS_BEFORE * (before[option] as number)
      whole += chance[option]
      upTo[at] = whole
    }
  }

  private thoughtOf(): number {
    const { thought, upTo } = this
    const position = this.uniform() * (upTo[upTo.length - 1] as number)
    let [low, high] = [0, upTo.length - 1]
    while (low < high) {
      const middle = (low + high) >> 1
      if ((upTo[middle] as number) < position) low = middle + 1
      else high = middle
    }
    return thought[low] as number
  }

  moved(particle: Particle, share: number, tries: number): Particle {
    const { slotOf } = this.evidence
    const { slots } = this.slots
    if (this.thought.length === 0) return particle
    let now = particle
    for (let tried = 0; tried < tries; tried++) {
      const option = this.thoughtOf()
      const slot = slotOf[option] as number
      const held = now.set.core[slot] as number
      const kin = this.kin[slot] as readonly number[]
      if (kin.length > 1 && this.uniform() < EVERYWHERE) {
        now = this.triedEverywhere(now, kin, share)
        continue
      }
      if (held === option) {
        if (slots[slot]?.given === false) now = this.tryChange(now, [[slot, -1]], 0, share)
        continue
      }
      const asked = (other: number): number =>
        Math.log((this.chance[other] as number) / (this.chance[option] as number))
      if (held < 0 && this.uniform() < EXCHANGED) {
        const present = this.active.filter((other) => (this.chance[now.set.core[other] as number] ?? 0) > 0)
        if (present.length === 0) continue
        const other = present[Math.floor(this.uniform() * present.length)] as number
        const gone = now.set.core[other] as number
        now = this.tryChange(
          now,
          [
            [other, -1],
            [slot, option],
          ],
          asked(gone),
          share,
        )
      } else now = this.tryChange(now, [[slot, option]], held < 0 ? 0 : asked(held), share)
    }
    return now
  }

  /**
   * A fault wherever it can be, brought or taken away at one go, perhaps in exchange for something else: two trucks
   * that are dirty together are not found by way of one alone.
   */
  private triedEverywhere(now: Particle, kin: readonly number[], share: number): Particle {
    const { firstOf } = this.evidence
    const { core } = now.set
    const held = kin.filter((slot) => (core[slot] as number) >= 0)
    const others = this.active.filter((slot) => (core[slot] as number) >= 0 && !kin.includes(slot))
    const ways = (slot: number): number => (firstOf[slot + 1] as number) - (firstOf[slot] as number)
    const any = (slot: number): number => (firstOf[slot] as number) + Math.floor(this.uniform() * ways(slot))
    // Drawn evenly among all ways, so that going and coming back are asked as often.
    const logWays = kin.reduce((sum, slot) => sum + Math.log(ways(slot)), 0)
    const exchanged = this.uniform() < 0.5
    if (held.length === kin.length) {
      const away = kin.map((slot): Change => [slot, -1])
      if (!exchanged) return this.tryChange(now, away, -logWays, share)
      const absent = this.active.filter((slot) => (core[slot] as number) < 0 && !kin.includes(slot))
      if (absent.length === 0) return now
      const one = absent[Math.floor(this.uniform() * absent.length)] as number
      const back = Math.log((absent.length * ways(one)) / (others.length + 1))
      return this.tryChange(now, [...away, [one, any(one)]], back - logWays, share)
    }
    if (held.length > 0) return now
    const come = kin.map((slot): Change => [slot, any(slot)])
    if (!exchanged) return this.tryChange(now, come, logWays, share)
    if (others.length === 0) return now
    const gone = others[Math.floor(this.uniform() * others.length)] as number
    const absent = this.active.filter((slot) => (core[slot] as number) < 0 && !kin.includes(slot)).length + 1
    const back = Math.log(others.length / (absent * ways(gone)))
    return this.tryChange(now, [...come, [gone, -1]], logWays + back, share)
  }

  private tryChange(now: Particle, changes: readonly Change[], asked: number, share: number): Particle {
    const { options } = this.evidence
    let prior = asked
    for (const [slot, option] of changes) {
      const held = now.set.core[slot] as number
      if (held >= 0) prior -= Math.log((options[held] as Option).weight)
      if (option >= 0) prior += Math.log((options[option] as Option).weight)
    }
    // At best the machine then came with something wrong, which no complaint speaks against.
    const needed = now.set.log + now.sound + (Math.log(this.uniform()) - prior) / share
    const set = this.weigher.changed(now.set, changes, needed)
    if (!set) return now
    const next = this.particle(set)
    return set.log + next.sound >= needed ? next : now
  }
}
