import { eq } from 'drizzle-orm'
import type { CommandPayload } from '../../messages/commands'
import { job, timer } from '../db/schema'
import type { Write } from './write'

/** Begins a wait that rings on every screen of the shop. */
export async function beginTimer(write: Write, { id, fields }: CommandPayload<'timer.begin'>) {
  const { jobId } = fields
  if (jobId !== null) await write.lock(job, jobId, 'job')
  await write.transaction.insert(timer).values({ id, ...fields, endsAt: new Date(fields.endsAt) })
  write.journal({
    subject: 'timer',
    subjectId: id,
    ...(jobId === null ? {} : { jobId }),
    summary: `Timer: ${fields.label}`,
    after: fields,
  })
  return { id }
}

/** Ends a wait; one that was stopped elsewhere a moment ago stays so. */
export async function stopTimer(write: Write, { id }: CommandPayload<'timer.stop'>) {
  const before = await write.lock(timer, id, 'timer')
  await write.transaction.update(timer).set({ stopped: true }).where(eq(timer.id, id))
  write.journal({
    subject: 'timer',
    subjectId: id,
    ...(before.jobId === null ? {} : { jobId: before.jobId }),
    summary: `Timer stopped: ${before.label}`,
  })
  return { id }
}
