import { eq, sql } from 'drizzle-orm'
import { engine } from '../db/schema'
import type { Write } from './write'

/** Counts one repair or refit: later findings and sheets belong to the new state. */
export async function stepEngineState(write: Write, machine: { id: string }): Promise<void> {
  await write.transaction
    .update(engine)
    .set({ stateNumber: sql`${engine.stateNumber} + 1` })
    .where(eq(engine.id, machine.id))
}
