import { answer } from '../../answer'
import { readJobId, readPhotographBytes, readUpload } from '../../read-photograph-upload'
import { keepPhotograph } from '../../services/photographs'

/** A photograph's bytes as the body, what belongs to it in the query. */
export default answer(async (event, database, actor) => {
  const { commandId, ...picture } = readUpload(event)
  const details = { ...picture, jobId: readJobId(event) }
  return keepPhotograph(database, actor, commandId, details, await readPhotographBytes(event))
})
