import { eq } from 'drizzle-orm'
import { faultInTodaysForm } from '../../core/diagnosis/older-knowledge'
import type { WorkshopFields } from '../../shared/messages/bench-entries'
import type { Practice } from '../../shared/practised-knowledge'
import type { Database } from '../db/book'
import { setting, typeKnowledge } from '../db/schema'

/** What the knowledge is to this shop and one type of engine. */
export async function readPractice(database: Database, typeId: string): Promise<Practice> {
  const [[copy], [settings]] = await Promise.all([
    database.select().from(typeKnowledge).where(eq(typeKnowledge.id, typeId)),
    database.select().from(setting).where(eq(setting.key, 'workshop')),
  ])
  // A copy kept by an earlier program may have rows of its form.
  const changes = copy ? { ...copy.changes, faults: copy.changes.faults.map(faultInTodaysForm) } : null
  return { changes, version: copy?.version ?? 0, schools: (settings?.value as WorkshopFields | undefined)?.schools ?? {} }
}
