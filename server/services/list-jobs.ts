import { and, asc, count, desc, eq, inArray, sql, type SQL } from 'drizzle-orm'
import type { JobTag, Page } from '../../messages/book'
import type { JobState, StationId } from '../../messages/vocabulary'
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

/** Jobs a search counts before it says "more than". */
export const MOST_COUNTED = 1000

/**
 * A page of jobs: every word of the search must occur somewhere in number, engine, type, owner or complaint. A
 * search counts no further than `MOST_COUNTED`; `more` says that there are others.
 */
export async function listJobs(database: Database, query: JobQuery): Promise<Page<JobTag>> {
  const words = foldForSearch(query.search).trim().split(/\s+/).filter(Boolean).slice(0, 8)
  const conditions: SQL[] = words.map((word) => sql`${job.searchText} like ${`%${word.replace(/[\\%_]/g, '\\$&')}%`}`)
  if (query.states.length > 0) conditions.push(inArray(job.state, [...query.states]))
  if (query.station) conditions.push(eq(job.station, query.station))
  const where = conditions.length > 0 ? and(...conditions) : undefined
  const order = [...jobSorts[query.sort]]
  const offset = (query.page - 1) * query.pageSize
  if (words.length > 0) {
    // One reading of the search's own narrow index, which holds all a list orders by and ends early when much matches.
    const matches = await database
      .select({ id: job.id, number: job.number, takenInAt: job.takenInAt, dueOrder: job.dueOrder })
      .from(job, { forceIndex: JOB_SEARCH_INDEX })
      .where(where)
      .limit(MOST_COUNTED + 1)
    const more = matches.length > MOST_COUNTED
    // Of many matches a page is soon full going along the order's own index.
    const ids = more
      ? await database
          .select({ id: job.id })
          .from(job)
          .where(where)
          .orderBy(...order)
          .limit(query.pageSize)
          .offset(offset)
      : matches.sort(inOrder[query.sort]).slice(offset, offset + query.pageSize)
    return {
      total: Math.min(matches.length, MOST_COUNTED),
      more,
      rows: await jobTags(
        database,
        ids.map((row) => row.id),
      ),
    }
  }
  const [[total], ids] = await Promise.all([
    database.select({ total: count() }).from(job).where(where),
    database
      .select({ id: job.id })
      .from(job)
      .where(where)
      .orderBy(...order)
      .limit(query.pageSize)
      .offset(offset),
  ])
  return {
    total: total?.total ?? 0,
    rows: await jobTags(
      database,
      ids.map((row) => row.id),
    ),
  }
}

interface Match {
  readonly id: string
  readonly number: number
  readonly takenInAt: Date
  readonly dueOrder: string | null
}

/** The orders of `jobSorts` for matches already read. */
const inOrder: Readonly<Record<JobSort, (first: Match, second: Match) => number>> = {
  due: (first, second) => (first.dueOrder ?? '').localeCompare(second.dueOrder ?? '') || inOrder.oldest(first, second),
  newest: (first, second) => inOrder.oldest(second, first),
  oldest: (first, second) => first.takenInAt.getTime() - second.takenInAt.getTime() || (first.id < second.id ? -1 : 1),
  number: (first, second) => second.number - first.number,
}
