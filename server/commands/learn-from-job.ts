import { notesWith } from '../../messages/effects'
import { eq } from 'drizzle-orm'
import type { CommandPayload } from '../../messages/commands'
import { engine, engineType, job, learned } from '../db/schema'
import { cannotBeWritten, notInTheBook } from '../problems'
import type { Write } from './write'

const MOST_NOTES = 8000

/** What a closed job adds to what the shop knows of machines made alike, and of this type. */
export async function learnFromJob(write: Write, { id, jobId, fields }: CommandPayload<'knowledge.learn'>) {
  const itsJob = await write.lock(job, jobId, 'job')
  const [machine] = await write.transaction
    .select({ typeId: engine.typeId })
    .from(engine)
    .where(eq(engine.id, itsJob.engineId))
  if (!machine) throw notInTheBook('engine')
  const type = await write.lock(engineType, machine.typeId, 'engine type')
  const note = fields.typeNote.trim()
  if (note !== '') {
    const notes = notesWith(type.notes, note)
    if (notes.length > MOST_NOTES)
      throw cannotBeWritten(
        `The notes on ${type.maker} ${type.name} are full: shorten them at the type first.`,
        'fields.typeNote',
      )
    await write.transaction
      .update(engineType)
      .set({ notes, version: type.version + 1 })
      .where(eq(engineType.id, type.id))
    write.journal({
      subject: 'engine-type',
      subjectId: type.id,
      jobId,
      summary: `Noted of ${type.maker} ${type.name}: ${note}`,
      before: { notes: type.notes },
      after: { notes },
    })
  }
  const { suspects, withdrawn } = fields
  await write.transaction.insert(learned).values({
    id,
    jobId,
    typeId: type.id,
    construction: type.templateId ?? type.construction,
    suspects,
    withdrawn,
    authorId: write.actor.id,
    capturedAt: write.capturedAt,
    receivedAt: write.receivedAt,
  })
  write.journal({
    subject: 'knowledge',
    subjectId: id,
    jobId,
    summary: withdrawn
      ? 'What this job taught was taken back'
      : `Added to what the shop knows: ${suspects.length === 0 ? 'no fault confirmed' : suspects.length === 1 ? 'one fault' : `${suspects.length} faults`}`,
    after: fields,
  })
  return { id }
}
