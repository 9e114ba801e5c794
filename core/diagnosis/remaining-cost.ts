/** What it costs to know of each group whether it is at fault, and what its repair takes off. */
export interface GroupPrices {
  /** Minutes of looking at it, or of mending it untested where that is cheaper; by group. */
  readonly lookMinutes: readonly number[]
  /** Indices of the parts to take off for that, and for its repair. */
  readonly lookParts: ReadonlyArray<readonly number[]>
  readonly repairParts: ReadonlyArray<readonly number[]>
  /** Minutes to take a part off and put it back, a breakage counted in. */
  readonly partCost: readonly number[]
}

/** So many parts to a word of bits. */
const WORD = 31

/** Groups behind the same parts, and how far down they are in the order being made. */
class Cluster {
  /** Those that may be at fault, most chance per minute first. */
  readonly waiting: Int16Array
  count = 0
  from = 0
  /** What opening it now would bring: chance per minute with its best few groups, which end before `bestEnd`. */
  bestRate = 0
  bestEnd = 0
  stale = true

  constructor(
    readonly parts: Int16Array,
    readonly groups: Int16Array,
  ) {
    this.waiting = new Int16Array(groups.length)
  }
}

/**
 * Expected minutes until nothing is left, if from now on one group after the other were looked at, or mended where
 * that is cheaper, in the order of chance over cost: for one fault with independent costs this order is the best
 * there is (Kalagnanam and Henrion 1990; Heckerman, Breese and Rommelse 1995). A set costs as far down the order as
 * its last fault lies, and the dismantling its own repairs need. What is taken off once is not paid twice. Minutes
 * of the repairs themselves are the same whatever is tested and left out; so the difference between two of these is
 * what a test saves.
 */
export class RemainingCost {
  private readonly groupChance: Float64Array
  private readonly lookMinutes: Float64Array
  private readonly partCost: Float64Array
  /** By part: 1 where it is off, or comes off in the order being made. */
  private readonly taken: Uint8Array
  /** Parts as bits, so many words of them each time; first of those off by now, then by group of those off when it is reached. */
  private readonly words: number
  private readonly takenBits: Int32Array
  private readonly bitsAt: Int32Array
  private readonly rate: Float64Array
  private readonly clusters: readonly Cluster[]
  /** By part: the clusters behind it. */
  private readonly behind: ReadonlyArray<readonly Cluster[]>
  private readonly spentAfter: Float64Array
  private readonly order: Int16Array
  private ordered = 0
  /** Sets that need the same groups cost the same: by set its kind, and of each kind its groups, each once. */
  private readonly kindOf: Int32Array
  private readonly kinds: Int16Array
  private readonly kindWeights: Float64Array
  /** By kind: the parts its own repairs need off, each once, and the same as bits. */
  private readonly kindParts: ReadonlyArray<Int16Array>
  private readonly kindBits: Int32Array

  /**
   * @param prices of every group and part
   * @param groups of each set: three group indices each, −1 where there is none
   */
  constructor({ lookMinutes, lookParts, repairParts, partCost }: GroupPrices, groups: Int16Array) {
    const count = lookMinutes.length
    this.groupChance = new Float64Array(count)
    this.lookMinutes = Float64Array.from(lookMinutes)
    this.partCost = Float64Array.from(partCost)
    this.taken = new Uint8Array(partCost.length)
    this.words = Math.ceil(partCost.length / WORD)
    this.takenBits = new Int32Array(this.words)
    this.bitsAt = new Int32Array(count * this.words)
    this.rate = new Float64Array(count)
    this.spentAfter = new Float64Array(count)
    this.order = new Int16Array(count)
    const clusters = new Map<string, { parts: readonly number[]; groups: number[] }>()
    for (const [group, parts] of lookParts.entries()) {
      const key = parts.join()
      const known = clusters.get(key)
      if (known) known.groups.push(group)
      else clusters.set(key, { parts, groups: [group] })
    }
    this.clusters = [...clusters.values()].map(
      (cluster) => new Cluster(Int16Array.from(cluster.parts), Int16Array.from(cluster.groups)),
    )
    this.behind = partCost.map((_, part) => this.clusters.filter((cluster) => cluster.parts.includes(part)))
    const sets = groups.length / 3
    this.kindOf = new Int32Array(sets)
    const kinds: number[] = []
    const known = new Map<number, number>()
    for (let set = 0; set < sets; set++) {
      const [low, middle, high] = eachOnce(
        groups[set * 3] as number,
        groups[set * 3 + 1] as number,
        groups[set * 3 + 2] as number,
      )
      const key = ((low + 1) * (count + 1) + middle + 1) * (count + 1) + high + 1
      let kind = known.get(key)
      if (kind === undefined) {
        kind = known.size
        known.set(key, kind)
        kinds.push(low, middle, high)
      }
      this.kindOf[set] = kind
    }
    this.kinds = Int16Array.from(kinds)
    this.kindWeights = new Float64Array(known.size)
    this.kindParts = Array.from({ length: known.size }, (_, kind) =>
      Int16Array.from(new Set(kinds.slice(kind * 3, kind * 3 + 3).flatMap((group) => repairParts[group] ?? []))),
    )
    this.kindBits = new Int32Array(known.size * this.words)
    for (const [kind, parts] of this.kindParts.entries())
      for (const part of parts) mark(this.kindBits, kind * this.words, part)
  }

