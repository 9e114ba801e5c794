import { answer, pathId } from '../../answer'
import { sendPicture } from '../../send-picture'
import { readPhotograph } from '../../services/photographs'

export default answer(async (event, database) => {
  const { mediaType, bytes, sha256 } = await readPhotograph(database, pathId(event))
  return sendPicture(event, { mediaType, bytes, tag: sha256 })
})
