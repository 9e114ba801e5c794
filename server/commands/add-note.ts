import { cutText } from '../../messages/cut-text'
import type { CommandPayload } from '../../messages/commands'
import { job, note } from '../db/schema'
import { cannotBeWritten } from '../problems'
import type { Write } from './write'

/** A note or minutes at a station. Added only; a correction names the note it supersedes. */
export async function addNote(write: Write, { id, jobId, fields }: CommandPayload<'note.add'>) {
  if (fields.text.trim() === '' && fields.minutes === 0)
    throw cannotBeWritten('A note needs words or minutes.', 'fields.text')
  await write.lock(job, jobId, 'job')
  if (fields.supersedesId !== null) await write.lock(note, fields.supersedesId, 'note', { jobId })
  await write.transaction.insert(note).values({
    id,
    jobId,
    ...fields,
    authorId: write.actor.id,
    capturedAt: write.capturedAt,
    receivedAt: write.receivedAt,
  })
  write.journal({
    subject: 'note',
    subjectId: id,
    jobId,
    summary: cutText(fields.text, 200) || `${fields.minutes} minutes`,
    after: fields,
  })
  return { id }
}
