import { SeededRandom } from '../../bench/casualty/random'
import type { Knowledge } from '../../core/knowledge/knowledge-schema'

/** The knowledge with every prior and every sign’s odds up to twice too high or too low. */
export function perturbedKnowledge(knowledge: Knowledge, seed: number): Knowledge {
  const random = new SeededRandom(seed)
  const off = (chance: number, most: number): number => {
    const odds = (chance / (1 - chance)) * 2 ** random.between(-1, 1)
    return Math.min(most, Math.max(0.0005, odds / (1 + odds)))
  }
  return {
    ...knowledge,
    faults: knowledge.faults.map((fault) => ({
      ...fault,
      prior: off(fault.prior, 0.5),
      signs: fault.signs.map((sign) => ({ ...sign, chance: off(sign.chance, 0.99) })),
    })),
  }
}
