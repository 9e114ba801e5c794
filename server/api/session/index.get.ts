import { count } from 'drizzle-orm'
import { openAnswer, signedIn } from '../../answer'
import { person } from '../../db/schema'
import { Problem } from '../../problems'

/** Who is signed in, or null; and whether the workshop still waits for its owner. */
export default openAnswer(async (event, database) => {
  try {
    return { person: await signedIn(event, database), firstOwnerWanted: false, demo: process.env.ECHOPPE_DEMO === 'yes' }
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    const [people] = await database.select({ rows: count() }).from(person)
    return { person: null, firstOwnerWanted: people?.rows === 0, demo: process.env.ECHOPPE_DEMO === 'yes' }
  }
})
