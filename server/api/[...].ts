import { openAnswer } from '../answer'
import { Problem } from '../problems'

/** Any address under /api that is none. */
export default openAnswer(async () => {
  throw new Problem(404, 'no-such-address', 'There is nothing at this address.')
})
