import { eq } from 'drizzle-orm'
import { mends } from '../../messages/effects'
import { findingStates } from '../../messages/vocabulary'
import type { CommandPayload } from '../../messages/commands'
import { engine, finding, job } from '../db/schema'
import { addSearchEntry } from './add-search-entry'
import { addStripEntry } from './add-strip-entry'
import { stepEngineState } from './step-engine-state'
import type { Write } from './write'

/**
 * A finding belongs to the engine's state it was made in; mending one begins the next state. What it says to the search
 * and how it came up in taking apart stand or fall with it.
 */
export async function saveFinding(write: Write, { id, jobId, fields, search, strip }: CommandPayload<'finding.save'>) {
  const itsJob = await write.lock(job, jobId, 'job')
  const [machine] = await write.transaction
    .select({ id: engine.id, stateNumber: engine.stateNumber })
    .from(engine)
    .where(eq(engine.id, itsJob.engineId))
    .for('update')
  const { before, version } = await write.save(
    finding,
    id,
    'finding',
    fields,
    { jobId },
    { engineState: machine?.stateNumber ?? 0, notedAt: write.capturedAt },
  )
  if (machine && mends(before, fields)) await stepEngineState(write, machine)
  write.journal({
    subject: 'finding',
    subjectId: id,
    jobId,
    summary: !before
      ? `${findingStates[fields.state]}: ${fields.what}`
      : before.state !== fields.state
        ? `${findingStates[fields.state]} (was ${findingStates[before.state].toLowerCase()}): ${fields.what}`
        : `Finding changed: ${fields.what}`,
    before,
    after: fields,
  })
  if (search) await addSearchEntry(write, { jobId, ...search })
  if (strip) await addStripEntry(write, { jobId, ...strip })
  return { id, version }
}
