import { stations } from '../../messages/vocabulary'
import type { CommandPayload } from '../../messages/commands'
import { job } from '../db/schema'
import type { Write } from './write'

export async function moveJob(write: Write, { id, fields }: CommandPayload<'job.move'>) {
  await write.lock(job, id, 'job')
  const { before, version } = await write.save(job, id, 'job', fields)
  const station = stations.find((candidate) => candidate.id === fields.station)?.name
  const moved = before?.station !== fields.station
  write.journal({
    subject: 'job',
    subjectId: id,
    jobId: id,
    summary:
      fields.state === 'waiting'
        ? `Waiting: ${fields.waitingFor || 'for no stated reason'}`
        : moved
          ? `Moved to ${station}`
          : 'Back on the bench',
    before: before && { station: before.station, state: before.state, waitingFor: before.waitingFor },
    after: fields,
  })
  return { id, version }
}
