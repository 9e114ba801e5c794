import type { CommandPayload } from '../../messages/commands'
import { learned } from '../db/schema'
import type { Write } from './write'

/** From now on what was learned before does not count; it stays in the book. */
export async function forgetLearned(write: Write, { id, fields }: CommandPayload<'knowledge.forget'>) {
  await write.transaction.insert(learned).values({
    id,
    jobId: null,
    typeId: null,
    construction: fields.construction,
    suspects: [],
    withdrawn: false,
    authorId: write.actor.id,
    capturedAt: write.capturedAt,
    receivedAt: write.receivedAt,
  })
  write.journal({
    subject: 'knowledge',
    subjectId: id,
    summary:
      fields.construction === null
        ? 'What the shop had learned was set back to what ships'
        : `What was learned of “${fields.construction}” was set back to what ships`,
    after: fields,
  })
  return { id }
}
