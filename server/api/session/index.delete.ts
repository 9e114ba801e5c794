import { openAnswer } from '../../answer'
import { endSession } from '../../sessions'

export default openAnswer(async (event, database) => {
  await endSession(event, database)
  return { person: null }
})
