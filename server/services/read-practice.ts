import { eq } from 'drizzle-orm'
import type { KnowledgeChanges } from '../../core/knowledge/knowledge-changes'
import { faultInTodaysForm, testInTodaysForm } from '../../core/knowledge/older-knowledge'
import type { WorkshopFields } from '../../messages/bench-entries'
import type { Practice } from '../../messages/book'
import type { Database } from '../db/book'
import { setting, typeKnowledge } from '../db/schema'

/** What the knowledge is to this shop and one type of engine. */
export async function readPractice(database: Database, typeId: string): Promise<Practice> {
  const [[copy], [settings]] = await Promise.all([
    database.select().from(typeKnowledge).where(eq(typeKnowledge.id, typeId)),
    database.select().from(setting).where(eq(setting.key, 'workshop')),
  ])
  const workshop = settings?.value as WorkshopFields | undefined
  return {
    changes: copy ? copyInTodaysForm(copy.changes) : null,
    version: copy?.version ?? 0,
    schools: workshop?.schools ?? {},
    careRows: workshop?.careRows ?? null,
  }
}

/** A copy kept by an earlier program may have rows of its form. */
export function copyInTodaysForm(changes: KnowledgeChanges): KnowledgeChanges {
  return { ...changes, faults: changes.faults.map(faultInTodaysForm), tests: changes.tests.map(testInTodaysForm) }
}
