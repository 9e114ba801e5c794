import { sql } from 'drizzle-orm'
import { v7 as newId } from 'uuid'
import { foldForSearch } from '../../server/commands/job-search-text'
import type { Database } from '../../server/db/book'
import { engine, job } from '../../server/db/schema'

export const complaintWords = [
  'squeals',
  'dead',
  'hesitates',
  'smells',
  'growls',
  'stops on turnouts',
  'jerks',
  'slow in reverse',
]
export const jobStatesDrawn = ['handed-back', 'handed-back', 'handed-back', 'open', 'waiting'] as const
/** Numbers from here on are made up. */
export const FIRST_MADE_UP = 5000

/** Fills a shop's book with so many jobs, copies of its first with other complaints, on all its engines in turn. */
export async function fillJobs(database: Database, count: number): Promise<void> {
  const [template] = await database.select().from(job).limit(1)
  if (!template) throw new Error('The scenario is empty.')
  const { dueOrder: _computed, ...row } = template
  const engines = await database.select({ id: engine.id }).from(engine)
  for (let at = 0; at < count; at += 500) {
    await database.insert(job).values(
      Array.from({ length: Math.min(500, count - at) }, (_, i) => {
        const number = FIRST_MADE_UP + at + i
        const complaint = `It ${complaintWords[number % complaintWords.length]} since ${1990 + (number % 35)}`
        return {
          ...row,
          id: newId(),
          number,
          engineId: engines[number % engines.length]?.id ?? row.engineId,
          handedBackAt: number % 5 < 3 ? new Date(Date.UTC(2021, 1, 1) + number * 7_000_000) : null,
          state: jobStatesDrawn[number % jobStatesDrawn.length] as (typeof jobStatesDrawn)[number],
          complaint,
          searchText: foldForSearch(
            `${number} · Engine ${number % 977} · Kestering · Orrin tank 0-6-0 · Owner ${number % 613} · ${complaint}`,
          ),
          takenInAt: new Date(Date.UTC(2021, 0, 1) + number * 7_000_000),
        }
      }),
    )
  }
  await database.execute(sql`analyze table job`)
}

/** So many engines more, copies of the book's first. */
export async function fillEngines(database: Database, count: number): Promise<void> {
  const [template] = await database.select().from(engine).limit(1)
  if (!template) throw new Error('The scenario is empty.')
  for (let at = 0; at < count; at += 500)
    await database.insert(engine).values(
      Array.from({ length: Math.min(500, count - at) }, (_, i) => ({
        ...template,
        id: newId(),
        nickname: `Engine ${at + i}`,
      })),
    )
  await database.execute(sql`analyze table engine`)
}
