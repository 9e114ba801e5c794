import { and, desc, ne, sql } from 'drizzle-orm'
import { median } from 'simple-statistics'
import type { OwnMinutes } from '../../core/care/cleaning-card'
import { standingRows } from '../../work/standing-rows'
import type { Database } from '../db/book'
import { careEntry } from '../db/schema'

/** Older times say little of how the shop works today. */
const LATEST = 2000

/** What cleaning took in other jobs, a piece, by subject and soil; a step struck out does not count. */
export async function readCleaningMinutes(database: Database, jobId: string): Promise<OwnMinutes[]> {
  const rows = await database
    .select({ id: careEntry.id, entry: careEntry.entry })
    .from(careEntry)
    .where(and(ne(careEntry.jobId, jobId), sql`json_value(${careEntry.entry}, '$.kind') in ('cleaned', 'struck')`))
    .orderBy(desc(careEntry.capturedAt))
    .limit(LATEST)
  const times = new Map<string, { subject: string; soil: string; perPiece: number[] }>()
  for (const { entry } of standingRows(rows)) {
    if (entry.kind !== 'cleaned' || entry.minutes === null) continue
    const key = `${entry.subject} ${entry.soil}`
    const row = times.get(key) ?? { subject: entry.subject, soil: entry.soil, perPiece: [] }
    row.perPiece.push(entry.minutes / entry.pieces)
    times.set(key, row)
  }
  return [...times.values()].map(({ subject, soil, perPiece }) => ({
    subject,
    soil,
    perPiece: median(perPiece),
    count: perPiece.length,
  }))
}
