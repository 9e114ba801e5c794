import { eq } from 'drizzle-orm'
import type { TimerBook } from '../../messages/book'
import type { Database } from '../db/book'
import { timer } from '../db/schema'
import { timerRows } from './book-rows'

/** Every timer that runs or rings, and what the clock here says. */
export async function readTimers(database: Database): Promise<TimerBook> {
  const timers = await timerRows(database, eq(timer.stopped, false))
  return { timers, now: new Date().toISOString() }
}
