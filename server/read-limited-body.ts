import type { IncomingMessage } from 'node:http'

/** Reads a request's bytes, giving up as soon as there are more than allowed. Null when there are. */
export async function readLimitedBody(request: IncomingMessage, limit: number): Promise<Buffer | null> {
  const announced = Number(request.headers['content-length'] ?? 0)
  if (announced > limit) return null
  const chunks: Buffer[] = []
  let size = 0
  for await (const chunk of request as AsyncIterable<Buffer>) {
    size += chunk.length
    if (size > limit) return null
    chunks.push(chunk)
  }
  return Buffer.concat(chunks)
}
