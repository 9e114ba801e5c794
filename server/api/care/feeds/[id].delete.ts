import { answer, pathId } from '../../../answer'
import { revokeFeed } from '../../../services/calendar-feed'

/** Takes a calendar’s address back. */
export default answer(async (event, database, actor) => {
  await revokeFeed(database, actor, pathId(event))
  setResponseStatus(event, 204)
  return null
})
