import { eq } from 'drizzle-orm'
import type { CommandPayload } from '../../messages/commands'
import { engine, job } from '../db/schema'
import { lockParcelOf } from './in-parcel'
import { refreshJobSearchText } from './job-search-text'
import type { Write } from './write'

export async function editJob(write: Write, { id, fields }: CommandPayload<'job.edit'>) {
  const { engineId } = await write.lock(job, id, 'job')
  if (fields.parcelId) {
    const { ownerId } = await write.lock(engine, engineId, 'engine')
    await lockParcelOf(write, fields.parcelId, ownerId)
  }
  const { before, version } = await write.save(job, id, 'job', fields)
  write.journal({
    subject: 'job',
    subjectId: id,
    jobId: id,
    summary: 'What was taken in was changed',
    before,
    after: fields,
  })
  if (before?.complaint !== fields.complaint) await refreshJobSearchText(write, eq(job.id, id))
  return { id, version }
}
