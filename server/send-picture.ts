import type { H3Event } from 'h3'

/**
 * A picture that the browser may keep but must ask about each time, so that nobody sees it after signing out on a
 * device that others use too; what it still has is not sent again.
 */
export function sendPicture(
  event: H3Event,
  { mediaType, bytes, tag }: { mediaType: string; bytes: Buffer; tag: string },
): Buffer | null {
  const etag = `"${tag}"`
  setResponseHeaders(event, {
    'cache-control': 'private, no-cache',
    vary: 'cookie',
    etag,
    'content-security-policy': "default-src 'none'; sandbox",
  })
  if (getRequestHeader(event, 'if-none-match') === etag) {
    setResponseStatus(event, 304)
    return null
  }
  setResponseHeader(event, 'content-type', mediaType)
  return bytes
}
