import type { EngineDescription } from '../engine/description-schema'
import type { Knowledge } from './knowledge-schema'
import { placesOf } from '../diagnosis/places/places-of'
import { suspectsOf } from '../diagnosis/places/suspects'

/** What closed jobs found: how many jobs, and at how many places of them each fault was confirmed. */
export interface FaultTally {
  readonly jobs: number
  /** By fault id. */
  readonly found: Readonly<Record<string, number>>
}

export interface LearnedPrior {
  readonly fault: string
  /** Chance at one place as the knowledge ships it. */
  readonly shipped: number
  /** The same with the shop's own jobs counted in. */
  readonly now: number
  /** Found at so many of so many places, of machines made alike and of the very type. */
  readonly found: number
  readonly places: number
  /** What the odds are multiplied by. */
  readonly factor: number
}

/** How many places the shipped figure, and the figure of the construction against the type, are worth; judged. */
export const SHIPPED_WORTH = 20
export const CONSTRUCTION_WORTH = 10

/**
 * The mean of a chance after so many of so many: the conjugate update of a Beta prior by Binomial counts.
 *
 * @param mean before
 * @param worth in observations
 */
export function updatedChance(mean: number, worth: number, found: number, of: number): number {
  return (worth * mean + Math.min(found, of)) / (worth + of)
}

/**
 * What the shop's closed jobs make of the shipped chances of an engine's faults: first by machines of the same
 * construction, then by those of the very type.
 *
 * @param description the engine: says at how many places each fault can be
 * @param knowledge checked
 * @param construction jobs on the same construction, without those on the type itself
 * @param type jobs on the same type
 * @returns only faults whose chance has moved
 */
export function learnedPriors(
  description: EngineDescription,
  knowledge: Knowledge,
  construction: FaultTally,
  type: FaultTally,
): LearnedPrior[] {
  if (construction.jobs + type.jobs === 0) return []
  const placesPerFault = new Map<string, number>()
  for (const { fault } of suspectsOf(description, placesOf(description), knowledge, new Set()))
    placesPerFault.set(fault.id, (placesPerFault.get(fault.id) ?? 0) + 1)
  return knowledge.faults.flatMap((fault): LearnedPrior[] => {
    const places = placesPerFault.get(fault.id) ?? 0
    if (places === 0) return []
    const found = (tally: FaultTally): number => tally.found[fault.id] ?? 0
    const ofConstruction = updatedChance(fault.prior, SHIPPED_WORTH, found(construction), construction.jobs * places)
    const now = updatedChance(ofConstruction, CONSTRUCTION_WORTH, found(type), type.jobs * places)
    return [
      {
        fault: fault.id,
        shipped: fault.prior,
        now,
        found: found(construction) + found(type),
        places: (construction.jobs + type.jobs) * places,
        factor: odds(now) / odds(fault.prior),
      },
    ]
  })
}

function odds(chance: number): number {
  return chance / (1 - chance)
}
