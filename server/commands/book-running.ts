import { and, desc, eq, isNotNull } from 'drizzle-orm'
import { v7 as newId } from 'uuid'
import type { CommandPayload } from '../../messages/commands'
import { engine, runningEntry } from '../db/schema'
import { cannotBeWritten } from '../problems'
import type { Write } from './write'

/** Hours of one engine or of a whole roster: by what was typed, or by what its meter shows more than before. */
export async function bookRunning(write: Write, { id, fields }: CommandPayload<'running.book'>) {
  const { day, show } = fields
  const seen = new Set<string>()
  for (const [index, row] of fields.engines.entries()) {
    if (seen.has(row.engineId))
      throw cannotBeWritten('One engine stands twice in this booking.', `fields.engines.${index}`)
    seen.add(row.engineId)
    await write.lock(engine, row.engineId, 'engine')
    const hours = await hoursOf(write, row, index)
    await write.transaction.insert(runningEntry).values({
      id: newId(),
      bookingId: id,
      engineId: row.engineId,
      day,
      hours,
      meter: row.meter,
      show,
      authorId: write.actor.id,
      capturedAt: write.capturedAt,
    })
  }
  const engines = fields.engines.length === 1 ? 'one engine' : `${fields.engines.length} engines`
  write.journal({
    subject: 'running',
    subjectId: id,
    summary: show ? `Ran at ${show}: ${engines}` : `Running hours of ${engines}`,
    after: fields,
  })
  return { id }
}

type Row = CommandPayload<'running.book'>['fields']['engines'][number]

async function hoursOf(write: Write, { engineId, hours, meter, meterReplaced }: Row, index: number): Promise<number> {
  const field = `fields.engines.${index}`
  if (meter === null) {
    if (hours === null) throw cannotBeWritten('Hours or what the meter shows is needed.', `${field}.hours`)
    return hours
  }
  const [before] = await write.transaction
    .select({ meter: runningEntry.meter })
    .from(runningEntry)
    .where(and(eq(runningEntry.engineId, engineId), isNotNull(runningEntry.meter)))
    .orderBy(desc(runningEntry.day), desc(runningEntry.capturedAt), desc(runningEntry.id))
    .limit(1)
  // The first reading, and the first of another meter, are where counting begins.
  if (before?.meter == null || meterReplaced) return hours ?? 0
  if (meter < before.meter)
    throw cannotBeWritten(
      `The meter stood at ${before.meter} h and now shows ${meter} h: hours do not go backwards. Correct the figure, or say that the meter was replaced.`,
      `${field}.meter`,
    )
  return hours ?? meter - before.meter
}