  /**
   * @param weights of the sets; they need not add up to one
   * @param count how many sets
   * @param off indices of the parts that are off
   * @returns minutes for weights that add up to one, otherwise times their sum
   */
  of(weights: Float64Array, count: number, off: Iterable<number>): number {
    const { groupChance, kinds, kindOf, kindWeights } = this
    kindWeights.fill(0)
    for (let set = 0; set < count; set++) {
      const kind = kindOf[set] as number
      kindWeights[kind] = (kindWeights[kind] as number) + (weights[set] as number)
    }
    groupChance.fill(0)
    for (let kind = 0; kind < kindWeights.length; kind++) {
      const weight = kindWeights[kind] as number
      if (weight === 0) continue
      for (let at = kind * 3; at < kind * 3 + 3; at++) {
        const group = kinds[at] as number
        if (group >= 0) groupChance[group] = (groupChance[group] as number) + weight
      }
    }
    this.putInOrder(off)
    let total = 0
    for (let kind = 0; kind < kindWeights.length; kind++) {
      const weight = kindWeights[kind] as number
      if (weight > 0) total += weight * this.minutesFor(kind)
    }
    return total
  }

  /** Down the order to the last fault of such a set, and what its own repairs have to take off besides. */
  private minutesFor(kind: number): number {
    const { kinds, spentAfter, partCost, words, bitsAt, kindBits } = this
    let minutes = 0
    let last = -1
    for (let at = kind * 3; at < kind * 3 + 3; at++) {
      const group = kinds[at] as number
      if (group < 0 || (spentAfter[group] as number) <= minutes) continue
      minutes = spentAfter[group] as number
      last = group
    }
    let missing = 0
    for (let word = 0; word < words; word++)
      missing |= (kindBits[kind * words + word] as number) & (last < 0 ? -1 : ~(bitsAt[last * words + word] as number))
    if (missing === 0) return minutes
    const parts = this.kindParts[kind] as Int16Array
    for (let index = 0; index < parts.length; index++) {
      const part = parts[index] as number
      if (last < 0 || ((bitsAt[last * words + ((part / WORD) | 0)] as number) & (1 << (part % WORD))) === 0)
        minutes += partCost[part] as number
    }
    return minutes
  }

  /**
   * Behind one cover lie several groups: opening it pays for them together. So the next step is always the cover, or
   * the bare look, whose best few groups together have most chance per minute.
   */
  private putInOrder(off: Iterable<number>): void {
    const { groupChance, lookMinutes, taken, partCost, order, clusters, rate, words, takenBits, bitsAt } = this
    this.ordered = 0
    taken.fill(0)
    takenBits.fill(0)
    for (const part of off) {
      taken[part] = 1
      mark(takenBits, 0, part)
    }
    for (let group = 0; group < rate.length; group++)
      rate[group] = (groupChance[group] as number) / (lookMinutes[group] as number)
    let left = 0
    for (const cluster of clusters) {
      this.line(cluster)
      left += cluster.count
    }
    let spent = 0
    while (left > 0) {
      let best: Cluster | null = null
      for (const cluster of clusters) {
        if (cluster.from >= cluster.count) continue
        if (cluster.stale) this.look(cluster)
        if (!best || cluster.bestRate > best.bestRate) best = cluster
      }
      const chosen = best as Cluster
      const { parts, waiting } = chosen
      for (let at = 0; at < parts.length; at++) {
        const part = parts[at] as number
        if (taken[part] === 1) continue
        taken[part] = 1
        mark(takenBits, 0, part)
        spent += partCost[part] as number
        for (const cluster of this.behind[part] as readonly Cluster[]) cluster.stale = true
      }
      left -= chosen.bestEnd - chosen.from
      for (; chosen.from < chosen.bestEnd; chosen.from++) {
        const group = waiting[chosen.from] as number
        spent += lookMinutes[group] as number
        order[this.ordered++] = group
        this.spentAfter[group] = spent
        for (let word = 0; word < words; word++) bitsAt[group * words + word] = takenBits[word] as number
      }
      chosen.stale = true
    }
  }

  /** Lines a cluster's groups up, most chance per minute first, those that cannot be at fault left out. */
  private line(cluster: Cluster): void {
    const { rate } = this
    const { groups, waiting } = cluster
    let count = 0
    for (let at = 0; at < groups.length; at++) {
      const group = groups[at] as number
      const mine = rate[group] as number
      if (mine <= 0) continue
      let place = count++
      for (; place > 0 && (rate[waiting[place - 1] as number] as number) < mine; place--)
        waiting[place] = waiting[place - 1] as number
      waiting[place] = group
    }
    cluster.count = count
    cluster.from = 0
    cluster.stale = true
  }

  /** How much chance per minute opening a cluster brings now. */
  private look(cluster: Cluster): void {
    const { groupChance, lookMinutes, taken, partCost } = this
    const { parts, waiting, count } = cluster
    let minutes = 0
    for (let at = 0; at < parts.length; at++)
      if (taken[parts[at] as number] === 0) minutes += partCost[parts[at] as number] as number
    let chance = 0
    cluster.bestRate = -1
    for (let at = cluster.from; at < count; at++) {
      const group = waiting[at] as number
      chance += groupChance[group] as number
      minutes += lookMinutes[group] as number
      if (chance / minutes <= cluster.bestRate) continue
      cluster.bestRate = chance / minutes
      cluster.bestEnd = at + 1
    }
    cluster.stale = false
  }

  /** The groups in the order they would be mended, after the last call of `of`. */
  get sequence(): readonly number[] {
    return [...this.order.subarray(0, this.ordered)]
  }
}

/** Three groups in order, each once; −1 where there are fewer. */
function eachOnce(...groups: [number, number, number]): [number, number, number] {
  const once = [...new Set(groups)].filter((group) => group >= 0).sort((first, second) => first - second)
  return [once[0] ?? -1, once[1] ?? -1, once[2] ?? -1]
}

function mark(bits: Int32Array, from: number, part: number): void {
  const word = from + ((part / WORD) | 0)
  bits[word] = (bits[word] as number) | (1 << (part % WORD))
}
