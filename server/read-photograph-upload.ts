import type { H3Event } from 'h3'
import pLimit from 'p-limit'
import { cutText } from '../messages/cut-text'
import type { PhotographSubject } from '../messages/photograph-entries'
import { problemsOf } from '../messages/validate'
import { stationIds, type StationId } from '../messages/vocabulary'
import { pathId } from './answer'
import { Problem } from './problems'
import { readLimitedBody } from './read-limited-body'
import { LARGEST_PHOTOGRAPH_BYTES, tooLargePhotograph } from './services/photographs'

const LONGEST_CAPTION = 200
const UUID_V7 = /^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/

/** What every photograph brings along in its query, wherever it comes from. */
export interface PhotographUpload {
  readonly commandId: string
  readonly id: string
  readonly station: StationId
  readonly about: PhotographSubject | null
  readonly caption: string
  readonly takenAt: Date
}

/**
 * Number, station, subject, caption and time of a photograph from the query.
 *
 * @throws Problem 422
 */
export function readUpload(event: H3Event): PhotographUpload {
  const { commandId, station, caption = '', takenAt } = getQuery(event)
  const known = stationIds.find((id) => id === station)
  if (
    typeof commandId !== 'string' ||
    !UUID_V7.test(commandId) ||
    !known ||
    typeof takenAt !== 'string' ||
    problemsOf('Moment', takenAt).length > 0 ||
    typeof caption !== 'string'
  )
    throw incomplete()
  return {
    commandId,
    id: pathId(event),
    station: known,
    about: readSubject(event),
    caption: cutText(caption.toWellFormed(), LONGEST_CAPTION),
    takenAt: new Date(takenAt),
  }
}

/** What a photograph shows, from the query; null where nothing is said. */
function readSubject(event: H3Event): PhotographSubject | null {
  const { about } = getQuery(event)
  if (about === undefined) return null
  try {
    const subject: unknown = JSON.parse(String(about))
    if (problemsOf('PhotographSubject', subject).length === 0) return subject as PhotographSubject
  } catch {
    // No JSON: the same sentence.
  }
  throw incomplete()
}

/**
 * The job a photograph from a signed-in screen belongs to.
 *
 * @throws Problem 422
 */
export function readJobId(event: H3Event): string {
  const { jobId } = getQuery(event)
  if (typeof jobId !== 'string' || !UUID_V7.test(jobId)) throw incomplete()
  return jobId
}

const incomplete = (): Problem => new Problem(422, 'invalid', 'The photograph came without its job, station or time.')

/** So many are taken in side by side; eighty at once would not fit the memory. */
const receiving = pLimit(6)

/**
 * The bytes of a photograph, given up as soon as there are too many.
 *
 * @throws Problem 413
 */
export async function readPhotographBytes(event: H3Event): Promise<Buffer> {
  const bytes = await receiving(() => readLimitedBody(event.node.req, LARGEST_PHOTOGRAPH_BYTES))
  if (bytes) return bytes
  // The rest of an oversized body is not wanted: the connection is closed after the answer.
  setResponseHeader(event, 'connection', 'close')
  throw tooLargePhotograph(Number(getRequestHeader(event, 'content-length') ?? LARGEST_PHOTOGRAPH_BYTES + 1))
}
