import { and, eq, ne } from 'drizzle-orm'
import type { CommandPayload } from '../../messages/commands'
import { roles } from '../../messages/vocabulary'
import { person } from '../db/schema'
import { hashPassword, mustBeOwnPassword } from '../passwords'
import { cannotBeWritten } from '../problems'
import { endSessionsOf } from '../services/end-sessions'
import type { Write } from './write'

/** A person's account. There is always at least one active owner of the shop. */
export async function savePerson(write: Write, { id, fields, password }: CommandPayload<'person.save'>) {
  const [existing] = await write.transaction.select().from(person).where(eq(person.id, id)).for('update')
  if (!existing && password === null)
    throw cannotBeWritten('A new account needs a password of at least twelve characters.', 'password')
  const staysInCharge = fields.role === 'owner' && fields.active
  if (existing?.role === 'owner' && !staysInCharge) {
    const others = await write.transaction
      .select({ id: person.id })
      .from(person)
      .where(and(eq(person.role, 'owner'), eq(person.active, true), ne(person.id, id)))
    if (others.length === 0) throw cannotBeWritten('The shop needs at least one active owner’s account.', 'fields.role')
  }
  if (password !== null) mustBeOwnPassword(password, fields.signInName, 'password')
  const secret = password === null ? {} : { passwordHash: await hashPassword(password) }
  const { before, version } = await write.save(person, id, 'account', { ...fields, ...secret })
  // A new password, or none any more, ends what was signed in with the old one.
  if (before && (password !== null || !fields.active)) await endSessionsOf(write.transaction, id)
  const { passwordHash: _hidden, ...shown } = before ?? { passwordHash: '' }
  write.journal({
    subject: 'person',
    subjectId: id,
    summary: `Account ${fields.signInName} (${roles[fields.role]}) ${before ? 'changed' : 'entered'}${password && before ? ', new password' : ''}`,
    before: before ? shown : null,
    after: fields,
  })
  return { id, version }
}
