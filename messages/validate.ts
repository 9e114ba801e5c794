import type { ErrorObject } from 'ajv'
import { validators } from './generated/validators.js'

/** What is wrong with one field of a message, in a sentence. */
export interface FieldProblem {
  /** Path of the field, for example `fields.name`. */
  readonly field: string
  readonly message: string
}

/** Names a message can be checked by. */
export type MessageName = keyof typeof validators

/** Checks a message against its compiled schema; an empty list means it is sound. */
export function problemsOf(name: MessageName, message: unknown): FieldProblem[] {
  const validate = validators[name]
  if (validate(message)) return []
  const seen = new Set<string>()
  return (validate.errors ?? []).flatMap((error) => {
    const problem = { field: fieldOf(error), message: sentenceOf(error) }
    const key = `${problem.field}|${problem.message}`
    if (seen.has(key)) return []
    seen.add(key)
    return [problem]
  })
}

function fieldOf(error: ErrorObject): string {
  const path = error.instancePath.slice(1).replaceAll('/', '.')
  if (error.keyword === 'required') return [path, error.params.missingProperty as string].filter(Boolean).join('.')
  if (error.keyword === 'additionalProperties')
    return [path, error.params.additionalProperty as string].filter(Boolean).join('.')
  return path
}

function sentenceOf(error: ErrorObject): string {
  const name = fieldOf(error).split('.').at(-1) ?? ''
  const words = name.replace(/([A-Z])/g, ' $1').toLowerCase() || 'the message'
  switch (error.keyword) {
    case 'required':
      return `“${words}” is missing.`
    case 'additionalProperties':
      return `“${words}” is not known here.`
    case 'minLength':
      return error.params.limit === 1
        ? `“${words}” is empty.`
        : `“${words}” needs at least ${error.params.limit} characters.`
    case 'maxLength':
      return `“${words}” is longer than ${error.params.limit} characters.`
    case 'minItems':
      return error.params.limit === 1
        ? `“${words}” is empty.`
        : `“${words}” needs at least ${error.params.limit} entries.`
    case 'maxItems':
      return `“${words}” has more than ${error.params.limit} entries.`
    case 'uniqueItems':
      return `“${words}” names something twice.`
    case 'discriminator':
      return `“kind” is missing or none of the kinds known here.`
    case 'anyOf':
    case 'const':
      return `“${words}” is none of the forms known here.`
    case 'pattern':
      return `“${words}” is empty or not in the form expected.`
    case 'format':
    case 'formatMinimum':
    case 'formatMaximum':
      return `“${words}” is no date that can have been.`
    case 'enum':
      return `“${words}” is none of the choices.`
    case 'minimum':
    case 'exclusiveMinimum':
      return `“${words}” must be ${error.keyword === 'minimum' ? 'at least' : 'above'} ${error.params.limit}.`
    case 'maximum':
    case 'exclusiveMaximum':
      return `“${words}” must be at most ${error.params.limit}.`
    case 'type':
      return `“${words}” is not of the right kind: ${String(error.params.type).replace(',', ' or ')} is expected.`
    default:
      return `“${words}” ${error.message ?? 'is wrong'}.`
  }
}
