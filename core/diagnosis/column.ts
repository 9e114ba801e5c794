import { grown } from './grown'
import type { HypothesisSets } from './hypothesis-sets'

/** Chance of one outcome of a test in every set, worked out where it is asked for and kept. */
export class Column {
  /** By set; not a number where it was never asked for. */
  values: Float64Array
  private baseKnown = false

  constructor(
    private readonly sets: HypothesisSets,
    private readonly chance: (set: number) => number,
  ) {
    this.values = new Float64Array(sets.odds.length).fill(Number.NaN)
  }

  /** Works it out for the sets of none, one and two. */
  fillBase(): void {
    if (this.baseKnown) return
    for (let set = 0; set < this.sets.base; set++) this.values[set] = this.chance(set)
    this.baseKnown = true
  }

  /** Works it out where it is not known yet. */
  at(set: number): number {
    if (set >= this.values.length) this.values = grown(this.values, this.sets.odds.length, Number.NaN)
    const known = this.values[set] as number
    return Number.isNaN(known) ? (this.values[set] = this.chance(set)) : known
  }
}
