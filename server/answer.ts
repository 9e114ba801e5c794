import type { EventHandler, H3Event } from 'h3'
import { cutText } from '../messages/cut-text'
import type { Actor } from './commands/write'
import type { Database } from './db/book'
import { logUnexpected, pathOnly } from './log-line'
import { theBook } from './open-book'
import { Problem, problemOf } from './problems'
import { signedIn } from './sessions'

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
      logUnexpected(`${event.method} ${pathOnly(event.path)}`, error)
      return sendProblem(
        event,
        new Problem(
          500,
          'unexpected',
          'Something went wrong here that should not have. What you typed is kept; try again in a moment.',
        ),
      )
    }
  })
}

/** A route for people who are signed in. */
export function answer<T>(handle: (event: H3Event, database: Database, actor: Actor) => Promise<T>): EventHandler {
  return openAnswer(async (event, database) => handle(event, database, await signedIn(event, database)))
}

/** How often a stream asks whether whoever listens is still signed in. */
const ASK_AGAIN_MS = 60_000

/** Pushes one message to whoever listens: under an id to come back by, or as an event of another name. */
export type Push = (message: unknown, as?: { readonly id?: string; readonly event?: string }) => void

/**
 * A route that goes on telling: what `subscribe` pushes, as a stream of events, for as long as the page listens and
 * its session lasts.
 *
 * @param subscribe gets where to push, gives back how to leave; may push at once
 */
export function streamAnswer(
  subscribe: (event: H3Event, database: Database, push: Push) => (() => void) | Promise<() => void>,
): EventHandler {
  return answer(async (event, database) => {
    const stream = createEventStream(event)
    const leave = await subscribe(
      event,
      database,
      (message, as = {}) => void stream.push({ ...as, data: JSON.stringify(message) }),
    )
    const asking = setInterval(
      () =>
        void signedIn(event, database).catch((error: unknown) => {
          if (error instanceof Problem) return stream.close()
        }),
      ASK_AGAIN_MS,
    )
    stream.onClosed(async () => {
      clearInterval(asking)
      leave()
      await stream.close()
    })
    // Headers go out with the first words: without any, the page would not know yet that it is listening.
    void stream.push({ event: 'listening', data: '' })
    return stream.send()
  })
}

/** A whole number from the query within bounds; anything else is the usual one. */
export function wholeNumber(value: unknown, usual: number, lowest: number, highest: number): number {
  const number = Number(value)
  return Number.isInteger(number) && number >= lowest && number <= highest ? number : usual
}

const LONGEST_SEARCH = 200

/** What is searched for, from the query. */
export function searchWords(value: unknown): string {
  return typeof value === 'string' ? cutText(value.toWellFormed(), LONGEST_SEARCH) : ''
}

/** An id from the path, refused when it is none. */
export function pathId(event: H3Event): string {
  const id = getRouterParam(event, 'id') ?? ''
  if (!/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(id))
    throw new Problem(404, 'not-found', 'This address leads to nothing in the book.')
  return id
}
