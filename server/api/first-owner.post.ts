import { timingSafeEqual } from 'node:crypto'
import { openAnswer } from '../answer'
import type { FirstOwner } from '../../messages/commands'
import { problemsOf } from '../../messages/validate'
import { logRefusedSignIn } from '../log-line'
import { Problem } from '../problems'
import { readJson, SMALL_BODY_BYTES } from '../read-json'
import { openWorkshop } from '../services/open-workshop'
import { beginSession } from '../sessions'
import { countTry, forgiveTries } from '../sign-in-throttle'

/** The first visitor of an empty workshop makes the owner's account with the code from the terminal. */
export default openAnswer(async (event, database) => {
  const message = await readJson<FirstOwner>(event, SMALL_BODY_BYTES)
  const problems = problemsOf('FirstOwner', message)
  if (problems.length > 0) throw new Problem(422, 'invalid', problems[0]?.message ?? '', { fields: problems })
  const address = getRequestIP(event) ?? 'unknown'
  const trying = { name: 'first-owner', address, knownDevice: null }
  await countTry(trying)
  const code = Buffer.from(process.env.ECHOPPE_FIRST_OWNER_CODE ?? '')
  const given = Buffer.from(message.code.trim().toLowerCase())
  if (code.length === 0 || code.length !== given.length || !timingSafeEqual(code, given)) {
    logRefusedSignIn(address, 'wrong code')
    throw new Problem(403, 'wrong-code', 'This is not the code that was printed in the terminal at the start.')
  }
  await forgiveTries(trying)
  const owner = await openWorkshop(database, message)
  await beginSession(event, database, owner.id)
  return { person: owner }
})
