import type { Column } from './column'
import type { HypothesisSets } from './hypothesis-sets'

/**
 * What every set weighs after some findings: its odds before, times the chance of each finding. A search grows by one
 * finding at a time, so what a set weighed before is kept and only what is new is multiplied on; where the findings
 * are others, all is begun anew. However many findings there are: after each the likeliest set of fewer than three
 * weighs one.
 */
export class SetWeights {
  private columns: readonly Column[] = []
  private scales: number[] = []
  private weights: Float64Array
  /** By set: how many of the findings its weight has in it. */
  private upTo: Int32Array

  constructor(private readonly sets: HypothesisSets) {
    this.weights = sets.odds.slice()
    this.upTo = new Int32Array(sets.odds.length)
  }

  /** Goes over to these findings; the sets of none, one and two are weighed at once. */
  follow(columns: readonly Column[]): void {
    const { sets } = this
    if (this.columns.length > columns.length || this.columns.some((column, index) => column !== columns[index])) {
      this.weights = sets.odds.slice()
      this.upTo = new Int32Array(sets.odds.length)
      this.scales = []
    }
    this.columns = columns
    const { weights, scales, upTo } = this
    for (let at = scales.length; at < columns.length; at++) {
      const column = columns[at] as Column
      column.fillBase()
      const { values } = column
      let most = 0
      for (let set = 0; set < sets.base; set++)
        most = Math.max(most, (weights[set] = (weights[set] as number) * (values[set] as number)))
      for (let set = 0; set < sets.base; set++) weights[set] = (weights[set] as number) / most
      scales.push(most)
    }
    upTo.fill(columns.length, 0, sets.base)
  }

  /** Of the sets of none, one and two. */
  get base(): Float64Array {
    return this.weights.subarray(0, this.sets.base)
  }

  /** Of these sets; what the findings say of them is worked out where it is not known yet. */
  of(chosen: Int32Array): Float64Array {
    const { columns, scales, sets } = this
    if (this.weights.length < sets.count) {
      const [weights, upTo] = [sets.odds.slice(), new Int32Array(sets.odds.length)]
      weights.set(this.weights)
      upTo.set(this.upTo)
      this.weights = weights
      this.upTo = upTo
    }
    const { weights, upTo } = this
    const found = new Float64Array(chosen.length)
    for (let at = 0; at < chosen.length; at++) {
      const set = chosen[at] as number
      let known = upTo[set] as number
      let weight = known === 0 ? (sets.odds[set] as number) : (weights[set] as number)
      for (; known < columns.length; known++)
        weight = (weight * (columns[known] as Column).at(set)) / (scales[known] as number)
      weights[set] = weight
      upTo[set] = known
      found[at] = weight
    }
    return found
  }
}
