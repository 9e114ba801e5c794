import { eq, inArray, type SQL } from 'drizzle-orm'
import { cutText } from '../../messages/cut-text'
import { engine, engineType, job, owner } from '../db/schema'
import type { Write } from './write'

/**
 * Writes anew what the job search looks through, for all jobs that match. Called by every write that changes a
 * number, complaint, engine, type or owner, in that write's transaction.
 */
export async function refreshJobSearchText(write: Write, which: SQL): Promise<void> {
  const rows = await write.transaction
    .select({
      id: job.id,
      number: job.number,
      complaint: job.complaint,
      nickname: engine.nickname,
      runningNumber: engine.runningNumber,
      maker: engineType.maker,
      type: engineType.name,
      owner: owner.name,
    })
    .from(job)
    .innerJoin(engine, eq(job.engineId, engine.id))
    .innerJoin(engineType, eq(engine.typeId, engineType.id))
    .innerJoin(owner, eq(engine.ownerId, owner.id))
    .where(which)
  for (const row of rows) {
    await write.transaction
      .update(job)
      .set({ searchText: jobSearchText(row) })
      .where(inArray(job.id, [row.id]))
  }
}

export function jobSearchText(row: {
  number: number
  complaint: string
  nickname: string
  runningNumber: string
  maker: string
  type: string
  owner: string
}): string {
  return cutText(
    foldForSearch(
      [row.number, row.nickname, row.runningNumber, row.maker, row.type, row.owner, row.complaint]
        .filter(Boolean)
        .join(' · '),
    ),
    700,
  )
}

/** Small letters without accents: “Élan” is found by “elan”. */
export function foldForSearch(text: string): string {
  return text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()
}
