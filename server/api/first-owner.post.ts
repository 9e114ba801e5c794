import { timingSafeEqual } from 'node:crypto'
import { openAnswer } from '../answer'
import type { FirstOwner } from '../../shared/messages/commands'
import { problemsOf } from '../../shared/validate'
import { Problem } from '../problems'
import { openWorkshop } from '../services/open-workshop'
import { countWrongTry, refuseWhenThrottled } from '../sign-in-throttle'

/** The first visitor of an empty workshop makes the owner's account with the code from the terminal. */
export default openAnswer(async (event, database) => {
  const message = await readBody<FirstOwner>(event)
  const problems = problemsOf('FirstOwner', message)
  if (problems.length > 0) throw new Problem(422, 'invalid', problems[0]?.message ?? '', { fields: problems })
  const address = getRequestIP(event) ?? 'unknown'
  await refuseWhenThrottled('first-owner', address)
  const code = Buffer.from(process.env.ECHOPPE_FIRST_OWNER_CODE ?? '')
  const given = Buffer.from(message.code.trim().toLowerCase())
  if (code.length === 0 || code.length !== given.length || !timingSafeEqual(code, given)) {
    await countWrongTry('first-owner', address)
    throw new Problem(403, 'wrong-code', 'This is not the code that was printed in the terminal at the start.')
  }
  const owner = await openWorkshop(database, message)
  await replaceUserSession(event, { user: { id: owner.id } })
  return { person: owner }
})
