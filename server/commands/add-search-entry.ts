import { repairsUntested } from '../../messages/effects'
import { eq } from 'drizzle-orm'
import type { CommandPayload } from '../../messages/commands'
import { engine, finding, job, searchEntry, searchReckoning } from '../db/schema'
import { cannotBeWritten, notInTheBook } from '../problems'
import { stepEngineState } from './step-engine-state'
import type { Write } from './write'

/** One step of the search for faults, on the state the engine is in; a repair without a finding begins the next. */
export async function addSearchEntry(write: Write, { id, jobId, entry }: CommandPayload<'search.add'>) {
  const itsJob = await write.lock(job, jobId, 'job')
  const [machine] = await write.transaction
    .select({ id: engine.id, stateNumber: engine.stateNumber })
    .from(engine)
    .where(eq(engine.id, itsJob.engineId))
    .for('update')
  if (!machine) throw notInTheBook('engine')
  if ((entry.kind === 'confirmed' || entry.kind === 'repaired') && entry.findingId !== null)
    await write.mustNotLieElsewhere(finding, entry.findingId, 'finding', { jobId })
  if (entry.kind === 'struck') await refuseUnlessStanding(write, jobId, entry.entryId)
  const steps = repairsUntested(entry)
  if (steps) await stepEngineState(write, machine)
  await write.transaction.insert(searchEntry).values({
    id,
    jobId,
    engineState: machine.stateNumber + (steps ? 1 : 0),
    entry,
    authorId: write.actor.id,
    capturedAt: write.capturedAt,
    receivedAt: write.receivedAt,
  })
  // What the server makes of it follows when it can; until then the step waits for it in the book.
  await write.transaction.insert(searchReckoning).values({ id, jobId })
  write.journal({ subject: 'search', subjectId: id, jobId, summary: summaryOf(entry), after: entry })
  return { id }
}

async function refuseUnlessStanding(write: Write, jobId: string, entryId: string): Promise<void> {
  const rows = await write.transaction.select().from(searchEntry).where(eq(searchEntry.jobId, jobId)).for('update')
  const struck = rows.find((row) => row.id === entryId)
  if (!struck) throw notInTheBook('step of the search')
  if (struck.entry.kind === 'struck')
    throw cannotBeWritten('Striking out cannot itself be struck out: note the outcome again.', 'entry.entryId')
  if (rows.some((row) => row.entry.kind === 'struck' && row.entry.entryId === entryId))
    throw cannotBeWritten('This step was struck out already.', 'entry.entryId')
}

const lead = {
  outcome: '',
  'could-not': 'Could not be done: ',
  confirmed: 'Confirmed: ',
  'ruled-out': 'Ruled out: ',
  repaired: 'Mended: ',
  struck: 'Struck out: ',
} as const

function summaryOf(entry: CommandPayload<'search.add'>['entry']): string {
  if (entry.kind === 'known')
    return `Known for the search: ${entry.circumstances.join(', ').replaceAll('-', ' ') || 'nothing of its past'}`
  const believed =
    'believed' in entry && entry.believed[0]
      ? ` (until then: ${entry.believed[0].words}, ${Math.round(entry.believed[0].chance * 100)} %)`
      : ''
  return `${lead[entry.kind]}${entry.words}${believed}`
}
