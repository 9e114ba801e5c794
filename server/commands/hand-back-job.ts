import { handedBack } from '../../messages/effects'
import type { CommandPayload } from '../../messages/commands'
import { job } from '../db/schema'
import type { Write } from './write'

export async function handBackJob(write: Write, { id, fields }: CommandPayload<'job.hand-back'>) {
  const current = await write.lock(job, id, 'job')
  const { before, version } = await write.save(job, id, 'job', {
    ...handedBack(fields),
    handedBackAt: current.handedBackAt ?? write.capturedAt,
  })
  write.journal({
    subject: 'job',
    subjectId: id,
    jobId: id,
    summary: before?.state === 'handed-back' ? 'The hand-back sheet was changed' : `Job ${current.number} handed back`,
    before: before && { state: before.state, handBack: before.handBack },
    after: fields,
  })
  return { id, version }
}
