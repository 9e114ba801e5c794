import { and, eq, ne } from 'drizzle-orm'
import type { Database, Transaction } from '../db/book'
import { session } from '../db/schema'

/** Ends every session of a person, on all devices but the one that may go on. */
export async function endSessionsOf(
  database: Database | Transaction,
  personId: string,
  except: string | null = null,
): Promise<void> {
  await database
    .delete(session)
    .where(and(eq(session.personId, personId), except === null ? undefined : ne(session.id, except)))
}
