import type { CompiledEngine } from '../compiled-engine'
import { currentState, type SearchHistory, type TestFinding } from '../history'
import { Evidence } from './evidence'
import { leavesOf, slotFactor, weightIn, type BelievedLeaf, type Effort, type Leaf } from './leaves'
import type { Option, Slots } from './slots'
import { checked } from './checked-leaves'
import { drawnSet } from './drawn-set'
import { leavesHold } from './leaves-hold'
import { sampledLeaves } from './sampled-leaves'
import type { Population } from './population'
import { SetWeigher } from './weighed-sets'

const usualEffort: Effort = { cores: 90, leaves: 260, least: 0.003, checked: true }
/** From this state on all sets are not taken apart any more: with repairs between the findings what is so is not found by it. */
const SAMPLED_FROM = 1

/** What was found speaks for a suspect from this many times its chance before on. */
const IMPLIED_TIMES = 1.2
/** … or where it is likelier than not, whatever made it so. */
const LIKELY = 0.5
/** … and so many standard deviations beyond what drawing alone does. */
const BY_CHANCE = 3

/** Shares lighter than this speak for no reason. */
const WEIGHTY = 0.001

/** One full set of faults, as one may find the machine. */
export interface World {
  readonly weight: number
  /** Suspects there now, what is confirmed among them. */
  readonly suspects: readonly number[]
  /** Their variants, those too slight to show left away. */
  readonly variants: readonly number[]
}

/**
 * What is believed after a history: a weight for every set of faults of any size, kept as shares of sets in each of
 * which what is not decided hangs on nothing but itself.
 */
export class Belief {
  readonly state: number
  readonly engine: CompiledEngine
  private shares: readonly BelievedLeaf[] | null = null
  private alone: { readonly leaves: readonly BelievedLeaf[]; readonly logEvidence: number } | null = null
  private drawnSets: Population | null = null
  private found: Float64Array | null = null
  private drawnWorlds: readonly World[] | null = null

  /**
   * @param evidence of the history
   * @param history it came from
   * @param population sets as likely as the history leaves them, asked for where taking all apart does not hold
   * @param effort how far sets are taken apart
   */
  constructor(
    readonly evidence: Evidence,
    readonly history: SearchHistory,
    private readonly population: (() => Population) | null = null,
    private readonly effort: Effort = usualEffort,
  ) {
    this.engine = evidence.engine
    this.state = currentState(history)
  }

  /** What is believed: all sets taken apart, or sets drawn one by one where those shares do not hold. */
  get leaves(): readonly BelievedLeaf[] {
    this.shares ??= this.sharesOf()
    return this.shares
  }

  private sharesOf(): readonly BelievedLeaf[] {
    const { evidence, population } = this
    if (population === null) return this.apart.leaves
    if (this.state < SAMPLED_FROM && leavesHold(evidence, this.apart.leaves)) return this.apart.leaves
    this.drawnSets = population()
    return sampledLeaves(evidence, this.drawnSets)
  }

  /** The sets drawn one by one, where those are believed. */
  get sampled(): Population | null {
    void this.leaves
    return this.drawnSets
  }

  /**
   * Chance of all findings but some, in times of the chance of all, as natural logarithm.
   *
   * @param left places in the history of those left out
   */
  logWithout(left: readonly number[]): number {
    const { evidence, history, sampled } = this
    const findings = history.findings.filter((_, index) => !left.includes(index))
    // What an outcome showed itself stays seen: it is the reading that is doubted.
    const others = new Evidence(this.engine, evidence.slots, findings, evidence)
    if (!sampled) return new Belief(others, { ...history, findings }).apart.logEvidence - this.apart.logEvidence
    const weigher = new SetWeigher(others)
    const times = sampled.particles.map(({ core, log }) => Math.exp(weigher.weigh(core).log - log))
    return Math.log(times.reduce((sum, own) => sum + own, 0) / times.length)
  }

  /** All sets, taken apart by what explains the findings. */
  private get apart(): { readonly leaves: readonly BelievedLeaf[]; readonly logEvidence: number } {
    this.alone ??= this.takenApart()
    return this.alone
  }

  private takenApart(): { readonly leaves: readonly BelievedLeaf[]; readonly logEvidence: number } {
    const { evidence, effort } = this
    const leaves = leavesOf(evidence, effort)
    const estimated = leaves.map((leaf) => ({ leaf, ...this.logMasses(leaf) }))
    const weighed = effort.checked ? checked(evidence, estimated) : estimated
    const heaviest = weighed.reduce((most, { all }) => Math.max(most, all), Number.NEGATIVE_INFINITY)
    const { soundOnArrival } = evidence.slots
    const shares = weighed.map(({ leaf, all, sound }) => ({
      leaf,
      share: Math.exp(all - heaviest),
      arrivedSound: (1 - soundOnArrival) * Math.exp(sound - heaviest),
    }))
    const whole = shares.reduce((sum, { share, arrivedSound }) => sum + share - arrivedSound, 0)
    return {
      logEvidence: heaviest + Math.log(whole),
      leaves: shares.map(({ leaf, share, arrivedSound }) => ({
        ...leaf,
        chance: share / whole,
        arrivedSound: arrivedSound / whole,
      })),
    }
  }

