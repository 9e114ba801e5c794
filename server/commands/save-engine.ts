import { eq } from 'drizzle-orm'
import type { CommandPayload } from '../../messages/commands'
import { engine, engineType, job, owner } from '../db/schema'
import { refreshJobSearchText } from './job-search-text'
import type { Write } from './write'

export async function saveEngine(write: Write, { id, fields }: CommandPayload<'engine.save'>) {
  await write.lock(owner, fields.ownerId, 'owner')
  await write.lock(engineType, fields.typeId, 'engine type')
  const { before, version } = await write.save(engine, id, 'engine', fields)
  write.journal({
    subject: 'engine',
    subjectId: id,
    summary: `Engine ${fields.nickname || fields.runningNumber || 'without a name'} ${before ? 'changed' : 'entered'}`,
    before,
    after: fields,
  })
  if (before) await refreshJobSearchText(write, eq(job.engineId, id))
  return { id, version }
}
