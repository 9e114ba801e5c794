import { and, asc, count, desc, eq, inArray, sql, type SQL } from 'drizzle-orm'
import type { JobTag, Page } from '../../shared/book'
import type { JobState, StationId } from '../../shared/vocabulary'
import type { Database } from '../db/book'
import { job, JOB_SEARCH_INDEX } from '../db/schema'
import { foldForSearch } from '../commands/job-search-text'
import { byDueDate, jobTags } from './job-tags'

export const jobSorts = {
  due: byDueDate,
  newest: [desc(job.takenInAt), desc(job.id)],
  oldest: [asc(job.takenInAt), asc(job.id)],
  number: [desc(job.number)],
} as const
export type JobSort = keyof typeof jobSorts

export interface JobQuery {
  readonly search: string
  readonly states: readonly JobState[]
  readonly station: StationId | null
  readonly sort: JobSort
  readonly page: number
  readonly pageSize: number
}

/** A page of jobs: every word of the search must occur somewhere in number, engine, type, owner or complaint. */
export async function listJobs(database: Database, query: JobQuery): Promise<Page<JobTag>> {
  const words = foldForSearch(query.search).trim().split(/\s+/).filter(Boolean).slice(0, 8)
  const conditions: SQL[] = words.map((word) => sql`${job.searchText} like ${`%${word.replace(/[\\%_]/g, '\\$&')}%`}`)
  if (query.states.length > 0) conditions.push(inArray(job.state, [...query.states]))
  if (query.station) conditions.push(eq(job.station, query.station))
  const where = conditions.length > 0 ? and(...conditions) : undefined
  const order = [...jobSorts[query.sort]]
  const offset = (query.page - 1) * query.pageSize
  // A search reads its own narrow index from end to end, once to count and once to order, side by side.
  const hint = words.length > 0 ? { forceIndex: JOB_SEARCH_INDEX } : {}
  const [[total], ids] = await Promise.all([
    database.select({ total: count() }).from(job, hint).where(where),
    database.select({ id: job.id }).from(job, hint).where(where).orderBy(...order).limit(query.pageSize).offset(offset),
  ])
  return { total: total?.total ?? 0, rows: await jobTags(database, ids.map((row) => row.id)) }
}