  /** What was seen at this bench; what was only told is left to be looked at. */
  get seenHere(): readonly TestFinding[] {
    return this.history.findings.filter(({ told }) => told !== true)
  }

  /** The shares that matter for reasons: each above a thousandth. */
  get weighty(): readonly BelievedLeaf[] {
    return this.leaves.filter(({ chance }) => chance > WEIGHTY)
  }

  get slots(): Slots {
    return this.evidence.slots
  }

  /** Weight of a leaf, and of that of it in which nothing was wrong when the machine came, as natural logarithms. */
  private logMasses(leaf: Leaf): { readonly all: number; readonly sound: number } {
    const { evidence } = this
    const { options } = evidence
    let all = leaf.logCore
    let sound = evidence.slots.soundOnArrival < 1 ? leaf.logCore : Number.NEGATIVE_INFINITY
    for (let slot = 0; slot < leaf.core.length; slot++) {
      all += Math.log(slotFactor(evidence, leaf, slot))
      const base = leaf.core[slot] as number
      if (base >= 0 && (options[base] as Option).bornAt === 0) sound = Number.NEGATIVE_INFINITY
      else
        sound += Math.log(slotFactor(evidence, leaf, slot, (option) => Number((options[option] as Option).bornAt > 0)))
    }
    return { all, sound }
  }

  /** Chance of what each thing that is there allows by itself, slot by slot: for instance that none of some suspects is there. */
  private chanceThatAll(
    allows: (option: Option) => number,
    slots: readonly number[] = [...this.evidence.slots.slots.keys()],
  ): number {
    const { evidence } = this
    const { options } = evidence
    const allowed = (option: number): number => allows(options[option] as Option)
    const late = (option: number): number => Number((options[option] as Option).bornAt > 0)
    let chance = 0
    for (const leaf of this.leaves) {
      let [share, sound] = [leaf.chance, leaf.arrivedSound]
      for (const slot of slots) {
        if (share === 0) break
        const base = leaf.core[slot] as number
        if (leaf.decided[slot] === 1) {
          const times = base < 0 ? 1 : allowed(base)
          share *= times
          sound *= times
          continue
        }
        share *= slotFactor(evidence, leaf, slot, allowed) / slotFactor(evidence, leaf, slot)
        if (sound > 0)
          sound *=
            slotFactor(evidence, leaf, slot, (option) => allowed(option) * late(option)) /
            slotFactor(evidence, leaf, slot, late)
      }
      chance += share > 0 ? share - sound : 0
    }
    return Math.min(1, Math.max(0, chance))
  }

  /** Chance that a suspect is there now, by suspect. */
  get marginals(): Float64Array {
    this.found ??= this.marginalsAt(this.state)
    return this.found
  }

  /** Chance that a suspect was there in a state, with all that was found since. */
  marginalsAt(state: number): Float64Array {
    const marginals = new Float64Array(this.engine.suspects.length)
    const { evidence } = this
    const { options, firstOf } = evidence
    for (const leaf of this.leaves) {
      for (let slot = 0; slot < leaf.core.length; slot++) {
        const base = leaf.core[slot] as number
        const { suspect } = options[firstOf[slot] as number] as Option
        const there = (option: number): boolean => {
          const { bornAt, goneAt } = options[option] as Option
          return bornAt <= state && state < goneAt
        }
        let share = 0
        let late = 0
        if (leaf.decided[slot] === 1) share = base >= 0 && there(base) ? 1 : 0
        else {
          const whole = slotFactor(evidence, leaf, slot)
          for (let option = firstOf[slot] as number; option < (firstOf[slot + 1] as number); option++) {
            if ((option !== base && leaf.open[option] !== 1) || !there(option)) continue
            const weight = weightIn(evidence, leaf, option) / whole
            share += weight
            if ((options[option] as Option).bornAt > 0) late += weight
          }
        }
        marginals[suspect] = (marginals[suspect] as number) + leaf.chance * share - leaf.arrivedSound * late
      }
    }
    for (let suspect = 0; suspect < marginals.length; suspect++)
      marginals[suspect] = Math.min(1, Math.max(0, marginals[suspect] as number))
    return marginals
  }

