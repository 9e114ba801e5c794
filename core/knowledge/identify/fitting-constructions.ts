import { constructionPlans, UNKNOWN_CONSTRUCTION } from '../constructions'
import { traitsOf, type ConstructionTraits } from './construction-traits'

/** What was answered; a question left out is not known. */
export type SeenTraits = Partial<ConstructionTraits>

/** A construction and how it agrees with what was seen. */
export interface FittingConstruction {
  readonly construction: string
  /** Questions whose answer does not fit it. */
  readonly against: ReadonlyArray<keyof ConstructionTraits>
}

let known: ReadonlyArray<{ readonly id: string; readonly traits: ConstructionTraits }> | null = null

/** The constructions that ship and what each shows; the generic one, which shows nothing of its own, is left out. */
export function knownTraits(): NonNullable<typeof known> {
  known ??= constructionPlans
    .filter((plan) => plan.id !== UNKNOWN_CONSTRUCTION)
    .map((plan) => ({ id: plan.id, traits: traitsOf(plan) }))
  return known
}

/**
 * Which constructions agree with what was felt and seen: all that fit; where none does, those that miss by one answer.
 *
 * @param seen the answers there are
 * @returns the fitting ones in the order they ship; empty where nothing is close
 * @example fittingConstructions({ current: 'cups' }) // [{ construction: 'axle-cup', against: [] }]
 */
export function fittingConstructions(seen: SeenTraits): FittingConstruction[] {
  const asked = (['wheels', 'motor', 'current'] as const).filter((question) => seen[question] !== undefined)
  const judged = knownTraits().map(({ id, traits }) => ({
    construction: id,
    against: asked.filter((question) => traits[question] !== seen[question]),
  }))
  const least = Math.min(...judged.map(({ against }) => against.length))
  return least > 1 ? [] : judged.filter(({ against }) => against.length === least)
}
