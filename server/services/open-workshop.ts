import { count } from 'drizzle-orm'
import { v7 as newId } from 'uuid'
import type { FirstOwner } from '../../messages/commands'
import { hashOf, runOnce } from '../commands/run-command'
import type { Actor } from '../commands/write'
import type { Database } from '../db/book'
import { person, setting } from '../db/schema'
import { hashPassword, mustBeOwnPassword } from '../passwords'
import { Problem } from '../problems'
import { newWorkshop } from './book-rows'

/** Makes the owner's account and names the workshop; only while there is no account at all. */
export async function openWorkshop(
  database: Database,
  { workshopName, name, signInName, password }: Omit<FirstOwner, 'code'>,
): Promise<Actor> {
  const owner: Actor = { id: newId(), name: name.trim() || signInName, role: 'owner' }
  mustBeOwnPassword(password, signInName, 'password')
  const passwordHash = await hashPassword(password)
  const now = new Date()
  await runOnce(
    database,
    {
      commandId: newId(),
      name: 'workshop.open',
      bodyHash: hashOf('workshop.open', signInName),
      actor: owner,
      capturedAt: now,
    },
    async (write) => {
      const [people] = await write.transaction.select({ rows: count() }).from(person).for('update')
      if ((people?.rows ?? 0) > 0)
        throw new Problem(403, 'already-open', 'This workshop has its owner already: sign in.')
      await write.transaction
        .insert(person)
        .values({ id: owner.id, signInName, name: owner.name, role: 'owner', active: true, passwordHash })
      const value = { ...newWorkshop, name: workshopName.trim() || newWorkshop.name }
      await write.transaction.insert(setting).values({ key: 'workshop', value, version: 1 })
      write.journal({
        subject: 'person',
        subjectId: owner.id,
        summary: `Workshop opened by ${owner.name}`,
        after: { signInName, name: owner.name, role: 'owner' },
      })
      return { id: owner.id }
    },
  )
  return owner
}
