import { checkKnowledge, type KnowledgeFlaw } from '../../core/knowledge/check-knowledge'
import { changesBetween, type KnowledgeChanges } from '../../core/knowledge/knowledge-changes'
import type { Knowledge } from '../../core/knowledge/knowledge-schema'
import { knowledgeInTodaysForm } from '../../core/knowledge/older-knowledge'
import { diagnosisKnowledge } from '../../core/knowledge/diagnosis-knowledge'
import { problemsOf } from '../../messages/validate'

export interface CheckedKnowledgeFile {
  /** What is wrong with it, row by row; empty when it can be used. */
  readonly flaws: readonly KnowledgeFlaw[]
  /** How it departs from what ships; null while anything is wrong. */
  readonly changes: KnowledgeChanges | null
}

const MOST_FLAWS = 40

/** A knowledge file somebody brings, of today's form or an earlier one: by its schema first, then whether its rows hold together. */
export function checkKnowledgeFile(brought: unknown): CheckedKnowledgeFile {
  if (typeof brought !== 'object' || brought === null || Array.isArray(brought))
    return {
      flaws: [
        { place: 'the file', message: 'This is no file of knowledge: one holds lists of faults, tests and remedies.' },
      ],
      changes: null,
    }
  const file = knowledgeInTodaysForm(brought)
  const problems = problemsOf('Knowledge', file)
  if (problems.length > 0)
    return {
      flaws: problems.slice(0, MOST_FLAWS).map(({ field, message }) => ({ place: placeIn(file, field), message })),
      changes: null,
    }
  const knowledge = file as Knowledge
  const flaws = checkKnowledge(knowledge)
  return flaws.length > 0
    ? { flaws: flaws.slice(0, MOST_FLAWS), changes: null }
    : { flaws: [], changes: changesBetween(diagnosisKnowledge, knowledge) }
}

/** As whoever wrote the file knows the row: by its id, where it has one, and not by its number. */
function placeIn(file: unknown, field: string): string {
  const [list = '', number = '', ...rest] = field.split('.')
  const id = (file as Record<string, ReadonlyArray<{ id?: unknown } | null> | undefined>)[list]?.[Number(number)]?.id
  return typeof id === 'string' && id !== '' ? [list, id, ...rest].join('/') : field
}
