import { grown } from './grown'
import type { Item } from './hypotheses'

/** So many hidden faults a set has at most; it takes as many places in a list of members. */
export const SET_SIZE = 3
/** While there are no more sets of three than this, all of them are looked at. */
const FEW = 3000
/** No set of three is looked at that is expected to be so many times less likely than the likeliest of fewer. */
const TIMES_LESS = 1e8
/** Of the histogram that finds the bar, in natural logarithms. */
const BIN = 0.25
const NEVER = -1e4
const BINS = Math.ceil(Math.log(TIMES_LESS) / BIN) + 1

/** Natural logarithms: of each item against nothing hidden, of each pair against its two apart, of nothing hidden, and the least that counts. */
interface Expectations {
  readonly own: Float64Array
  readonly times: Float64Array
  readonly nothing: number
  readonly lowest: number
}

/**
 * Sets of up to three hidden faults, numbered once and for all: nothing, every one, every two, and those sets of three
 * that were ever worth a look.
 */
export class HypothesisSets {
  /** Items of each set: three indices, −1 where there is none. */
  members: Int16Array
  /** Odds of each set against nothing hidden, before any finding. */
  odds: Float64Array
  count = 0
  /** Sets of none, one and two: they come first. */
  readonly base: number
  private readonly order: number
  private readonly pairs: Int32Array
  /** By place among all sets of three, in colexicographic order: its number; −1 where it was never worth a look. */
  private readonly triples: Int32Array
  /** Of the sets of three ranked last: key and bin of each. */
  private keys = new Int32Array(0)
  private binOf = new Uint8Array(0)

  /**
   * @param items ways in which something may be hidden
   * @param soundOnArrival factor on the odds of a set in which nothing was there from the start
   */
  constructor(
    private readonly items: readonly Item[],
    private readonly soundOnArrival = 1,
  ) {
    this.order = items.length
    const { order } = this
    const capacity = 1 + order + (order * (order - 1)) / 2
    this.members = new Int16Array(capacity * SET_SIZE)
    this.odds = new Float64Array(capacity)
    this.pairs = new Int32Array(order * order).fill(-1)
    this.add(-1, -1, -1)
    for (let first = 0; first < order; first++) this.add(first, -1, -1)
    for (let first = 0; first < order; first++) {
      for (let second = first + 1; second < order; second++) {
        const [one, other] = [items[first] as Item, items[second] as Item]
        // Two ways of one suspect exclude each other.
        if (one.suspect === other.suspect) continue
        const set = this.add(first, second, -1)
        this.pairs[first * order + second] = set
        this.pairs[second * order + first] = set
      }
    }
    this.base = this.count
    this.triples = new Int32Array((order * (order - 1) * (order - 2)) / 6).fill(-1)
  }

  /** The set of none, one or two items; −1 in place of a missing one. */
  of(first: number, second: number): number {
    if (first < 0) return second < 0 ? 0 : 1 + second
    return second < 0 ? 1 + first : (this.pairs[first * this.order + second] as number)
  }

  /**
   * Sets of three in the order in which they are worth a look after some findings. How likely one is follows, nearly,
   * from its pairs: the chance of a finding under three faults is taken as if it came from the three pairs (the Kirkwood
   * superposition). What is taken so is weighed exactly by the caller.
   *
   * @param weights of the base sets, in any unit
   * @param most so many will be taken at most; of the rest only the weight is known
   */
  rankTriples(weights: ArrayLike<number>, most = Number.POSITIVE_INFINITY): RankedTriples {
    const { order } = this
    if ((order * (order - 1) * (order - 2)) / 6 <= FEW)
      return new RankedTriples([this.everyTriple()], [Number.POSITIVE_INFINITY])
    const expected = this.expectations(weights)
    const found = this.expectedTriples(expected)
    const { keys, binOf } = this
    const sizes = new Int32Array(BINS)
    for (let at = 0; at < found; at++) sizes[binOf[at] as number] = (sizes[binOf[at] as number] as number) + 1
    let [first, kept] = [BINS, 0]
    while (first > 0 && kept < most) kept += sizes[--first] as number
    const bins = Array.from({ length: BINS - first }, (_, index) => new Int32Array(sizes[first + index] as number))
    const filled = new Int32Array(bins.length)
    for (let at = 0; at < found; at++) {
      const place = (binOf[at] as number) - first
      if (place < 0) continue
      const filling = filled[place] as number
      ;(bins[place] as Int32Array)[filling] = keys[at] as number
      filled[place] = filling + 1
    }
    const weigh = (bin: number): number => Math.exp(expected.lowest + (bin + 0.5) * BIN)
    let beyond = 0
    for (let bin = 0; bin < first; bin++) beyond += (sizes[bin] as number) * weigh(bin)
    return new RankedTriples(
      bins.reverse(),
      bins.map((_, index) => weigh(BINS - 1 - index)),
      (key) => this.triple(key),
      beyond,
    )
  }

