import { answer, pathId } from '../../../answer'
import { sendPicture } from '../../../send-picture'
import { readThumbnail } from '../../../services/photographs'

export default answer(async (event, database) => {
  const { thumbnail, sha256 } = await readThumbnail(database, pathId(event))
  return sendPicture(event, { mediaType: 'image/jpeg', bytes: thumbnail, tag: `small-${sha256}` })
})
