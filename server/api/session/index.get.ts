import { count, desc } from 'drizzle-orm'
import { openAnswer } from '../../answer'
import { journal, person } from '../../db/schema'
import { Problem } from '../../problems'
import { signedIn } from '../../sessions'

/** Who is signed in, or null; whether the workshop still waits for its owner; and what its clocks say. */
export default openAnswer(async (event, database) => {
  const demo = process.env.ECHOPPE_DEMO === 'yes'
  const now = new Date().toISOString()
  try {
    return { person: await signedIn(event, database), firstOwnerWanted: false, demo, now, latestEntryAt: null }
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    const [[people], [latest]] = await Promise.all([
      database.select({ rows: count() }).from(person),
      database.select({ at: journal.receivedAt }).from(journal).orderBy(desc(journal.sequence)).limit(1),
    ])
    return {
      person: null,
      firstOwnerWanted: people?.rows === 0,
      demo,
      now,
      latestEntryAt: latest?.at.toISOString() ?? null,
    }
  }
})
