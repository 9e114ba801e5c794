import { createHash, randomBytes } from 'node:crypto'
import { addDays, parseISO } from 'date-fns'
import { and, eq } from 'drizzle-orm'
import ical from 'ical-generator'
import { v7 as newId } from 'uuid'
import type { CareBook } from '../../messages/book'
import type { Actor } from '../commands/write'
import type { Database } from '../db/book'
import { calendarFeed, person } from '../db/schema'
import { notInTheBook, Problem } from '../problems'

const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex')

/** A secret address for a calendar; it is told once and kept nowhere. */
export async function makeFeed(database: Database, actor: Actor): Promise<{ id: string; token: string }> {
  if (actor.role === 'reader') throw new Problem(403, 'role', 'Your account may read the book but not write in it.')
  const [id, token] = [newId(), randomBytes(32).toString('base64url')]
  await database.insert(calendarFeed).values({ id, tokenHash: hashOf(token), personId: actor.id, madeAt: new Date() })
  return { id, token }
}

/** From now on the address leads nowhere. */
export async function revokeFeed(database: Database, actor: Actor, id: string): Promise<void> {
  if (actor.role === 'reader') throw new Problem(403, 'role', 'Your account may read the book but not write in it.')
  const [row] = await database.select({ id: calendarFeed.id }).from(calendarFeed).where(eq(calendarFeed.id, id))
  if (!row) throw notInTheBook('calendar address')
  await database.update(calendarFeed).set({ revoked: true }).where(eq(calendarFeed.id, id))
}

/**
 * Refuses an address that was never given, was revoked, or whose person is gone: as if there were nothing.
 *
 * @throws Problem 404
 */
export async function mustBeFed(database: Database, token: string): Promise<void> {
  const [row] = /^[\w-]{43}$/.test(token)
    ? await database
        .select({ id: calendarFeed.id })
        .from(calendarFeed)
        .innerJoin(person, eq(calendarFeed.personId, person.id))
        .where(and(eq(calendarFeed.tokenHash, hashOf(token)), eq(calendarFeed.revoked, false), eq(person.active, true)))
    : []
  if (!row) throw new Problem(404, 'not-found', 'This address leads to nothing in the book.')
}

/** What is due when, as an iCalendar file (RFC 5545): whole days, one event an engine and kind of care. */
export function careCalendar(book: CareBook, shop: string): string {
  const calendar = ical({
    name: `Care due, ${shop}`,
    prodId: { company: 'Echoppe', product: 'care book', language: 'EN' },
  })
  for (const line of book.lines)
    for (const due of line.due) {
      if (due.inDays === null) continue
      const day = addDays(parseISO(book.today), due.inDays)
      const interval =
        due.earliest === null || due.inDays === 0
          ? ''
          : ` Between ${due.earliest} and ${due.latest ?? 'many'} days from ${book.today}, by how it ran lately.`
      calendar.createEvent({
        id: `${due.id}-${line.engineId}@echoppe`,
        start: day,
        allDay: true,
        summary: `${line.name}: ${due.name.toLowerCase()}`,
        description: `${line.type}, ${line.owner}. ${due.spent.toFixed(1)} h of ${due.every} h.${interval}`,
      })
    }
  return calendar.toString()
}
