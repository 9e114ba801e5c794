import { createHash, randomBytes } from 'node:crypto'
import { and, eq, lt } from 'drizzle-orm'
import { v7 as newId } from 'uuid'
import { engineName } from '../../work/engine-name'
import type { PhoneAim } from '../../messages/photograph-entries'
import type { Actor } from '../commands/write'
import type { Database } from '../db/book'
import { engine, engineType, job, person, phoneAccess } from '../db/schema'
import { notInTheBook, Problem } from '../problems'

/** So long a phone may send after the bench last aimed it. */
const LASTS_MS = 10 * 60_000

/** A phone that was let in: the token goes into the code on the screen and is kept nowhere. */
export interface OpenedPhone {
  readonly id: string
  readonly token: string
  readonly expiresAt: string
}

const hashOfToken = (token: string): string => createHash('sha256').update(token).digest('hex')
const until = (): Date => new Date(Date.now() + LASTS_MS)

/** Lets a phone send photographs of this job for ten minutes; what the same person let in before is shut out. */
export async function openPhone(database: Database, actor: Actor, jobId: string, aim: PhoneAim): Promise<OpenedPhone> {
  if (actor.role === 'reader') throw new Problem(403, 'role', 'Your account may read the book but not write in it.')
  const [known] = await database.select({ id: job.id }).from(job).where(eq(job.id, jobId))
  if (!known) throw notInTheBook('job')
  await database.delete(phoneAccess).where(lt(phoneAccess.expiresAt, new Date()))
  await database.delete(phoneAccess).where(and(eq(phoneAccess.jobId, jobId), eq(phoneAccess.personId, actor.id)))
  const [id, token, expiresAt] = [newId(), randomBytes(32).toString('base64url'), until()]
  await database
    .insert(phoneAccess)
    .values({ id, tokenHash: hashOfToken(token), jobId, personId: actor.id, aim, expiresAt })
  return { id, token, expiresAt: expiresAt.toISOString() }
}

/** Says what the bench has in hand now: the next pictures belong to it, and the ten minutes begin again. */
export async function aimPhone(
  database: Database,
  actor: Actor,
  id: string,
  aim: PhoneAim,
): Promise<{ expiresAt: string }> {
  const mine = and(eq(phoneAccess.id, id), eq(phoneAccess.personId, actor.id))
  const [row] = await database.select().from(phoneAccess).where(mine)
  if (!row || row.expiresAt.getTime() < Date.now()) throw phoneShutOut()
  const expiresAt = until()
  await database.update(phoneAccess).set({ aim, expiresAt }).where(mine)
  return { expiresAt: expiresAt.toISOString() }
}

/** Shuts the phone out: the step is left. */
export async function shutPhone(database: Database, actor: Actor, id: string): Promise<void> {
  await database.delete(phoneAccess).where(and(eq(phoneAccess.id, id), eq(phoneAccess.personId, actor.id)))
}

/** What a phone may do: for whom it writes, where to. */
export interface LetInPhone {
  readonly actor: Actor
  readonly jobId: string
  readonly jobNumber: number
  readonly engine: string
  readonly aim: PhoneAim
  readonly expiresAt: string
}

/**
 * Whom a token lets in, looked up anew each time.
 *
 * @throws Problem 401 when it is unknown, used up, or its person may not write any more
 */
export async function letIn(database: Database, token: string): Promise<LetInPhone> {
  if (!/^[\w-]{43}$/.test(token)) throw phoneShutOut()
  const [row] = await database
    .select({
      access: phoneAccess,
      number: job.number,
      engine,
      type: engineType,
      person: { id: person.id, name: person.name, role: person.role, active: person.active },
    })
    .from(phoneAccess)
    .innerJoin(job, eq(phoneAccess.jobId, job.id))
    .innerJoin(engine, eq(job.engineId, engine.id))
    .innerJoin(engineType, eq(engine.typeId, engineType.id))
    .innerJoin(person, eq(phoneAccess.personId, person.id))
    .where(eq(phoneAccess.tokenHash, hashOfToken(token)))
  if (!row || row.access.expiresAt.getTime() < Date.now() || !row.person.active || row.person.role === 'reader')
    throw phoneShutOut()
  const { active: _active, ...actor } = row.person
  return {
    actor,
    jobId: row.access.jobId,
    jobNumber: row.number,
    engine: engineName(row.engine, row.type),
    aim: row.access.aim,
    expiresAt: row.access.expiresAt.toISOString(),
  }
}

const phoneShutOut = (): Problem =>
  new Problem(
    401,
    'phone-shut-out',
    'This code is not good any more: the step was left, or ten minutes passed. Scan the one on the bench screen.',
  )
