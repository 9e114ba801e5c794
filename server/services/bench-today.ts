import { and, count, desc, eq, gte, isNotNull, lt, ne } from 'drizzle-orm'
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
    countOf(and(eq(job.state, 'open'), lt(job.dueOn, today))),
    countOf(and(eq(job.state, 'handed-back'), gte(job.handedBackAt, monthStart))),
    // What the server reckons by itself is nobody's doing: it stands in the job's own journal.
    database
      .select({
        sequence: journal.sequence,
        summary: journal.summary,
        person: person.name,
        subject: journal.subject,
        capturedAt: journal.capturedAt,
        receivedAt: journal.receivedAt,
        jobId: journal.jobId,
        jobNumber: job.number,
      })
      .from(journal)
      .innerJoin(person, eq(journal.personId, person.id))
      .leftJoin(job, eq(journal.jobId, job.id))
      .where(and(isNotNull(journal.jobId), ne(journal.command, 'search.reckon')))
      .orderBy(desc(journal.sequence))
      .limit(8),
  ])
  return {
    onBench,
    waiting,
    handedBack,
    counts: { onBench: open, waiting: held, overdue, handedBackThisMonth: gone },
    latest: latest.map((row) => ({
      ...row,
      capturedAt: row.capturedAt.toISOString(),
      receivedAt: row.receivedAt.toISOString(),
    })),
  }
}
