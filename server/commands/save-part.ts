import { partStates } from '../../messages/vocabulary'
import type { CommandPayload } from '../../messages/commands'
import { job, partWanted } from '../db/schema'
import type { Write } from './write'

export async function savePart(write: Write, { id, jobId, fields }: CommandPayload<'part.save'>) {
  await write.lock(job, jobId, 'job')
  const { before, version } = await write.save(partWanted, id, 'part', fields, { jobId })
  write.journal({
    subject: 'part',
    subjectId: id,
    jobId,
    summary: `${partStates[fields.state]}: ${fields.quantity} × ${fields.what}`,
    before,
    after: fields,
  })
  return { id, version }
}
