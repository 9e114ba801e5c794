import { answer, pathId } from '../../answer'
import { readPhotograph } from '../../services/photographs'

export default answer(async (event, database) => {
  const { mediaType, bytes } = await readPhotograph(database, pathId(event))
  setResponseHeaders(event, { 'content-type': mediaType, 'cache-control': 'private, max-age=31536000, immutable', 'content-security-policy': "default-src 'none'; sandbox" })
  return bytes
})
