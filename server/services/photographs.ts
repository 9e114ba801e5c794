import { createHash } from 'node:crypto'
import { asc, eq } from 'drizzle-orm'
import sharp from 'sharp'
import type { StationId } from '../../shared/vocabulary'
import { runOnce, type CommandReceipt } from '../commands/run-command'
import type { Actor } from '../commands/write'
import type { Database } from '../db/book'
import { job, photograph, photographBlock } from '../db/schema'
import { notInTheBook, Problem } from '../problems'

export const LARGEST_PHOTOGRAPH_BYTES = 25 * 1024 * 1024
const BLOCK_BYTES = 1024 * 1024
const THUMBNAIL_PIXELS = 480
const ACCEPTED: Readonly<Record<string, string>> = { jpeg: 'image/jpeg', png: 'image/png', webp: 'image/webp' }

export function tooLargePhotograph(bytes: number): Problem {
  return new Problem(413, 'photograph-too-large', `This photograph has ${Math.round(bytes / 1024 / 1024)} MB; at most ${LARGEST_PHOTOGRAPH_BYTES / 1024 / 1024} MB are kept. Set the camera to a smaller size, or send a reduced copy.`)
}

export interface PhotographDetails {
  readonly id: string
  readonly jobId: string
  readonly station: StationId
  readonly caption: string
  readonly takenAt: Date
}

/** Keeps a photograph: judged by its content, not its name, turned upright, in blocks with a hash. */
export async function keepPhotograph(database: Database, actor: Actor, commandId: string, details: PhotographDetails, bytes: Buffer): Promise<CommandReceipt> {
  if (actor.role === 'reader') throw new Problem(403, 'role', 'Your account may read the book but not write in it.')
  if (bytes.length > LARGEST_PHOTOGRAPH_BYTES) throw tooLargePhotograph(bytes.length)
  const sha256 = createHash('sha256').update(bytes).digest('hex')
  const picture = await readPicture(bytes)
  const head = { commandId, name: 'photograph.keep', bodyHash: sha256, actor, capturedAt: details.takenAt }
  return runOnce(database, head, async (write) => {
    await write.lock(job, details.jobId, 'job')
    await write.transaction.insert(photograph).values({ ...details, ...picture, size: bytes.length, sha256 })
    for (let ordinal = 0; ordinal * BLOCK_BYTES < bytes.length; ordinal++) {
      await write.transaction.insert(photographBlock).values({ photographId: details.id, ordinal, bytes: bytes.subarray(ordinal * BLOCK_BYTES, (ordinal + 1) * BLOCK_BYTES) })
    }
    write.journal({ subject: 'photograph', subjectId: details.id, jobId: details.jobId, summary: details.caption ? `Photograph: ${details.caption}` : 'Photograph', after: { sha256, size: bytes.length, station: details.station } })
    return { id: details.id }
  })
}

async function readPicture(bytes: Buffer): Promise<{ mediaType: string; width: number; height: number; thumbnail: Buffer }> {
  try {
    const { format, width, height, orientation } = await sharp(bytes, { limitInputPixels: 120_000_000 }).metadata()
    const mediaType = format ? ACCEPTED[format] : undefined
    if (!mediaType || !width || !height) throw notAPicture()
    const turned = (orientation ?? 1) >= 5
    const thumbnail = await sharp(bytes).rotate().resize(THUMBNAIL_PIXELS, THUMBNAIL_PIXELS, { fit: 'inside', withoutEnlargement: true }).jpeg({ quality: 80 }).toBuffer()
    return { mediaType, width: turned ? height : width, height: turned ? width : height, thumbnail }
  } catch (error) {
    throw error instanceof Problem ? error : notAPicture()
  }
}

function notAPicture(): Problem {
  return new Problem(415, 'not-a-photograph', 'This file is not a photograph, whatever its name says: JPEG, PNG and WebP are kept.')
}

/** The whole photograph, its hash checked against what was stored. */
export async function readPhotograph(database: Database, id: string): Promise<{ mediaType: string; bytes: Buffer }> {
  const [row] = await database.select().from(photograph).where(eq(photograph.id, id))
  if (!row) throw notInTheBook('photograph')
  const blocks = await database.select({ bytes: photographBlock.bytes }).from(photographBlock).where(eq(photographBlock.photographId, id)).orderBy(asc(photographBlock.ordinal))
  const bytes = Buffer.concat(blocks.map((block) => block.bytes))
  if (createHash('sha256').update(bytes).digest('hex') !== row.sha256) throw new Problem(500, 'photograph-damaged', 'This photograph is damaged in the database: restore it from a backup.')
  return { mediaType: row.mediaType, bytes }
}

export async function readThumbnail(database: Database, id: string): Promise<Buffer> {
  const [row] = await database.select({ thumbnail: photograph.thumbnail }).from(photograph).where(eq(photograph.id, id))
  if (!row) throw notInTheBook('photograph')
  return row.thumbnail
}
