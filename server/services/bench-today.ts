import { and, count, desc, eq, gte, inArray, isNotNull, lt, ne } from 'drizzle-orm'
import type { BenchToday } from '../../messages/book'
import type { Database } from '../db/book'
import { job, journal, person } from '../db/schema'
import { byDueDate, jobIds, jobTags } from './job-tags'

const TAGS_SHOWN = 12

/** The day at a glance: what lies on the bench, what waits, what went out lately. */
export async function benchToday(database: Database, now: Date): Promise<BenchToday> {
  const today = now.toISOString().slice(0, 10)
  const monthStart = new Date(Date.UTC(now.getUTCFullYear(), now.getUTCMonth(), 1))
  const countOf = async (where: ReturnType<typeof and>): Promise<number> =>
    (await database.select({ rows: count() }).from(job).where(where))[0]?.rows ?? 0
  const tagsOf = async (state: 'open' | 'waiting' | 'handed-back') =>
    jobTags(
      database,
      await jobIds(
        database,
        eq(job.state, state),
        state === 'handed-back' ? [desc(job.handedBackAt)] : byDueDate,
        state === 'handed-back' ? 4 : TAGS_SHOWN,
      ),
    )
  const [onBench, waiting, handedBack, open, held, overdue, gone, latest] = await Promise.all([
    tagsOf('open'),
    tagsOf('waiting'),
    tagsOf('handed-back'),
    countOf(eq(job.state, 'open')),
    countOf(eq(job.state, 'waiting')),
    // By the column the index holds: undated ones come last in it.
    countOf(and(eq(job.state, 'open'), lt(job.dueOrder, today))),
    countOf(and(eq(job.state, 'handed-back'), gte(job.handedBackAt, monthStart))),
    latestEntries(database),
  ])
  return {
    onBench,
    waiting,
    handedBack,
    counts: { onBench: open, waiting: held, overdue, handedBackThisMonth: gone },
    latest,
  }
}

const ENTRIES_SHOWN = 8

/** The latest of what was done to jobs, read off the end of the journal however long it is. */
async function latestEntries(database: Database): Promise<BenchToday['latest']> {
  const rows = await database
    .select({
      sequence: journal.sequence,
      summary: journal.summary,
      personId: journal.personId,
      subject: journal.subject,
      capturedAt: journal.capturedAt,
      receivedAt: journal.receivedAt,
      jobId: journal.jobId,
    })
    .from(journal)
    // What the server reckons by itself is nobody's doing: it stands in the job's own journal.
    .where(and(isNotNull(journal.jobId), ne(journal.command, 'search.reckon')))
    .orderBy(desc(journal.sequence))
    .limit(ENTRIES_SHOWN)
  if (rows.length === 0) return []
  const jobIdsSeen = rows.flatMap(({ jobId }) => (jobId === null ? [] : [jobId]))
  const [people, jobs] = await Promise.all([
    database
      .select({ id: person.id, name: person.name })
      .from(person)
      .where(
        inArray(
          person.id,
          rows.map(({ personId }) => personId),
        ),
      ),
    database.select({ id: job.id, number: job.number }).from(job).where(inArray(job.id, jobIdsSeen)),
  ])
  const nameOf = new Map(people.map(({ id, name }) => [id, name]))
  const numberOf = new Map(jobs.map(({ id, number }) => [id, number]))
  return rows.map(({ personId, ...row }) => ({
    ...row,
    person: nameOf.get(personId) ?? '',
    jobNumber: numberOf.get(row.jobId ?? '') ?? null,
    capturedAt: row.capturedAt.toISOString(),
    receivedAt: row.receivedAt.toISOString(),
  }))
}
