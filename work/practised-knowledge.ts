import { checkKnowledge } from '../core/knowledge/check-knowledge'
import { changedKnowledge } from '../core/knowledge/knowledge-changes'
import type { Knowledge } from '../core/knowledge/knowledge-schema'
import { practised } from '../core/knowledge/schools-of-practice'
import type { EngineDescription } from '../core/engine/description-schema'
import { diagnosisKnowledge } from '../core/knowledge/diagnosis-knowledge'
import { schools } from '../core/knowledge/schools'
import type { Practice } from '../messages/book'

export const shippedPractice: Practice = { changes: null, version: 0, schools: {}, careRows: null }

/**
 * The knowledge an engine is judged by: what ships, the type's own changes, the shop's schools.
 *
 * @throws RangeError saying what is wrong with a copy that no longer holds together
 */
export function knowledgeOf({ changes, schools: chosen }: Practice, description: EngineDescription): Knowledge {
  const copy = changedKnowledge(diagnosisKnowledge, changes)
  const [flaw] = changes === null ? [] : checkKnowledge(copy)
  if (flaw)
    throw new RangeError(
      `What this type’s copy of the knowledge says does not hold together: ${flaw.message} Set that row back under “What we know” of the engine.`,
    )
  return practised(copy, schools, chosen, description)
}
