import { answer, pathId } from '../../../answer'
import { readThumbnail } from '../../../services/photographs'

export default answer(async (event, database) => {
  const bytes = await readThumbnail(database, pathId(event))
  setResponseHeaders(event, { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=31536000, immutable', 'content-security-policy': "default-src 'none'; sandbox" })
  return bytes
})
