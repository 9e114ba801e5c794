import { grown } from './grown'
import type { HypothesisSpace } from './hypothesis-space'
import { chancesAgain, looksKey, type EarlierLook } from './repeated-looks'

/** So many sets have a place at most; with more than that everything is begun anew. */
const MOST_PLACES = 8192

interface Table {
  /** State and earlier looks it holds for. */
  readonly key: string
  /** By place and outcome; not a number where it was never asked for. */
  values: Float64Array
}

/**
 * Chance of every outcome of every test in the sets that were ever among the likeliest. From one finding to the next
 * these stay much the same, and what a test says of a set changes only when a look is taken that bears on it.
 */
export class OutcomeTables {
  /** By set: its place; −1 where it has none. */
  private places = new Int32Array(0)
  private taken = 0
  private readonly tables = new Map<number, Table>()

  constructor(private readonly space: HypothesisSpace) {}

  /**
   * @param sets those asked for
   * @param state of the engine
   * @returns of a test, by set as they stand in `sets`, the chance of each outcome after such earlier looks
   */
  of(sets: Int32Array, state: number): (test: number, before: readonly EarlierLook[]) => Float64Array {
    const places = this.placesOf(sets)
    return (test, before) => {
      const count = this.space.engine.tests[test]?.test.outcomes.length ?? 0
      const table = this.table(test, `${state}${looksKey(before)}`, count)
      const { values } = table
      const found = new Float64Array(sets.length * count)
      let work: ((set: number) => Float64Array) | null = null
      for (let at = 0; at < sets.length; at++) {
        const from = (places[at] as number) * count
        if (Number.isNaN(values[from] as number)) {
          work ??= chancesAgain(this.space, state, test, before)
          const out = work(sets[at] as number)
          for (let outcome = 0; outcome < count; outcome++) values[from + outcome] = out[outcome] as number
        }
        for (let outcome = 0; outcome < count; outcome++) found[at * count + outcome] = values[from + outcome] as number
      }
      return found
    }
  }

  private placesOf(sets: Int32Array): Int32Array {
    if (this.taken + sets.length > MOST_PLACES) {
      this.places = new Int32Array(0)
      this.taken = 0
      this.tables.clear()
    }
    if (this.places.length < this.space.sets.count) this.places = grown(this.places, this.space.sets.odds.length, -1)
    const { places } = this
    const found = new Int32Array(sets.length)
    for (let at = 0; at < sets.length; at++) {
      const set = sets[at] as number
      if ((places[set] as number) < 0) places[set] = this.taken++
      found[at] = places[set] as number
    }
    return found
  }

  /** The table of a test, with room for every place; of another state or after other looks it is begun anew. */
  private table(test: number, key: string, count: number): Table {
    const known = this.tables.get(test)
    const length = this.taken * count
    if (known?.key === key) {
      if (known.values.length < length)
        known.values = grown(known.values, Math.max(length, known.values.length * 2), Number.NaN)
      return known
    }
    const made: Table = { key, values: new Float64Array(length).fill(Number.NaN) }
    this.tables.set(test, made)
    return made
  }
}
