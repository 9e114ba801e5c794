import { and, desc, eq, ne, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import type { SisterPhotograph } from '../../messages/book'
import { engineName } from '../../work/engine-name'
import type { Database } from '../db/book'
import { engine, engineType, job, photograph } from '../db/schema'

const MOST = 6

/** Photographs of one part's step from other jobs on engines of the same type, the latest first. */
export async function readSisterPhotographs(
  database: Database,
  jobId: string,
  part: string,
): Promise<SisterPhotograph[]> {
  const [here, hereEngine] = [alias(job, 'here'), alias(engine, 'here_engine')]
  const { id, station, caption, width, height, size, takenAt, about, marks, version } = photograph
  const rows = await database
    .select({
      picture: { id, station, caption, width, height, size, takenAt, about, marks, version },
      jobNumber: job.number,
      engine,
      type: engineType,
    })
    .from(photograph)
    .innerJoin(job, eq(photograph.jobId, job.id))
    .innerJoin(engine, eq(job.engineId, engine.id))
    .innerJoin(engineType, eq(engine.typeId, engineType.id))
    .innerJoin(hereEngine, eq(hereEngine.typeId, engine.typeId))
    .innerJoin(here, and(eq(here.engineId, hereEngine.id), eq(here.id, jobId)))
    .where(and(ne(photograph.jobId, jobId), eq(sql`json_value(${photograph.about}, '$.part')`, part)))
    .orderBy(desc(photograph.takenAt), desc(photograph.id))
    .limit(MOST)
  return rows.map(({ picture, jobNumber, engine: of, type }) => ({
    ...picture,
    marks: picture.marks ?? [],
    takenAt: picture.takenAt.toISOString(),
    jobNumber,
    engine: engineName(of, type),
  }))
}
