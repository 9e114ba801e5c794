import { openAnswer } from '../../answer'
import { phoneToken } from '../../phone-token'
import { letIn } from '../../services/phone-access'

/** What the bench has in hand, for the phone that was let in. */
export default openAnswer(async (event, database) => {
  const { actor, jobNumber, engine, aim, expiresAt } = await letIn(database, phoneToken(event))
  return { person: actor.name, jobNumber, engine, aim, expiresAt }
})
