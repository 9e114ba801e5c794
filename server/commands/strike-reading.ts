import { struckOrBack } from '../../messages/effects'
import { eq } from 'drizzle-orm'
import type { CommandPayload } from '../../messages/commands'
import { reading, sheet } from '../db/schema'
import { cannotBeWritten } from '../problems'
import type { Write } from './write'

/** Strikes a line out by a later line; striking a struck line brings it back the same way. */
export async function strikeReading(
  write: Write,
  { id, jobId, sheetId, readingId, reason }: CommandPayload<'reading.strike'>,
) {
  await write.lock(sheet, sheetId, 'sheet', { jobId })
  const line = await write.lock(reading, readingId, 'reading', { sheetId })
  const [later] = await write.transaction
    .select({ id: reading.id })
    .from(reading)
    .where(eq(reading.supersedesId, readingId))
  if (later) throw cannotBeWritten('This line was already corrected or struck out by a later one.', 'readingId')
  const said = struckOrBack(line, reason)
  await write.transaction.insert(reading).values({
    ...line,
    id,
    ...said,
    authorId: write.actor.id,
    capturedAt: write.capturedAt,
    receivedAt: write.receivedAt,
  })
  write.journal({
    subject: 'reading',
    subjectId: id,
    jobId,
    summary: said.struck ? `Reading struck out${reason ? `: ${reason}` : ''}` : 'Struck reading brought back',
    before: { readingId },
    after: { struck: said.struck, reason },
  })
  return { id }
}
