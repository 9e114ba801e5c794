import { and, asc, count, desc, eq, inArray, like, max, or, sql, type SQL } from 'drizzle-orm'
import type { EngineBook, EngineTag, EngineTypeRow, OwnerBook, OwnerRow, Page, TemplateTag } from '../../messages/book'
import { engineName } from '../../work/engine-name'
import type { Database } from '../db/book'
import { component, constructionTemplate, engine, engineType, job, owner } from '../db/schema'
import { notInTheBook } from '../problems'
import { readPractice } from './read-practice'
import { jobIds, jobTags } from './job-tags'

/** A page of engines; every word of the search must occur in nickname, number, type or owner. */
export async function listEngines(
  database: Database,
  search: string,
  page: number,
  pageSize: number,
): Promise<Page<EngineTag>> {
  const where = everyWord(search, [
    engine.nickname,
    engine.runningNumber,
    engineType.maker,
    engineType.name,
    owner.name,
  ])
  const [[total], rows] = await Promise.all([
    database
      .select({ total: count() })
      .from(engine)
      .innerJoin(engineType, eq(engine.typeId, engineType.id))
      .innerJoin(owner, eq(engine.ownerId, owner.id))
      .where(where),
    engineTags(database, where, pageSize, (page - 1) * pageSize),
  ])
  return { total: total?.total ?? 0, rows }
}

export async function readEngine(database: Database, id: string): Promise<EngineBook> {
  const [head] = await database
    .select({ engine, type: engineType, owner, template: constructionTemplate.description })
    .from(engine)
    .innerJoin(engineType, eq(engine.typeId, engineType.id))
    .innerJoin(owner, eq(engine.ownerId, owner.id))
    .leftJoin(constructionTemplate, eq(engineType.templateId, constructionTemplate.id))
    .where(eq(engine.id, id))
  if (!head) throw notInTheBook('engine')
  const [practice, components, ids] = await Promise.all([
    readPractice(database, head.type.id),
    database.select().from(component).where(eq(component.engineId, id)).orderBy(desc(component.fittedOn)),
    jobIds(database, eq(job.engineId, id), [desc(job.takenInAt)], 100),
  ])
  return { ...head, practice, components, jobs: await jobTags(database, ids) }
}

/** The shop's own constructions, by name. */
export async function listConstructions(database: Database): Promise<TemplateTag[]> {
  return database
    .select({
      id: constructionTemplate.id,
      name: constructionTemplate.name,
      version: constructionTemplate.version,
      power: sql<TemplateTag['power']>`json_value(${constructionTemplate.description}, '$.power')`,
    })
    .from(constructionTemplate)
    .orderBy(asc(constructionTemplate.name))
    .limit(500)
}

/** A page of owners by name. */
export async function listOwners(
  database: Database,
  search: string,
  page: number,
  pageSize: number,
): Promise<Page<OwnerRow & { engines: number }>> {
  const where = everyWord(search, [owner.name, owner.email, owner.phone, owner.address])
  const [[total], rows] = await Promise.all([
    database.select({ total: count() }).from(owner).where(where),
    database
      .select({ owner, engines: sql<string>`(select count(*) from engine where engine.owner_id = owner.id)` })
      .from(owner)
      .where(where)
      .orderBy(asc(owner.name))
      .limit(pageSize)
      .offset((page - 1) * pageSize),
  ])
  return { total: total?.total ?? 0, rows: rows.map((row) => ({ ...row.owner, engines: Number(row.engines) })) }
}

export async function readOwner(database: Database, id: string): Promise<OwnerBook> {
  const [row] = await database.select().from(owner).where(eq(owner.id, id))
  if (!row) throw notInTheBook('owner')
  const engines = await engineTags(database, eq(engine.ownerId, id), 200, 0)
  const jobRows = await database
    .select({ id: job.id })
    .from(job)
    .innerJoin(engine, eq(job.engineId, engine.id))
    .where(eq(engine.ownerId, id))
    .orderBy(desc(job.takenInAt))
    .limit(100)
  return {
    owner: row,
    engines,
    jobs: await jobTags(
      database,
      jobRows.map((line) => line.id),
    ),
  }
}

/** A page of engine types by maker and name. */
export async function listEngineTypes(
  database: Database,
  search: string,
  page: number,
  pageSize: number,
): Promise<Page<EngineTypeRow>> {
  const where = everyWord(search, [engineType.maker, engineType.name, engineType.variantMarks])
  const [[total], rows] = await Promise.all([
    database.select({ total: count() }).from(engineType).where(where),
    database
      .select()
      .from(engineType)
      .where(where)
      .orderBy(asc(engineType.maker), asc(engineType.name))
      .limit(pageSize)
      .offset((page - 1) * pageSize),
  ])
  return { total: total?.total ?? 0, rows }
}

/** The ids are found first, over narrow rows; only those few are read whole and their jobs counted. */
async function engineTags(
  database: Database,
  where: SQL | undefined,
  limit: number,
  offset: number,
): Promise<EngineTag[]> {
  const found = await database
    .select({ id: engine.id })
    .from(engine)
    .innerJoin(engineType, eq(engine.typeId, engineType.id))
    .innerJoin(owner, eq(engine.ownerId, owner.id))
    .where(where)
    .orderBy(asc(engineType.maker), asc(engineType.name), asc(engine.runningNumber), asc(engine.id))
    .limit(limit)
    .offset(offset)
  const ids = found.map(({ id }) => id)
  if (ids.length === 0) return []
  const [rows, jobs, open] = await Promise.all([
    database
      .select({ engine, type: engineType, owner })
      .from(engine)
      .innerJoin(engineType, eq(engine.typeId, engineType.id))
      .innerJoin(owner, eq(engine.ownerId, owner.id))
      .where(inArray(engine.id, ids)),
    database
      .select({ engineId: job.engineId, count: count(), lastAt: max(job.takenInAt) })
      .from(job)
      .where(inArray(job.engineId, ids))
      .groupBy(job.engineId),
    database
      .select({ engineId: job.engineId, id: job.id })
      .from(job)
      .where(and(inArray(job.engineId, ids), inArray(job.state, ['open', 'waiting'])))
      .orderBy(asc(job.takenInAt)),
  ])
  const rowOf = new Map(rows.map((row) => [row.engine.id, row]))
  const jobsOf = new Map(jobs.map((row) => [row.engineId, row]))
  const openOf = new Map(open.map((row) => [row.engineId, row.id]))
  return ids.flatMap((id) => {
    const row = rowOf.get(id)
    if (!row) return []
    return [
      {
        id,
        name: engineName(row.engine, row.type),
        typeId: row.type.id,
        typeName: `${row.type.maker} ${row.type.name}`,
        ownerId: row.owner.id,
        ownerName: row.owner.name,
        gaugeMm: row.type.gaugeMm,
        scaleId: row.type.scaleId,
        power: row.type.power,
        jobs: jobsOf.get(id)?.count ?? 0,
        openJobId: openOf.get(id) ?? null,
        lastJobAt: jobsOf.get(id)?.lastAt?.toISOString() ?? null,
      },
    ]
  })
}

function everyWord(search: string, columns: Parameters<typeof like>[0][]): SQL | undefined {
  const words = search.trim().split(/\s+/).filter(Boolean).slice(0, 8)
  if (words.length === 0) return undefined
  return and(
    ...words.map((word) => or(...columns.map((column) => like(column, `%${word.replace(/[\\%_]/g, '\\$&')}%`)))),
  )
}
