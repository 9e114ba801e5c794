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

const NEVER = 0x7fffffff

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
  private readonly repairParts: ReadonlyArray<Int16Array>
  private readonly partCost: Float64Array
  /** By part: place in the order at which it comes off; −1 when it is off. */
  private readonly takenAt: Int32Array
  private readonly counted: Int32Array
  private readonly rank: Int32Array
  /** Groups behind the same parts. */
  private readonly clusters: ReadonlyArray<{ readonly parts: Int16Array; readonly groups: readonly number[] }>
  private readonly spentAfter: Float64Array
  private stamp = 1
  private readonly order: number[] = []

  /**
   * @param prices of every group and part
   * @param groups of each set: three group indices each, −1 where there is none
   */
  constructor({ lookMinutes, lookParts, repairParts, partCost }: GroupPrices, private readonly groups: Int16Array) {
    const count = lookMinutes.length
    this.groupChance = new Float64Array(count)
    this.lookMinutes = Float64Array.from(lookMinutes)
    this.repairParts = repairParts.map((parts) => Int16Array.from(parts))
    this.partCost = Float64Array.from(partCost)
    this.takenAt = new Int32Array(partCost.length)
    this.counted = new Int32Array(partCost.length)
    this.rank = new Int32Array(count)
    this.spentAfter = new Float64Array(count)
    const clusters = new Map<string, { parts: Int16Array; groups: number[] }>()
    for (const [group, parts] of lookParts.entries()) {
      const key = parts.join()
      const known = clusters.get(key)
      if (known) known.groups.push(group)
      else clusters.set(key, { parts: Int16Array.from(parts), groups: [group] })
    }
    this.clusters = [...clusters.values()]
  }

  /**
   * @param weights of the sets; they need not add up to one
   * @param count how many sets
   * @param off indices of the parts that are off
   * @returns minutes for weights that add up to one, otherwise times their sum
   */
  of(weights: Float64Array, count: number, off: Iterable<number>): number {
    const { groupChance, groups } = this
    groupChance.fill(0)
    for (let set = 0; set < count; set++) {
      const weight = weights[set] as number
      if (weight === 0) continue
      const [first, second, third] = [groups[set * 3] as number, groups[set * 3 + 1] as number, groups[set * 3 + 2] as number]
      if (first >= 0) groupChance[first] = (groupChance[first] as number) + weight
      if (second >= 0 && second !== first) groupChance[second] = (groupChance[second] as number) + weight
      if (third >= 0 && third !== first && third !== second) groupChance[third] = (groupChance[third] as number) + weight
    }
    this.putInOrder(off)
    let total = 0
    for (let set = 0; set < count; set++) {
      const weight = weights[set] as number
      if (weight > 0) total += weight * this.minutesFor(set)
    }
    return total
  }

  /** Down the order to the set's last fault, and what its own repairs have to take off besides. */
  private minutesFor(set: number): number {
    const { groups, spentAfter, takenAt, partCost, repairParts, counted } = this
    let minutes = 0
    let last = -1
    for (let at = set * 3; at < set * 3 + 3; at++) {
      const group = groups[at] as number
      if (group < 0 || (spentAfter[group] as number) <= minutes) continue
      minutes = spentAfter[group] as number
      last = this.rank[group] as number
    }
    const stamp = ++this.stamp
    for (let at = set * 3; at < set * 3 + 3; at++) {
      const group = groups[at] as number
      if (group < 0) continue
      const parts = repairParts[group] as Int16Array
      for (let index = 0; index < parts.length; index++) {
        const part = parts[index] as number
        if ((takenAt[part] as number) <= last || counted[part] === stamp) continue
        counted[part] = stamp
        minutes += partCost[part] as number
      }
    }
    return minutes
  }

  /**
   * Behind one cover lie several groups: opening it pays for them together. So the next step is always the cover, or
   * the bare look, whose best few groups together have most chance per minute.
   */
  private putInOrder(off: Iterable<number>): void {
    const { groupChance, lookMinutes, takenAt, partCost, order, clusters } = this
    order.length = 0
    takenAt.fill(NEVER)
    for (const part of off) takenAt[part] = -1
    const waiting = clusters.map(({ parts, groups }) => ({
      parts,
      groups: groups.filter((group) => (groupChance[group] as number) > 0).sort((first, second) => (groupChance[second] as number) / (lookMinutes[second] as number) - (groupChance[first] as number) / (lookMinutes[first] as number)),
      from: 0,
    })).filter((cluster) => cluster.groups.length > 0)
    let spent = 0
    while (waiting.length > 0) {
      let [best, bestRate, bestEnd] = [0, -1, 0]
      for (const [index, cluster] of waiting.entries()) {
        let minutes = 0
        for (const part of cluster.parts) if (takenAt[part] === NEVER) minutes += partCost[part] as number
        let chance = 0
        for (let at = cluster.from; at < cluster.groups.length; at++) {
          const group = cluster.groups[at] as number
          chance += groupChance[group] as number
          minutes += lookMinutes[group] as number
          if (chance / minutes > bestRate) [best, bestRate, bestEnd] = [index, chance / minutes, at + 1]
        }
      }
      const chosen = waiting[best] as (typeof waiting)[number]
      for (const part of chosen.parts) {
        if (takenAt[part] !== NEVER) continue
        takenAt[part] = order.length
        spent += partCost[part] as number
      }
      for (; chosen.from < bestEnd; chosen.from++) {
        const group = chosen.groups[chosen.from] as number
        spent += lookMinutes[group] as number
        this.rank[group] = order.push(group) - 1
        this.spentAfter[group] = spent
      }
      if (chosen.from >= chosen.groups.length) waiting.splice(best, 1)
    }
  }

  /** The groups in the order they would be mended, after the last call of `of`. */
  get sequence(): readonly number[] {
    return this.order
  }
}
