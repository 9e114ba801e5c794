import { answer, pathId } from '../../answer'
import { shutPhone } from '../../services/phone-access'

/** The step is left: the code on the screen is good for nothing any more. */
export default answer(async (event, database, actor) => {
  await shutPhone(database, actor, pathId(event))
  setResponseStatus(event, 204)
  return null
})
