import { pathId, streamAnswer } from '../../../answer'
import { bookNews } from '../../../book-news'
import { readJobSlices } from '../../../services/read-job'

/** What is written in a job's book from now on, by whomever; after a gap from where the listener was. */
export default streamAnswer(async (event, database, push) => {
  const { job, engine, type, owner } = await readJobSlices(database, pathId(event), [])
  const since = getRequestHeader(event, 'last-event-id') ?? getQuery(event).since
  return bookNews.listen(
    { jobId: job.id, engineId: engine.id, typeId: type.id, ownerId: owner.id },
    typeof since === 'string' ? since : '',
    ({ at, changes }) => push(changes, { id: at }),
    (at) => push(null, { id: at, event: 'reread' }),
  )
})
