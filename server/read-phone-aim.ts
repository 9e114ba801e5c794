import type { H3Event } from 'h3'
import type { PhoneAim } from '../messages/photograph-entries'
import { problemsOf } from '../messages/validate'
import { Problem } from './problems'
import { readJson } from './read-json'

const LARGEST_BYTES = 4096

/** Where pictures are to stand, from the body. */
export async function readPhoneAim(event: H3Event): Promise<PhoneAim> {
  const body = await readJson(event, LARGEST_BYTES)
  const problems = problemsOf('PhoneAim', body)
  if (problems.length > 0) throw new Problem(422, 'invalid', problems[0]?.message ?? '', { fields: problems })
  return body as PhoneAim
}
