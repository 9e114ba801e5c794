import { drawn } from './drawn'
import type { Evidence } from './evidence'
import { slotFactors, weightIn, type Leaf } from './leaves'

/**
 * One full set of a leaf, as likely as the leaf takes it for; always the same for the same number.
 *
 * @param index number of the draw: what is open is drawn by the same numbers in every leaf
 * @returns by slot its option, −1 where the suspect is absent
 */
export function drawnSet(evidence: Evidence, leaf: Leaf, index: number): Int16Array {
  const { options, firstOf } = evidence
  const factors = slotFactors(evidence, leaf)
  return leaf.core.map((core, slot) => {
    if (leaf.decided[slot] === 1) return core
    const first = firstOf[slot] as number
    let rest = drawn(index, options[first]?.suspect ?? 0) * (factors[slot] as number) - 1
    for (let option = first; rest > 0 && option < (firstOf[slot + 1] as number); option++) {
      if (leaf.open[option] !== 1 || option === core) continue
      rest -= weightIn(evidence, leaf, option)
      if (rest <= 0) return option
    }
    return core
  })
}
