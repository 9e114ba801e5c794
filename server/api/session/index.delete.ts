import { openAnswer } from '../../answer'

export default openAnswer(async (event) => {
  await clearUserSession(event)
  return { person: null }
})
