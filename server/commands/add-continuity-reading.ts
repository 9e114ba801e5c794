import { eq } from 'drizzle-orm'
import { quantityProblem } from '../../messages/readings/recorded-quantity'
import type { CommandPayload } from '../../messages/commands'
import { continuityReading, engine, job } from '../db/schema'
import { cannotBeWritten, notInTheBook } from '../problems'
import type { Write } from './write'

/** One continuity reading, on the state the engine is in; an earlier one of the same place stays in the book. */
export async function addContinuityReading(write: Write, { id, jobId, fields }: CommandPayload<'continuity.add'>) {
  const problem =
    fields.reading.kind === 'ohms' ? quantityProblem('resistance', fields.reading.quantity, 'typed') : null
  if (problem) throw cannotBeWritten(problem, 'fields.reading.quantity')
  const itsJob = await write.lock(job, jobId, 'job')
  const [machine] = await write.transaction
    .select({ stateNumber: engine.stateNumber })
    .from(engine)
    .where(eq(engine.id, itsJob.engineId))
  if (!machine) throw notInTheBook('engine')
  await write.transaction.insert(continuityReading).values({
    id,
    jobId,
    engineState: machine.stateNumber,
    ...fields,
    authorId: write.actor.id,
    capturedAt: write.capturedAt,
    receivedAt: write.receivedAt,
  })
  write.journal({
    subject: 'continuity',
    subjectId: id,
    jobId,
    summary: `${fields.words}: ${inWords(fields.reading)}`,
    after: fields,
  })
  return { id }
}

function inWords(reading: CommandPayload<'continuity.add'>['fields']['reading']): string {
  return reading.kind === 'ohms' ? reading.quantity.typed : reading.kind === 'struck' ? 'struck out' : reading.kind
}
