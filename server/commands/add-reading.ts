import { readingProblem } from '../../messages/check-reading'
import { readingKinds, type ReadingFields } from '../../messages/bench-entries'
import type { CommandPayload } from '../../messages/commands'
import { reading, sheet } from '../db/schema'
import { cannotBeWritten } from '../problems'
import type { Write } from './write'

/** A line of a sheet. It is never changed: a correction is a new line that supersedes it. */
export function addReading(write: Write, payload: CommandPayload<'reading.add'>) {
  return writeReading(write, payload, 'typed')
}

/** A line that was typed, or that an instrument measured. */
export async function writeReading(
  write: Write,
  { id, jobId, sheetId, supersedesId, fields }: CommandPayload<'reading.add'>,
  source: 'typed' | 'measured',
) {
  const problem = readingProblem(fields, source)
  if (problem) throw cannotBeWritten(problem.message, problem.field)
  await write.lock(sheet, sheetId, 'sheet', { jobId })
  if (supersedesId !== null) await write.lock(reading, supersedesId, 'reading', { sheetId })
  await write.transaction.insert(reading).values({
    id,
    sheetId,
    kind: fields.kind,
    direction: fields.direction,
    quantities: fields.quantities,
    vouched: fields.vouched,
    source,
    step: fields.step ?? '',
    struck: false,
    strikeReason: '',
    supersedesId,
    authorId: write.actor.id,
    capturedAt: write.capturedAt,
    receivedAt: write.receivedAt,
  })
  write.journal({
    subject: 'reading',
    subjectId: id,
    jobId,
    summary: `Reading: ${describe(fields)}`,
    after: { supersedesId, ...fields },
  })
  return { id }
}

function describe({ kind, direction, quantities, step }: ReadingFields): string {
  const typed = Object.entries(quantities)
    .map(([name, quantity]) => `${name} ${quantity?.typed ?? ''}`)
    .join(', ')
  return [step, readingKinds[kind].toLowerCase(), direction, typed].filter(Boolean).join(' ')
}
