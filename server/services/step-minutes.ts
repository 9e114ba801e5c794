import { and, eq, ne, sql } from 'drizzle-orm'
import { median } from 'simple-statistics'
import type { TaughtMinutes } from '../../core/strip/taught-minutes'
import { standingRows } from '../../work/standing-rows'
import type { Database } from '../db/book'
import { engine, job, stripEntry } from '../db/schema'

/** What taking each part off took on engines of a type, by the steps of its other jobs; a step struck out does not count. */
export async function readStepMinutes(database: Database, typeId: string, jobId: string): Promise<TaughtMinutes[]> {
  const rows = await database
    .select({ id: stripEntry.id, entry: stripEntry.entry })
    .from(stripEntry)
    .innerJoin(job, eq(stripEntry.jobId, job.id))
    .innerJoin(engine, eq(job.engineId, engine.id))
    .where(
      and(
        eq(engine.typeId, typeId),
        ne(stripEntry.jobId, jobId),
        sql`json_value(${stripEntry.entry}, '$.kind') in ('off', 'struck')`,
      ),
    )
  const times = new Map<string, number[]>()
  for (const { entry } of standingRows(rows)) {
    if (entry.kind !== 'off' || entry.minutes === null) continue
    times.set(entry.part, [...(times.get(entry.part) ?? []), entry.minutes])
  }
  return [...times].map(([part, minutes]) => ({ part, minutes: median(minutes), count: minutes.length }))
}
