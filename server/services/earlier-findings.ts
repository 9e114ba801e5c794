import { and, desc, eq, inArray, lte, ne } from 'drizzle-orm'
import type { EarlierFinding } from '../../messages/book'
import type { Database } from '../db/book'
import { finding, job, searchEntry } from '../db/schema'

/** What the jobs of an engine before this one found and left, or the owner declined, as far as no later one mended it. */
export async function earlierFindings(
  database: Database,
  { id, engineId, takenInAt }: { readonly id: string; readonly engineId: string; readonly takenInAt: Date },
): Promise<EarlierFinding[]> {
  const jobs = await database
    .select({ id: job.id, number: job.number, handedBackAt: job.handedBackAt })
    .from(job)
    .where(and(eq(job.engineId, engineId), eq(job.state, 'handed-back'), ne(job.id, id), lte(job.takenInAt, takenInAt)))
    .orderBy(desc(job.takenInAt))
  if (jobs.length === 0) return []
  const ids = jobs.map((row) => row.id)
  const [findings, entries] = await Promise.all([
    database
      .select()
      .from(finding)
      .where(and(inArray(finding.jobId, ids), inArray(finding.state, ['left', 'declined', 'mended']))),
    database
      .select({ jobId: searchEntry.jobId, entry: searchEntry.entry })
      .from(searchEntry)
      .where(inArray(searchEntry.jobId, ids)),
  ])
  const confirmed = new Map(
    entries.flatMap(({ entry }) => (entry.kind === 'confirmed' ? [[entry.findingId, entry.suspect] as const] : [])),
  )
  const found: EarlierFinding[] = []
  const mendedSince = new Set<string>()
  // From the latest back: what a later job mended, or has told of already, is not told again.
  for (const { id: earlierId, number, handedBackAt } of jobs) {
    const here = findings.filter((row) => row.jobId === earlierId)
    for (const row of here) {
      const suspect = confirmed.get(row.id) ?? null
      const key = suspect ?? `${row.what.toLowerCase()}/${row.place.toLowerCase()}`
      if (row.state === 'mended' || mendedSince.has(key)) continue
      mendedSince.add(key)
      found.push({
        findingId: row.id,
        jobId: earlierId,
        jobNumber: number,
        handedBackAt: handedBackAt?.toISOString() ?? '',
        what: row.what,
        place: row.place,
        state: row.state as 'left' | 'declined',
        suspect,
      })
    }
    for (const row of here)
      if (row.state === 'mended')
        mendedSince.add(confirmed.get(row.id) ?? `${row.what.toLowerCase()}/${row.place.toLowerCase()}`)
    for (const { jobId, entry } of entries)
      if (jobId === earlierId && entry.kind === 'repaired') mendedSince.add(entry.suspect)
  }
  return found
}
