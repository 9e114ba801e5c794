import { randomUUID } from 'node:crypto'
import { eq, lt, sql } from 'drizzle-orm'
import type { H3Event } from 'h3'
import type { Actor } from './commands/write'
import type { Database } from './db/book'
import { person, session, setting } from './db/schema'
import { Problem } from './problems'
import { newWorkshop } from './services/book-rows'

const MILLISECONDS_PER_HOUR = 3_600_000
const LONGEST_MS = 30 * 24 * MILLISECONDS_PER_HOUR
/** How stale the note of when a device was last seen may be: it is not written at every request. */
const SEEN_EVERY_MS = 60_000

/** Signs a person in on this device; what was signed in here before ends. */
export async function beginSession(event: H3Event, database: Database, personId: string): Promise<void> {
  await endSession(event, database)
  const now = new Date()
  const id = randomUUID()
  await database.insert(session).values({ id, personId, startedAt: now, lastSeenAt: now })
  await database.delete(session).where(lt(session.startedAt, new Date(now.getTime() - LONGEST_MS)))
  await replaceUserSession(event, { user: { id: personId }, session: id })
}

/** Ends what is signed in on this device, here and in the book: the cookie alone is worth nothing afterwards. */
export async function endSession(event: H3Event, database: Database): Promise<void> {
  const id = await sessionNumber(event)
  if (id !== null) await database.delete(session).where(eq(session.id, id))
  await clearUserSession(event)
}

/** The number of this device's session as its cookie says; null without one. */
export async function sessionNumber(event: H3Event): Promise<string | null> {
  const { session: id } = (await getUserSession(event)) as { session?: unknown }
  return typeof id === 'string' && /^[0-9a-f-]{36}$/.test(id) ? id : null
}

/**
 * Who is signed in on this device. The account and the session are looked up anew each time: what was taken away,
 * ended or left alone too long is gone at once.
 *
 * @throws Problem 401
 */
export async function signedIn(event: H3Event, database: Database): Promise<Actor> {
  const id = await sessionNumber(event)
  const signedOut = new Problem(
    401,
    'signed-out',
    'You are signed out. Sign in again: what waits here is kept and sent then.',
  )
  if (id === null) throw signedOut
  const [row] = await database
    .select({
      id: person.id,
      name: person.name,
      role: person.role,
      active: person.active,
      startedAt: session.startedAt,
      lastSeenAt: session.lastSeenAt,
      idleHours: sql<
        string | null
      >`(select json_value(${setting.value}, '$.idleHours') from ${setting} where ${setting.key} = 'workshop')`,
    })
    .from(session)
    .innerJoin(person, eq(session.personId, person.id))
    .where(eq(session.id, id))
  if (!row) throw signedOut
  const now = Date.now()
  const idleMs = Number(row.idleHours ?? newWorkshop.idleHours) * MILLISECONDS_PER_HOUR
  if (!row.active || now - row.lastSeenAt.getTime() > idleMs || now - row.startedAt.getTime() > LONGEST_MS) {
    await database.delete(session).where(eq(session.id, id))
    throw row.active
      ? signedOut
      : new Problem(401, 'signed-out', 'This account is no longer active. Ask the owner of the shop.')
  }
  if (now - row.lastSeenAt.getTime() > SEEN_EVERY_MS)
    await database
      .update(session)
      .set({ lastSeenAt: new Date(now) })
      .where(eq(session.id, id))
  return { id: row.id, name: row.name, role: row.role }
}