  /** Whether what was found speaks for a suspect: it is likelier by so much than before anything was noted. */
  get impliedSuspects(): boolean[] {
    const { marginals, state } = this
    const found = new Array<boolean>(marginals.length).fill(false)
    for (const { suspect, given, options } of this.slots.slots) {
      let [here, all] = [0, 1]
      for (const { bornAt, goneAt, weight } of options) {
        all += weight
        if (bornAt <= state && state < goneAt) here += weight
      }
      const before = here / all
      // What was drawn wavers: a share of so many sets is known no better than that.
      const wavers =
        BY_CHANCE * Math.sqrt((before * (1 - before)) / (this.sampled?.particles.length ?? Number.POSITIVE_INFINITY))
      const now = marginals[suspect] as number
      found[suspect] = given || now > LIKELY || now > Math.max(IMPLIED_TIMES * before, before + wavers)
    }
    return found
  }

  /** Suspects seen and not yet mended, as far as is known. */
  get given(): number[] {
    return this.slots.slots.flatMap(({ given, options, suspect }) =>
      given &&
      options.some(({ bornAt, goneAt }) => bornAt <= this.state && this.state < goneAt) &&
      !this.mendedSince(suspect)
        ? [suspect]
        : [],
    )
  }

  /** Whether it was mended after it was seen last. */
  private mendedSince(suspect: number): boolean {
    const { engine, history } = this
    const seen = this.slots.slots.find((slot) => slot.suspect === suspect)?.options ?? []
    const mended = history.events.flatMap((event) =>
      event.kind === 'repaired' &&
      engine.suspects[engine.indexOfSuspect(event.suspect)]?.mendedBy === engine.suspects[suspect]?.mendedBy
        ? [event.state]
        : [],
    )
    const last = Math.max(-1, ...mended)
    return last >= 0 && seen.some(({ goneAt }) => goneAt === last)
  }

  /** Chance that at least one of these suspects is there in a state; now where none is named. */
  chanceOfAny(suspects: ReadonlySet<number>, state: number = this.state): number {
    const slots = this.slots.slots.flatMap(({ suspect }, slot) => (suspects.has(suspect) ? [slot] : []))
    return 1 - this.chanceThatAll(({ bornAt, goneAt }) => Number(!(bornAt <= state && state < goneAt)), slots)
  }

  /** Chance of each group of repair: that any of its suspects is there now. */
  groupChances({ groups }: { readonly groups: ReadonlyArray<{ readonly suspects: readonly number[] }> }): Float64Array {
    return Float64Array.from(groups, ({ suspects }) => this.chanceOfAny(new Set(suspects)))
  }

  /** Chance that nothing is wrong now but what is confirmed and not yet mended. */
  get nothingHidden(): number {
    const given = new Set(this.given)
    return this.nothingOf((suspect) => !given.has(suspect))
  }

  /** Chance that nothing of some kind is wrong now. */
  nothingOf(counts: (suspect: number, variant: number) => boolean): number {
    return 1 - this.chanceToNotice((suspect, variant) => Number(counts(suspect, variant)))
  }

  /** Chance that anything wrong now is noticed. @param noticed how often each thing is, by itself */
  chanceToNotice(noticed: (suspect: number, variant: number) => number): number {
    const { state } = this
    return (
      1 -
      this.chanceThatAll(({ suspect, variant, bornAt, goneAt }) =>
        bornAt <= state && state < goneAt ? 1 - noticed(suspect, variant) : 1,
      )
    )
  }

  /**
   * Full sets as they may be, likely ones more often; always the same for the same belief. What is open in one step of
   * a search is drawn by the same numbers in the next.
   *
   * @param count of them
   */
  worlds(count: number): readonly World[] {
    if (this.drawnWorlds?.length === count) return this.drawnWorlds
    const { evidence, leaves } = this
    const { options } = evidence
    const positive = leaves
      .map((leaf) => ({ leaf, chance: Math.max(0, leaf.chance - leaf.arrivedSound) }))
      .filter(({ chance }) => chance > 0)
      .sort((one, other) => other.chance - one.chance)
    const whole = positive.reduce((sum, { chance }) => sum + chance, 0)
    const worlds: World[] = []
    let [at, passed] = [0, 0]
    for (let index = 0; index < count; index++) {
      const position = ((index + 0.5) / count) * whole
      while (at < positive.length - 1 && passed + (positive[at]?.chance ?? 0) < position)
        passed += positive[at++]?.chance ?? 0
      const { leaf } = positive[at] as (typeof positive)[number]
      const suspects: number[] = []
      const variants: number[] = []
      for (const chosen of drawnSet(evidence, leaf, index)) {
        if (chosen < 0) continue
        const { suspect, variant, bornAt, goneAt } = options[chosen] as Option
        if (bornAt > this.state || this.state >= goneAt) continue
        suspects.push(suspect)
        if (variant >= 0) variants.push(variant)
      }
      worlds.push({ weight: 1 / count, suspects, variants })
    }
    this.drawnWorlds = worlds
    return worlds
  }
}
