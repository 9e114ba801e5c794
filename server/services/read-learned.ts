import { faultOfSuspect } from '../../core/knowledge/suspect-id'
import { and, asc, desc, eq, isNull, or } from 'drizzle-orm'
import type { FaultTally } from '../../core/knowledge/learned-priors'
import { reliability } from '../../core/knowledge/reliability'
import type { LearnedBook, LearnedHere } from '../../messages/book'
import { predictionsOf } from '../../work/search-predictions'
import type { Database } from '../db/book'
import { engineType, job, learned, person, searchEntry } from '../db/schema'

/** So many entries of a construction, and steps of closed searches, are looked at: the newest. */
const MOST_ENTRIES = 5000
const MOST_STEPS = 20_000

type LearnedRow = typeof learned.$inferSelect

/** What was learned from jobs on machines made alike and on this type, without the job in hand. */
export async function readLearned(
  database: Database,
  { construction, typeId, jobId }: { construction: string; typeId: string; jobId: string },
): Promise<LearnedHere> {
  const rows = await database
    .select({ row: learned, author: person.name })
    .from(learned)
    .innerJoin(person, eq(learned.authorId, person.id))
    .where(or(eq(learned.construction, construction), and(isNull(learned.jobId), isNull(learned.construction))))
    .orderBy(desc(learned.receivedAt), desc(learned.id))
    .limit(MOST_ENTRIES)
  const own = rows.find(({ row }) => row.jobId === jobId)
  const counting = stillCounting(rows.map(({ row }) => row).reverse()).filter((row) => row.jobId !== jobId)
  return {
    construction: tally(counting.filter((row) => row.typeId !== typeId)),
    type: tally(counting.filter((row) => row.typeId === typeId)),
    own: own
      ? {
          suspects: own.row.suspects,
          withdrawn: own.row.withdrawn,
          at: own.row.capturedAt.toISOString(),
          author: own.author,
        }
      : null,
  }
}

/** Everything the shop has learned, construction by construction, and how often what was said was so. */
export async function readLearnedBook(database: Database): Promise<LearnedBook> {
  const [rows, types, steps] = await Promise.all([
    database
      .select()
      .from(learned)
      .orderBy(asc(learned.receivedAt), asc(learned.id))
      .limit(MOST_ENTRIES * 4),
    database.select({ id: engineType.id, maker: engineType.maker, name: engineType.name }).from(engineType),
    database
      .select({ id: searchEntry.id, jobId: searchEntry.jobId, entry: searchEntry.entry })
      .from(searchEntry)
      .innerJoin(job, eq(searchEntry.jobId, job.id))
      .where(eq(job.state, 'handed-back'))
      .orderBy(desc(searchEntry.receivedAt), desc(searchEntry.id))
      .limit(MOST_STEPS),
  ])
  const counting = stillCounting(rows)
  const names = new Map(types.map((type) => [type.id, `${type.maker} ${type.name}`]))
  const constructions = [...new Set(counting.map((row) => row.construction))].flatMap((construction) => {
    const here = counting.filter((row) => row.construction === construction)
    const perType = [...new Set(here.map((row) => row.typeId))].map((typeId) => ({
      name: names.get(typeId ?? '') ?? '',
      ...tally(here.filter((row) => row.typeId === typeId)),
    }))
    return construction === null ? [] : [{ construction, ...tally(here), types: perType }]
  })
  const byJob = new Map<string, typeof steps>()
  for (const step of [...steps].reverse()) byJob.set(step.jobId, [...(byJob.get(step.jobId) ?? []), step])
  return {
    constructions,
    searches: byJob.size,
    reliability: reliability([...byJob.values()].flatMap((entries) => predictionsOf(entries))),
  }
}

/** The latest of each job that was neither taken back nor forgotten since. */
function stillCounting(rows: readonly LearnedRow[]): LearnedRow[] {
  const latest = new Map<string, LearnedRow>()
  for (const row of rows) {
    if (row.jobId !== null) latest.set(row.jobId, row)
    else
      for (const [jobId, known] of latest)
        if (row.construction === null || row.construction === known.construction) latest.delete(jobId)
  }
  return [...latest.values()].filter((row) => !row.withdrawn)
}

function tally(rows: readonly LearnedRow[]): FaultTally {
  const found: Record<string, number> = {}
  for (const suspect of rows.flatMap((row) => row.suspects)) {
    const fault = faultOfSuspect(suspect)
    found[fault] = (found[fault] ?? 0) + 1
  }
  return { jobs: rows.length, found }
}
