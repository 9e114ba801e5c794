import { eq } from 'drizzle-orm'
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
  return { changes: copy?.changes ?? null, version: copy?.version ?? 0, schools: (settings?.value as WorkshopFields | undefined)?.schools ?? {} }
}
