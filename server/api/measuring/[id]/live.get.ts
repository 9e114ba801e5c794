import { pathId, signedIn } from '../../../answer'
import { measuringRuns } from '../../../measuring/measuring-runs'
import { theBook } from '../../../open-book'

/** The state of a measuring run, again at every change, as a stream of events. */
export default defineEventHandler(async (event) => {
  await signedIn(event, theBook().database)
  const id = pathId(event)
  const stream = createEventStream(event)
  const push = (state: unknown): void => void stream.push(JSON.stringify(state))
  const leave = measuringRuns.watch(id, push)
  stream.onClosed(async () => {
    leave()
    await stream.close()
  })
  const state = measuringRuns.state(id)
  if (state) push(state)
  return stream.send()
})
