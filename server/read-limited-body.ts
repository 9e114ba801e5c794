import type { IncomingMessage } from 'node:http'
import { Problem } from './problems'

/** A body of which nothing comes for so long has broken off: a phone that left the network says no word of it. */
const LONGEST_SILENCE_MS = 15_000

/**
 * Reads a request's bytes, giving up as soon as there are more than allowed. Null when there are.
 *
 * @throws Problem 400 when it breaks off on the way, or falls silent: nobody waits behind it
 */
export async function readLimitedBody(
  request: IncomingMessage,
  limit: number,
  longestSilenceMs = LONGEST_SILENCE_MS,
): Promise<Buffer | null> {
  const announced = Number(request.headers['content-length'] ?? 0)
  if (announced > limit) return null
  const chunks: Buffer[] = []
  let size = 0
  request.setTimeout(longestSilenceMs, () => request.destroy())
  try {
    for await (const chunk of request as AsyncIterable<Buffer>) {
      size += chunk.length
      if (size > limit) return null
      chunks.push(chunk)
    }
  } catch {
    throw new Problem(400, 'broken-off', 'It broke off on the way: nothing of it was kept. Send it again.')
  } finally {
    request.setTimeout(0)
  }
  return Buffer.concat(chunks)
}
