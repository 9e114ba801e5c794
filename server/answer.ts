import { and, eq } from 'drizzle-orm'
import type { EventHandler, H3Event } from 'h3'
import type { Role } from '../shared/vocabulary'
import type { Actor } from './commands/write'
import { person } from './db/schema'
import { theBook } from './open-book'
import { Problem, problemOf } from './problems'
import type { Database } from './db/book'

/** Sends a refusal as problem+json. */
export function sendProblem(event: H3Event, problem: Problem): object {
  setResponseStatus(event, problem.status)
  setResponseHeader(event, 'content-type', 'application/problem+json')
  if (problem.extra.retryAfterSeconds) setResponseHeader(event, 'retry-after', problem.extra.retryAfterSeconds)
  return problem.toDocument()
}

/** A route that anyone may call; what it throws becomes a sentence. */
export function openAnswer<T>(handle: (event: H3Event, database: Database) => Promise<T>): EventHandler {
  return defineEventHandler(async (event: H3Event) => {
    try {
      return await handle(event, theBook().database)
    } catch (error) {
      const problem = problemOf(error)
      if (problem) return sendProblem(event, problem)
      console.error(`${event.method} ${event.path}`, error)
      return sendProblem(event, new Problem(500, 'unexpected', 'Something went wrong here that should not have. What you typed is kept; try again in a moment.'))
    }
  })
}

/** A route for people who are signed in; the account is looked up anew each time, so a role taken away is gone at once. */
export function answer<T>(handle: (event: H3Event, database: Database, actor: Actor) => Promise<T>): EventHandler {
  return openAnswer(async (event, database) => handle(event, database, await signedIn(event, database)))
}

export async function signedIn(event: H3Event, database: Database): Promise<Actor> {
  const session = await getUserSession(event)
  const id = (session.user as { id?: string } | undefined)?.id
  if (!id) throw new Problem(401, 'signed-out', 'You are signed out. Sign in again: what waits here is kept and sent then.')
  const [row] = await database.select({ id: person.id, name: person.name, role: person.role }).from(person).where(and(eq(person.id, id), eq(person.active, true)))
  if (!row) throw new Problem(401, 'signed-out', 'This account is no longer active. Ask the owner of the shop.')
  return row satisfies { role: Role }
}

/** A whole number from the query within bounds; anything else is the usual one. */
export function wholeNumber(value: unknown, usual: number, lowest: number, highest: number): number {
  const number = Number(value)
  return Number.isInteger(number) && number >= lowest && number <= highest ? number : usual
}

/** An id from the path, refused when it is none. */
export function pathId(event: H3Event): string {
  const id = getRouterParam(event, 'id') ?? ''
  if (!/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(id)) throw new Problem(404, 'not-found', 'This address leads to nothing in the book.')
  return id
}
