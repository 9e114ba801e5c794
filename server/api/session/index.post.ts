import { randomUUID } from 'node:crypto'
import { and, eq } from 'drizzle-orm'
import type { SignIn } from '../../../messages/commands'
import { problemsOf } from '../../../messages/validate'
import { openAnswer } from '../../answer'
import { person } from '../../db/schema'
import { knownDevice, rememberDevice } from '../../known-device'
import { logRefusedSignIn } from '../../log-line'
import { hashPassword, passwordMatches } from '../../passwords'
import { Problem } from '../../problems'
import { readJson, SMALL_BODY_BYTES } from '../../read-json'
import { beginSession } from '../../sessions'
import { countTry, forgiveTries } from '../../sign-in-throttle'

/** Compared against when the name is unknown, so that the answer takes as long as for a known one. */
const nobodysHash = hashPassword(randomUUID())

export default openAnswer(async (event, database) => {
  const message = await readJson<SignIn>(event, SMALL_BODY_BYTES)
  const problems = problemsOf('SignIn', message)
  if (problems.length > 0) throw new Problem(422, 'invalid', 'Type your name and your password.', { fields: problems })
  const name = message.signInName.trim().toLowerCase()
  const address = getRequestIP(event) ?? 'unknown'
  const trying = { name, address, knownDevice: await knownDevice(event, name) }
  await countTry(trying).catch((error: unknown) => {
    if (error instanceof Problem) logRefusedSignIn(address, 'throttled')
    throw error
  })
  const [row] = await database
    .select()
    .from(person)
    .where(and(eq(person.signInName, name), eq(person.active, true)))
  const matches = await passwordMatches(row?.passwordHash ?? (await nobodysHash), message.password).catch(() => false)
  if (!row || !matches) {
    logRefusedSignIn(address, row ? 'wrong password' : 'unknown name', row?.id)
    throw new Problem(401, 'wrong-sign-in', 'Name and password do not go together. Try again.')
  }
  await forgiveTries(trying)
  await beginSession(event, database, row.id)
  await rememberDevice(event, name)
  return { person: { id: row.id, name: row.name, role: row.role } }
})
