import { eq } from 'drizzle-orm'
import { v7 as newId } from 'uuid'
import type { Reckoned } from '../../messages/reckoned'
import { hashOf, runOnce } from '../commands/run-command'
import type { Actor } from '../commands/write'
import type { Database } from '../db/book'
import { searchReckoning } from '../db/schema'

/** Writes what was reckoned beside the step that led to it, and in the journal; a step that has its reckoning keeps it. */
export async function keepReckoning(
  database: Database,
  actor: Actor,
  jobId: string,
  entryId: string,
  reckoned: Reckoned,
  at = new Date(),
): Promise<void> {
  await runOnce(
    database,
    { commandId: newId(), name: 'search.reckon', bodyHash: hashOf('search.reckon', entryId), actor, capturedAt: at },
    async (write) => {
      const [row] = await write.transaction
        .select()
        .from(searchReckoning)
        .where(eq(searchReckoning.id, entryId))
        .for('update')
      if (row?.reckoned === null)
        await write.transaction
          .update(searchReckoning)
          .set({ reckoned, reckonedAt: at })
          .where(eq(searchReckoning.id, entryId))
      write.journal({ subject: 'search', subjectId: entryId, jobId, summary: summaryOf(reckoned), after: reckoned })
      return { id: entryId }
    },
  )
}

function summaryOf({ failure, believed, nothingElse, advice }: Reckoned): string {
  if (failure) return `Could not be reckoned: ${failure}`
  const beliefs = believed.slice(0, 2).map(({ words, chance }) => `${words} ${Math.round(chance * 100)} %`)
  return `Reckoned: ${[...beliefs, `nothing else ${Math.round(nothingElse * 100)} %`].join(', ')}. Next: ${advice.words}.`
}
