import type { H3Event } from 'h3'
import { cutText } from '../../../messages/cut-text'
import { problemsOf } from '../../../messages/validate'
import { stationIds } from '../../../messages/vocabulary'
import { answer, pathId } from '../../answer'
import { Problem } from '../../problems'
import { readLimitedBody } from '../../read-limited-body'
import {
  keepPhotograph,
  type PhotographDetails,
  LARGEST_PHOTOGRAPH_BYTES,
  tooLargePhotograph,
} from '../../services/photographs'

const LONGEST_CAPTION = 200
const UUID_V7 = /^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/

/** A photograph's bytes as the body, what belongs to it in the query. */
export default answer(async (event, database, actor) => {
  const details = readDetails(event)
  const bytes = await readLimitedBody(event.node.req, LARGEST_PHOTOGRAPH_BYTES)
  if (!bytes) {
    // The rest of an oversized body is not wanted: the connection is closed after the answer.
    setResponseHeader(event, 'connection', 'close')
    throw tooLargePhotograph(Number(getRequestHeader(event, 'content-length') ?? LARGEST_PHOTOGRAPH_BYTES + 1))
  }
  return keepPhotograph(database, actor, details.commandId, details.photograph, bytes)
})

function readDetails(event: H3Event): { commandId: string; photograph: PhotographDetails } {
  const { jobId, commandId, station, caption = '', takenAt } = getQuery(event)
  const known = stationIds.find((id) => id === station)
  if (
    typeof jobId !== 'string' ||
    !UUID_V7.test(jobId) ||
    typeof commandId !== 'string' ||
    !UUID_V7.test(commandId) ||
    !known ||
    typeof takenAt !== 'string' ||
    problemsOf('Moment', takenAt).length > 0 ||
    typeof caption !== 'string'
  ) {
    throw new Problem(422, 'invalid', 'The photograph came without its job, station or time.')
  }
  return {
    commandId,
    photograph: {
      id: pathId(event),
      jobId,
      station: known,
      caption: cutText(caption.toWellFormed(), LONGEST_CAPTION),
      takenAt: new Date(takenAt),
    },
  }
}
