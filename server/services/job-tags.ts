import { and, asc, desc, eq, inArray, sql, type SQL } from 'drizzle-orm'
import type { JobTag } from '../../messages/book'
import { engineName } from '../../work/engine-name'
import type { Database } from '../db/book'
import { engine, engineType, finding, job, note, owner, photograph } from '../db/schema'

/**
 * Jobs as tags. The ids are found first on the narrow job table, and only those few rows are joined and counted.
 *
 * @param ids the jobs wanted, in the order wanted
 */
export async function jobTags(database: Database, ids: readonly string[]): Promise<JobTag[]> {
  if (ids.length === 0) return []
  const [rows, minutes, findings, photographs] = await Promise.all([
    database
      .select({ job, engine, type: engineType, owner })
      .from(job)
      .innerJoin(engine, eq(job.engineId, engine.id))
      .innerJoin(engineType, eq(engine.typeId, engineType.id))
      .innerJoin(owner, eq(engine.ownerId, owner.id))
      .where(inArray(job.id, [...ids])),
    database
      .select({ jobId: note.jobId, minutes: sql<string>`sum(${note.minutes})` })
      .from(note)
      .where(
        and(
          inArray(note.jobId, [...ids]),
          sql`not exists (select 1 from note later where later.supersedes_id = note.id)`,
        ),
      )
      .groupBy(note.jobId),
    database
      .select({ jobId: finding.jobId, open: sql<string>`count(*)` })
      .from(finding)
      .where(and(inArray(finding.jobId, [...ids]), inArray(finding.state, ['suspected', 'confirmed'])))
      .groupBy(finding.jobId),
    database
      .select({ jobId: photograph.jobId, id: photograph.id })
      .from(photograph)
      .where(inArray(photograph.jobId, [...ids]))
      .orderBy(desc(photograph.takenAt)),
  ])
  const minutesOf = new Map(minutes.map((row) => [row.jobId, Number(row.minutes)]))
  const findingsOf = new Map(findings.map((row) => [row.jobId, Number(row.open)]))
  const photographOf = new Map(photographs.map((row) => [row.jobId, row.id]))
  const tags = new Map(
    rows.map((row) => [
      row.job.id,
      {
        id: row.job.id,
        number: row.job.number,
        state: row.job.state,
        station: row.job.station,
        waitingFor: row.job.waitingFor,
        complaint: row.job.complaint,
        dueOn: row.job.dueOn,
        takenInAt: row.job.takenInAt.toISOString(),
        handedBackAt: row.job.handedBackAt?.toISOString() ?? null,
        engineName: engineName(row.engine, row.type),
        typeName: `${row.type.maker} ${row.type.name}`,
        ownerName: row.owner.name,
        sentimental: row.job.sentimental,
        minutesUsed: minutesOf.get(row.job.id) ?? 0,
        estimateMinutes: row.job.estimateMinutes,
        openFindings: findingsOf.get(row.job.id) ?? 0,
        photographId: photographOf.get(row.job.id) ?? null,
      } satisfies JobTag,
    ]),
  )
  return ids.flatMap((id) => tags.get(id) ?? [])
}

/** Ids of jobs that match, in order. */
export async function jobIds(
  database: Database,
  where: SQL | undefined,
  order: SQL[],
  limit: number,
  offset = 0,
): Promise<string[]> {
  const rows = await database
    .select({ id: job.id })
    .from(job)
    .where(where)
    .orderBy(...order)
    .limit(limit)
    .offset(offset)
  return rows.map((row) => row.id)
}

/** Due first, undated last, then oldest first. */
export const byDueDate = [asc(job.dueOrder), asc(job.takenInAt), asc(job.id)]
