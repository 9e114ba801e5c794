import type { TSchema } from 'typebox'
import { Ajv } from 'ajv'
import { applyDifferences } from '../core/engine/apply-differences'
import { checkDescription } from '../core/engine/check-description'
import { inPresentForm } from '../core/engine/older-description'
import { EngineDescription } from '../core/engine/description-schema'
import type { Difference } from '../core/engine/difference-schema'
import { describeConstruction } from '../core/knowledge/constructions'
import { problemsFrom } from '../messages/problem-sentences'
import { SentenceError } from './sentence-error'

/** Longest stretch of somebody's file that is quoted back. */
const QUOTED = 80

/** Reads a JSON file of a given form; a byte-order mark is read over. Throws a sentence with the place. */
export function readReckonFile<T>(schema: TSchema, text: string): T {
  let read: unknown
  try {
    read = JSON.parse(text.replace(/^\uFEFF/, ''))
  } catch (error) {
    throw new SentenceError(`This is not JSON: ${(error as Error).message}.`)
  }
  refuseUnless(schema, read, '')
  return read as T
}

/** The engine a file is about: a construction by its name, or a whole description. */
export function describedIn(file: { construction: unknown; power?: 'dc' | 'ac' | 'dcc' }): EngineDescription {
  const { construction, power } = file
  if (typeof construction === 'string') return describeConstruction(construction, power ?? 'dc')
  refuseUnless(EngineDescription, construction, 'construction')
  const flaw = checkDescription(construction as EngineDescription).find((problem) => problem.fatal)
  if (flaw) throw new SentenceError(`construction: ${flaw.message}`)
  return inPresentForm(construction as EngineDescription)
}

/** With its differences; the first that cannot be is named. */
export function adapted(
  description: EngineDescription,
  differences: readonly Difference[] | undefined,
): EngineDescription {
  if (!differences) return description
  const { description: changed, flagged } = applyDifferences(description, differences)
  const [flaw] = flagged
  if (flaw) throw new SentenceError(`differences.${flaw.index}: ${flaw.message}`)
  return changed
}

export const quoted = (id: string): string => (id.length > QUOTED ? `${id.slice(0, QUOTED)}…` : id)

function refuseUnless(schema: TSchema, value: unknown, place: string): void {
  const validate = new Ajv().compile(schema)
  if (validate(value)) return
  const [first] = problemsFrom(validate.errors ?? [])
  const choices = (validate.errors ?? []).map(({ params }) => params.allowedValues as unknown).find(Array.isArray)
  const where = [place, first?.field].filter(Boolean).join('.')
  const said = (where ? first?.message : first?.beside) ?? 'This is not right.'
  throw new SentenceError(`${where || 'The file'}: ${said}${choices ? ` Known are ${choices.join(', ')}.` : ''}`)
}
