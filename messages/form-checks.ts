import type { ValidateFunction } from 'ajv'
import type { FormMessage } from './form-messages'
import { problemsFrom, type FormProblem } from './problem-sentences'

/** Each is fetched when it is first needed. */
const checks = {
  'owner.save': () => import('./generated/form-checks/owner.save.js'),
  'engine-type.save': () => import('./generated/form-checks/engine-type.save.js'),
  'engine.save': () => import('./generated/form-checks/engine.save.js'),
  'component.save': () => import('./generated/form-checks/component.save.js'),
  'job.take-in': () => import('./generated/form-checks/job.take-in.js'),
  'job.edit': () => import('./generated/form-checks/job.edit.js'),
} satisfies Record<FormMessage, () => Promise<{ default: ValidateFunction }>>

/** All that is wrong with what a form would send; an empty list means that the server will take it. */
export async function formProblemsOf(name: FormMessage, message: unknown): Promise<FormProblem[]> {
  const { default: validate } = await checks[name]()
  return validate(message) ? [] : problemsFrom(validate.errors ?? [])
}
