import { lineInWords, readingProblem } from '../../messages/readings/reading-kinds'
import type { CommandPayload } from '../../messages/commands'
import { reading, sheet } from '../db/schema'
import { cannotBeWritten } from '../problems'
import { readingColumns } from '../db/reading-columns'
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
    ...readingColumns(fields),
    source,
    struck: false,
    strikeReason: '',
    supersedesId,
    authorId: write.actor.id,
    capturedAt: write.capturedAt,
    receivedAt: write.receivedAt,
  })
  const { words, values } = lineInWords(fields)
  write.journal({
    subject: 'reading',
    subjectId: id,
    jobId,
    summary: `Reading: ${[words, ...values].join(' ')}`,
    after: { supersedesId, ...fields },
  })
  return { id }
}
