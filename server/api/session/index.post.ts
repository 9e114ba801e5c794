import { randomUUID } from 'node:crypto'
import { and, eq } from 'drizzle-orm'
import type { SignIn } from '../../../shared/messages/commands'
import { problemsOf } from '../../../shared/validate'
import { openAnswer } from '../../answer'
import { person } from '../../db/schema'
import { hashPassword, passwordMatches } from '../../passwords'
import { Problem } from '../../problems'
import { countWrongTry, forgetWrongTries, refuseWhenThrottled } from '../../sign-in-throttle'

/** Compared against when the name is unknown, so that the answer takes as long as for a known one. */
const nobodysHash = hashPassword(randomUUID())

export default openAnswer(async (event, database) => {
  const message = await readBody<SignIn>(event)
  const problems = problemsOf('SignIn', message)
  if (problems.length > 0) throw new Problem(422, 'invalid', 'Type your name and your password.', { fields: problems })
  const name = message.signInName.trim().toLowerCase()
  const address = getRequestIP(event) ?? 'unknown'
  await refuseWhenThrottled(name, address)
  const [row] = await database.select().from(person).where(and(eq(person.signInName, name), eq(person.active, true)))
  const matches = await passwordMatches(row?.passwordHash ?? await nobodysHash, message.password).catch(() => false)
  if (!row || !matches) {
    await countWrongTry(name, address)
    throw new Problem(401, 'wrong-sign-in', 'Name and password do not go together. Try again.')
  }
  await forgetWrongTries(name)
  await replaceUserSession(event, { user: { id: row.id } })
  return { person: { id: row.id, name: row.name, role: row.role } }
})
