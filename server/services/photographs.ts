import { createHash } from 'node:crypto'
import { asc, eq } from 'drizzle-orm'
import pLimit from 'p-limit'
import sharp from 'sharp'
import type { PhotographSubject } from '../../messages/photograph-entries'
import type { StationId } from '../../messages/vocabulary'
import { hashOf, runOnce, type CommandReceipt } from '../commands/run-command'
import type { Actor } from '../commands/write'
import type { Database } from '../db/book'
import { finding, job, photograph, photographBlock } from '../db/schema'
import { notInTheBook, Problem } from '../problems'
import { mustHaveRoom } from './disk-room'

export const LARGEST_PHOTOGRAPH_BYTES = 25 * 1024 * 1024
const BLOCK_BYTES = 1024 * 1024
const MOST_PIXELS = 120_000_000
/** Of a hundred: nobody sees the difference at a bench. */
const KEPT_QUALITY = 92
const THUMBNAIL_PIXELS = 480
const ACCEPTED: Readonly<Record<string, string>> = { jpeg: 'image/jpeg', png: 'image/png', webp: 'image/webp' }

export function tooLargePhotograph(bytes: number): Problem {
  return new Problem(
    413,
    'photograph-too-large',
    `This photograph has ${Math.round(bytes / 1024 / 1024)} MB; at most ${LARGEST_PHOTOGRAPH_BYTES / 1024 / 1024} MB are kept. Set the camera to a smaller size, or send a reduced copy.`,
  )
}

export interface PhotographDetails {
  readonly id: string
  readonly jobId: string
  readonly station: StationId
  readonly caption: string
  readonly about: PhotographSubject | null
  readonly takenAt: Date
}

/** A large picture unpacked takes fifty megabytes: of eighty sent at once, two are worked on, the rest wait their turn. */
const working = pLimit(2)

/** Keeps a photograph: judged by its content, not its name, turned upright, in blocks with a hash. */
export async function keepPhotograph(
  database: Database,
  actor: Actor,
  commandId: string,
  details: PhotographDetails,
  bytes: Buffer,
): Promise<CommandReceipt> {
  if (actor.role === 'reader') throw new Problem(403, 'role', 'Your account may read the book but not write in it.')
  if (bytes.length > LARGEST_PHOTOGRAPH_BYTES) throw tooLargePhotograph(bytes.length)
  const received = createHash('sha256').update(bytes).digest('hex')
  const head = {
    commandId,
    name: 'photograph.keep',
    bodyHash: hashOf('photograph.keep', { ...details, takenAt: details.takenAt.toISOString(), received }),
    actor,
    capturedAt: details.takenAt,
  }
  const { kept, ...picture } = await working(() => readPicture(bytes))
  mustHaveRoom(kept.length)
  const sha256 = createHash('sha256').update(kept).digest('hex')
  return runOnce(database, head, async (write) => {
    const { jobId } = details
    await write.lock(job, jobId, 'job')
    if (details.about?.kind === 'finding')
      await write.mustNotLieElsewhere(finding, details.about.finding, 'finding', { jobId })
    await write.transaction
      .insert(photograph)
      .values({ ...details, ...picture, cleaned: true, size: kept.length, sha256 })
    for (let ordinal = 0; ordinal * BLOCK_BYTES < kept.length; ordinal++) {
      await write.transaction.insert(photographBlock).values({
        photographId: details.id,
        ordinal,
        bytes: kept.subarray(ordinal * BLOCK_BYTES, (ordinal + 1) * BLOCK_BYTES),
      })
    }
    write.journal({
      subject: 'photograph',
      subjectId: details.id,
      jobId: details.jobId,
      summary: details.caption ? `Photograph: ${details.caption}` : 'Photograph',
      after: { sha256, size: kept.length, station: details.station },
    })
    return { id: details.id }
  })
}

/**
 * The picture upright and without what the camera wrote into it (place, device, owner): that is all that is kept. An
 * original with the way to somebody's door in it would be of no use to the shop and a burden to guard.
 */
async function readPicture(
  bytes: Buffer,
): Promise<{ mediaType: string; width: number; height: number; thumbnail: Buffer; kept: Buffer }> {
  try {
    const { format, width, height, orientation } = await sharp(bytes, { limitInputPixels: MOST_PIXELS }).metadata()
    const mediaType = format ? ACCEPTED[format] : undefined
    if (!format || !mediaType || !width || !height) throw notAPicture()
    const turned = (orientation ?? 1) >= 5
    const kept = await withoutTraces(bytes, format)
    const thumbnail = await sharp(kept, { limitInputPixels: MOST_PIXELS })
      .resize(THUMBNAIL_PIXELS, THUMBNAIL_PIXELS, { fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 80 })
      .toBuffer()
    return { mediaType, width: turned ? height : width, height: turned ? width : height, thumbnail, kept }
  } catch (error) {
    throw error instanceof Problem ? error : notAPicture()
  }
}

/** Drawn anew in its own format: the library leaves out what it is not told to keep. */
function withoutTraces(bytes: Buffer, format: string): Promise<Buffer> {
  const upright = sharp(bytes, { limitInputPixels: MOST_PIXELS }).rotate()
  if (format === 'png') return upright.png().toBuffer()
  return (
    format === 'webp'
      ? upright.webp({ quality: KEPT_QUALITY })
      : upright.jpeg({ quality: KEPT_QUALITY, optimiseCoding: false })
  ).toBuffer()
}

function notAPicture(): Problem {
  return new Problem(
    415,
    'not-a-photograph',
    'This file is not a photograph, whatever its name says: JPEG, PNG and WebP are kept.',
  )
}

/** The whole photograph, its hash checked against what was stored. */
export async function readPhotograph(
  database: Database,
  id: string,
): Promise<{ mediaType: string; bytes: Buffer; sha256: string }> {
  const [row] = await database.select().from(photograph).where(eq(photograph.id, id))
  if (!row) throw notInTheBook('photograph')
  const blocks = await database
    .select({ bytes: photographBlock.bytes })
    .from(photographBlock)
    .where(eq(photographBlock.photographId, id))
    .orderBy(asc(photographBlock.ordinal))
  const bytes = Buffer.concat(blocks.map((block) => block.bytes))
  if (createHash('sha256').update(bytes).digest('hex') !== row.sha256)
    throw new Problem(
      500,
      'photograph-damaged',
      'This photograph is damaged in the database: restore it from a backup.',
    )
  // Kept by an earlier version as it came.
  if (!row.cleaned)
    return {
      mediaType: row.mediaType,
      bytes: await withoutTraces(bytes, row.mediaType.slice('image/'.length)),
      sha256: row.sha256,
    }
  return { mediaType: row.mediaType, bytes, sha256: row.sha256 }
}

export async function readThumbnail(database: Database, id: string): Promise<{ thumbnail: Buffer; sha256: string }> {
  const [row] = await database
    .select({ thumbnail: photograph.thumbnail, sha256: photograph.sha256 })
    .from(photograph)
    .where(eq(photograph.id, id))
  if (!row) throw notInTheBook('photograph')
  return row
}
