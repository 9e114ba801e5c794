import { checkKnowledge } from '../core/diagnosis/check-knowledge'
import { changedKnowledge, type KnowledgeChanges } from '../core/diagnosis/knowledge-changes'
import type { Knowledge } from '../core/diagnosis/knowledge-schema'
import { practised, type ChosenSchools } from '../core/diagnosis/schools-of-practice'
import type { EngineDescription } from '../core/engine/description-schema'
import { diagnosisKnowledge } from '../core/knowledge/diagnosis-knowledge'
import { schools } from '../core/knowledge/schools'

/** What this shop makes of the knowledge that ships, for one type of engine. */
export interface Practice {
  /** The type's own copy, as it departs from what ships; null while it has none. */
  readonly changes: KnowledgeChanges | null
  /** Of the copy; 0 while there is none. */
  readonly version: number
  readonly schools: ChosenSchools
}

export const shippedPractice: Practice = { changes: null, version: 0, schools: {} }

/**
 * The knowledge an engine is judged by: what ships, the type's own changes, the shop's schools.
 *
 * @throws RangeError saying what is wrong with a copy that no longer holds together
 */
export function knowledgeOf({ changes, schools: chosen }: Practice, description: EngineDescription): Knowledge {
  const copy = changedKnowledge(diagnosisKnowledge, changes)
  const [flaw] = changes === null ? [] : checkKnowledge(copy)
  if (flaw) throw new RangeError(`What this type’s copy of the knowledge says does not hold together: ${flaw.message} Set that row back under “What we know” of the engine.`)
  return practised(copy, schools, chosen, description)
}
