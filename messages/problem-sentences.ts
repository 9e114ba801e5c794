import type { ErrorObject } from 'ajv'

/** What is wrong with one field of a message, in a sentence. */
export interface FieldProblem {
  /** Path of the field, for example `fields.name`. */
  readonly field: string
  /** In a sentence that names the field. */
  readonly message: string
}
export interface FormProblem extends FieldProblem {
  /** The same beside the field itself, which need not be named there. */
  readonly beside: string
}

/** What a schema's check found wrong, each thing once. */
export function problemsFrom(errors: readonly ErrorObject[]): FormProblem[] {
  const seen = new Set<string>()
  return ofTheFormMeant(errors).flatMap((error) => {
    const field = fieldOf(error)
    const said = saidOf(error)
    const problem = { field, message: `${named(error, field)} ${said}.`, beside: `This ${said}.` }
    const key = `${problem.field}|${problem.message}`
    if (seen.has(key)) return []
    seen.add(key)
    return [problem]
  })
}

/** Where something may have one of several forms, the form that was meant is the one that fits but for something inside it. */
function ofTheFormMeant(errors: readonly ErrorObject[]): readonly ErrorObject[] {
  const choices = errors.filter(({ keyword }) => keyword === 'anyOf').toSorted((a, b) => depth(b) - depth(a))
  return choices.reduce<readonly ErrorObject[]>((left, choice) => {
    const inside = left.filter(({ schemaPath }) => schemaPath.startsWith(`${choice.schemaPath}/`))
    const formOf = (error: ErrorObject): string =>
      error.schemaPath.slice(choice.schemaPath.length + 1).split('/')[0] ?? ''
    const strangers = new Set(inside.filter((error) => notOfThisForm(error, choice)).map(formOf))
    const fitting = inside.filter((error) => !strangers.has(formOf(error)))
    const meant = fitting.length > 0 ? fitting : theOneBesideNothing(inside, formOf)
    if (meant.length === 0) return left
    return left.filter((error) => error !== choice && (!inside.includes(error) || meant.includes(error)))
  }, errors)
}

function named({ keyword }: ErrorObject, field: string): string {
  if (keyword === 'discriminator') return '“kind”'
  const pieces = field.split('.')
  const name = pieces.findLast((piece) => !/^\d+$/.test(piece)) ?? ''
  const words = name.replace(/([A-Z])/g, ' $1').toLowerCase() || 'the message'
  return pieces.at(-1) === name ? `“${words}”` : `An entry of “${words}”`
}

/** Whoever writes something does not mean that it is left out: of one form and nothing, the form. */
function theOneBesideNothing(
  inside: readonly ErrorObject[],
  formOf: (error: ErrorObject) => string,
): readonly ErrorObject[] {
  const written = inside.filter(({ keyword, params }) => keyword !== 'type' || params.type !== 'null')
  return written.length < inside.length && new Set(written.map(formOf)).size === 1 ? written : []
}

const depth = ({ instancePath }: ErrorObject): number => instancePath.split('/').length
const wholeForm = new Set(['type', 'const', 'enum', 'required', 'additionalProperties'])
function notOfThisForm({ keyword, instancePath }: ErrorObject, choice: ErrorObject): boolean {
  return instancePath === choice.instancePath && wholeForm.has(keyword)
}

function fieldOf(error: ErrorObject): string {
  const path = error.instancePath.slice(1).replaceAll('/', '.')
  if (error.keyword === 'required') return [path, error.params.missingProperty as string].filter(Boolean).join('.')
  if (error.keyword === 'additionalProperties')
    return [path, error.params.additionalProperty as string].filter(Boolean).join('.')
  return path
}

const grouped = new Intl.NumberFormat('en-GB')
function saidOf(error: ErrorObject): string {
  const { limit: bound } = error.params as { limit?: number | string }
  const limit = typeof bound === 'number' ? grouped.format(bound) : bound
  switch (error.keyword) {
    case 'required':
      return 'is missing'
    case 'additionalProperties':
      return 'is not known here'
    case 'minLength':
      return bound === 1 ? 'is empty' : `needs at least ${limit} characters`
    case 'maxLength':
      return `is longer than ${limit} characters`
    case 'minItems':
      return bound === 1 ? 'is empty' : `needs at least ${limit} entries`
    case 'maxItems':
      return `has more than ${limit} entries`
    case 'uniqueItems':
      return 'names something twice'
    case 'discriminator':
      return 'is missing or none of the kinds known here'
    case 'anyOf':
    case 'const':
      return 'is none of the forms known here'
    case 'pattern':
      return 'is empty or not in the form expected'
    case 'format':
    case 'formatMinimum':
    case 'formatMaximum':
      return 'is no date that can have been'
    case 'enum':
      return 'is none of the choices'
    case 'minimum':
      return `must be at least ${limit}`
    case 'exclusiveMinimum':
      return `must be above ${limit}`
    case 'maximum':
    case 'exclusiveMaximum':
      return `must be at most ${limit}`
    case 'type':
      if (error.params.type === 'integer') return 'must be a whole number'
      return `is not of the right kind: ${String(error.params.type).replace(',', ' or ')} is expected`
    default:
      return error.message ?? 'is wrong'
  }
}
