import { answer, pathId } from '../../../answer'
import { readSisterPhotographs } from '../../../services/sister-photographs'

/** Photographs of one part from other jobs on engines of the same type. */
export default answer(async (event, database) => {
  const { part } = getQuery(event)
  return readSisterPhotographs(database, pathId(event), typeof part === 'string' ? part : '')
})
