import { stationIds, type StationId } from '../../../shared/vocabulary'
import { answer, pathId } from '../../answer'
import { Problem } from '../../problems'
import { readLimitedBody } from '../../read-limited-body'
import { keepPhotograph, LARGEST_PHOTOGRAPH_BYTES, tooLargePhotograph } from '../../services/photographs'

const UUID_V7 = /^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/

/** A photograph's bytes as the body, what belongs to it in the query. */
export default answer(async (event, database, actor) => {
  const { jobId, commandId, station, caption, takenAt } = getQuery(event)
  if (!UUID_V7.test(String(jobId)) || !UUID_V7.test(String(commandId)) || !stationIds.includes(station as StationId) || Number.isNaN(Date.parse(String(takenAt)))) {
    throw new Problem(422, 'invalid', 'The photograph came without its job, station or time.')
  }
  const bytes = await readLimitedBody(event.node.req, LARGEST_PHOTOGRAPH_BYTES)
  if (!bytes) {
    // The rest of an oversized body is not wanted: the connection is closed after the answer.
    setResponseHeader(event, 'connection', 'close')
    throw tooLargePhotograph(Number(getRequestHeader(event, 'content-length') ?? LARGEST_PHOTOGRAPH_BYTES + 1))
  }
  return keepPhotograph(database, actor, String(commandId), {
    id: pathId(event), jobId: String(jobId), station: station as StationId, caption: String(caption ?? '').slice(0, 200), takenAt: new Date(String(takenAt)),
  }, bytes)
})