  /** What the base sets let one expect of sets of three, in natural logarithms. */
  private expectations(weights: ArrayLike<number>): Expectations {
    const { order, pairs, items } = this
    // The superposition holds of faults that know nothing of each other: as they would be without the complaint.
    const log = (set: number): number => Math.max(NEVER, Math.log((weights[set] as number) / this.arrival(set)))
    const nothing = log(0)
    const single = Float64Array.from(items, (_, item) => log(1 + item))
    let top = nothing
    for (const weight of single) top = Math.max(top, weight)
    const times = new Float64Array(order * order).fill(2 * NEVER)
    for (let first = 0; first < order; first++) {
      for (let second = first + 1; second < order; second++) {
        const set = pairs[first * order + second] as number
        if (set < 0) continue
        const pair = log(set)
        top = Math.max(top, pair)
        // How much likelier both are together than each for itself would have it.
        times[first * order + second] = pair - (single[first] as number) - (single[second] as number) + nothing
      }
    }
    return { own: single.map((weight) => weight - nothing), times, nothing, lowest: top - Math.log(TIMES_LESS) }
  }

  /** Notes key and bin of every set of three that is expected to be worth a look, and says how many there are. */
  private expectedTriples({ own, times, nothing, lowest }: Expectations): number {
    const { order } = this
    let { keys, binOf } = this
    let count = 0
    // The most any third can add, which lets whole rows be passed over.
    const withSecond = new Float64Array(order)
    for (let second = 0; second < order; second++) {
      let best = 2 * NEVER
      for (let third = second + 1; third < order; third++)
        best = Math.max(best, times[second * order + third] as number)
      withSecond[second] = best
    }
    const perBin = 1 / BIN
    for (let first = 0; first < order; first++) {
      const one = first * order
      let withFirst = 2 * NEVER
      for (let third = first + 1; third < order; third++)
        withFirst = Math.max(withFirst, (own[third] as number) + (times[one + third] as number))
      for (let second = first + 1; second < order; second++) {
        const two = second * order
        const known = nothing + (own[first] as number) + (own[second] as number) + (times[one + second] as number)
        if (known + withFirst + (withSecond[second] as number) < lowest) continue
        if (count + order > keys.length) {
          keys = this.keys = grown(keys, 2 * (count + order))
          binOf = this.binOf = grown(binOf, keys.length)
        }
        for (let third = second + 1; third < order; third++) {
          const value = known + (own[third] as number) + (times[one + third] as number) + (times[two + third] as number)
          if (value < lowest) continue
          // Expected to be likelier than anything of fewer, it is taken first; how much likelier, such an expectation cannot say.
          const bin = ((value - lowest) * perBin) | 0
          keys[count] = (one + second) * order + third
          binOf[count++] = bin < BINS ? bin : BINS - 1
        }
      }
    }
    return count
  }

  private everyTriple(): Int32Array {
    const { order, pairs } = this
    const found: number[] = []
    for (let first = 0; first < order; first++) {
      for (let second = first + 1; second < order; second++) {
        if ((pairs[first * order + second] as number) < 0) continue
        for (let third = second + 1; third < order; third++) {
          if ((pairs[first * order + third] as number) >= 0 && (pairs[second * order + third] as number) >= 0)
            found.push(this.triple((first * order + second) * order + third))
        }
      }
    }
    return Int32Array.from(found)
  }

  private triple(key: number): number {
    const { order, triples } = this
    const [first, second, third] = [Math.floor(key / (order * order)), Math.floor(key / order) % order, key % order]
    const place = (third * (third - 1) * (third - 2)) / 6 + (second * (second - 1)) / 2 + first
    const known = triples[place] as number
    if (known >= 0) return known
    return (triples[place] = this.add(first, second, third))
  }

  /** Of a set's odds, what is owed to the machine having arrived with something or with nothing. */
  private arrival(set: number): number {
    const { items, members } = this
    for (let at = set * SET_SIZE; at < set * SET_SIZE + SET_SIZE; at++)
      if (items[members[at] as number]?.bornAt === 0) return 1
    return this.soundOnArrival
  }

  private add(first: number, second: number, third: number): number {
    const set = this.count++
    const oddsOf = (item: number): number => this.items[item]?.odds ?? 1
    if (set >= this.odds.length) {
      this.members = grown(this.members, this.members.length * 2)
      this.odds = grown(this.odds, this.odds.length * 2)
    }
    this.members[set * SET_SIZE] = first
    this.members[set * SET_SIZE + 1] = second
    this.members[set * SET_SIZE + 2] = third
    this.odds[set] = oddsOf(first) * oddsOf(second) * oddsOf(third) * this.arrival(set)
    return set
  }
}

/** Sets of three, likeliest first, to be taken a good many at a time. */
export class RankedTriples {
  private bin = 0
  private place = 0

  /**
   * @param bins keys of the sets, likeliest bin first
   * @param weights expected of a set of each bin
   * @param setOf the number of the set with such a key
   * @param beyond what sets in no bin are expected to weigh together
   */
  constructor(
    private readonly bins: readonly Int32Array[],
    private readonly weights: readonly number[],
    private readonly setOf: (key: number) => number = (key) => key,
    private readonly beyond = 0,
  ) {}

  /** What all those not taken are expected to weigh together. */
  get left(): number {
    let sum = this.beyond
    for (let bin = this.bin; bin < this.bins.length; bin++) {
      const size = (this.bins[bin] as Int32Array).length - (bin === this.bin ? this.place : 0)
      if (size > 0) sum += size * (this.weights[bin] as number)
    }
    return sum
  }

  take(most: number): Int32Array {
    const found = new Int32Array(most)
    let count = 0
    while (count < most && this.bin < this.bins.length) {
      const bin = this.bins[this.bin] as Int32Array
      if (this.place >= bin.length) {
        this.bin++
        this.place = 0
      } else found[count++] = this.setOf(bin[this.place++] as number)
    }
    return found.subarray(0, count)
  }
}
