import { eq } from 'drizzle-orm'
import type { NewPassword } from '../../../messages/commands'
import { problemsOf } from '../../../messages/validate'
import { answer } from '../../answer'
import { hashOf, runOnce } from '../../commands/run-command'
import { person } from '../../db/schema'
import { knownDevice } from '../../known-device'
import { logRefusedSignIn } from '../../log-line'
import { hashPassword, mustBeOwnPassword, passwordMatches } from '../../passwords'
import { notInTheBook, Problem } from '../../problems'
import { readJson, SMALL_BODY_BYTES } from '../../read-json'
import { endSessionsOf } from '../../services/end-sessions'
import { sessionNumber } from '../../sessions'
import { countTry, forgiveTries } from '../../sign-in-throttle'

/** Somebody's own new password; the one until now is asked for, and every other device is signed out. */
export default answer(async (event, database, actor) => {
  const message = await readJson<NewPassword>(event, SMALL_BODY_BYTES)
  const problems = problemsOf('NewPassword', message)
  if (problems.length > 0) throw new Problem(422, 'invalid', problems[0]?.message ?? '', { fields: problems })
  const [row] = await database.select().from(person).where(eq(person.id, actor.id))
  if (!row) throw notInTheBook('account')
  const address = getRequestIP(event) ?? 'unknown'
  const trying = { name: row.signInName, address, knownDevice: await knownDevice(event, row.signInName) }
  await countTry(trying)
  if (!(await passwordMatches(row.passwordHash, message.old).catch(() => false))) {
    logRefusedSignIn(address, 'wrong password', row.id)
    throw new Problem(403, 'wrong-password', 'This is not your password until now. Try again.')
  }
  await forgiveTries(trying)
  mustBeOwnPassword(message.password, row.signInName, 'password')
  const passwordHash = await hashPassword(message.password)
  // No trace of the password, not even a quick hash: what makes this entry itself is its number and whose it is.
  const head = {
    commandId: message.commandId,
    name: 'person.password',
    bodyHash: hashOf('person.password', actor.id),
    actor,
    capturedAt: new Date(),
  }
  const { repeated } = await runOnce(database, head, async (write) => {
    const before = await write.lock(person, actor.id, 'account')
    await write.transaction
      .update(person)
      .set({ passwordHash, version: before.version + 1 })
      .where(eq(person.id, actor.id))
    await endSessionsOf(write.transaction, actor.id, await sessionNumber(event))
    write.journal({ subject: 'person', subjectId: actor.id, summary: `${actor.name} took a new password` })
    return { id: actor.id }
  })
  return { changed: true, repeated }
})
