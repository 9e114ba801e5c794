import { openAnswer } from '../../../answer'
import { phoneToken } from '../../../phone-token'
import { readPhotographBytes, readUpload } from '../../../read-photograph-upload'
import { letIn } from '../../../services/phone-access'
import { keepPhotograph } from '../../../services/photographs'

/** A photograph from a phone, of what the bench had in hand when it was taken; of the job it was let in for, no other. */
export default openAnswer(async (event, database) => {
  const { actor, jobId } = await letIn(database, phoneToken(event))
  const { commandId, ...picture } = readUpload(event)
  const { repeated } = await keepPhotograph(
    database,
    actor,
    commandId,
    { ...picture, jobId },
    await readPhotographBytes(event),
  )
  return { kept: true, repeated }
})
