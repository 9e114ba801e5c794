import { eq } from 'drizzle-orm'
import type { CommandPayload } from '../../messages/commands'
import { stations } from '../../messages/vocabulary'
import { engine, job, sheet } from '../db/schema'
import { cannotBeWritten } from '../problems'
import type { Write } from './write'

/** Opens a test sheet or changes its conditions; its readings are entries of their own. */
export async function saveSheet(write: Write, { id, jobId, fields }: CommandPayload<'sheet.save'>) {
  const itsJob = await write.lock(job, jobId, 'job')
  const [machine] = await write.transaction
    .select({ stateNumber: engine.stateNumber })
    .from(engine)
    .where(eq(engine.id, itsJob.engineId))
  const { before, version } = await write.save(
    sheet,
    id,
    'sheet',
    fields,
    { jobId },
    { engineState: machine?.stateNumber ?? 0, openedAt: write.capturedAt },
  )
  if (before && before.station !== fields.station)
    throw cannotBeWritten('A sheet stays at the station it was opened at.', 'fields.station')
  write.journal({
    subject: 'sheet',
    subjectId: id,
    jobId,
    summary: before
      ? 'Conditions of the sheet changed'
      : `Sheet opened at ${stations.find((entry) => entry.id === fields.station)?.name}`,
    before,
    after: fields,
  })
  return { id, version }
}
