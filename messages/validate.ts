import { validators } from './generated/validators.js'
import { problemsFrom, type FieldProblem } from './problem-sentences'

/** Names a message can be checked by. */
export type MessageName = keyof typeof validators

/** Checks a message against its compiled schema; an empty list means it is sound. */
export function problemsOf(name: MessageName, message: unknown): FieldProblem[] {
  const validate = validators[name]
  return validate(message) ? [] : problemsFrom(validate.errors ?? []).map(({ field, message }) => ({ field, message }))
}
