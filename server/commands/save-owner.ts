import { eq } from 'drizzle-orm'
import type { CommandPayload } from '../../messages/commands'
import { engine, owner } from '../db/schema'
import { refreshJobSearchText } from './job-search-text'
import type { Write } from './write'

export async function saveOwner(write: Write, { id, fields }: CommandPayload<'owner.save'>) {
  const { before, version } = await write.save(owner, id, 'owner', fields)
  write.journal({
    subject: 'owner',
    subjectId: id,
    summary: before ? `Owner ${fields.name} changed` : `Owner ${fields.name} entered`,
    before,
    after: fields,
  })
  if (before && before.name !== fields.name) await refreshJobSearchText(write, eq(engine.ownerId, id))
  return { id, version }
}
