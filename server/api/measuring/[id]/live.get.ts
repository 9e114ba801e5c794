import { pathId, streamAnswer } from '../../../answer'
import { measuringRuns } from '../../../measuring/measuring-runs'

/** The state of a measuring run, again at every change, as a stream of events. */
export default streamAnswer((event, _database, push) => {
  const id = pathId(event)
  const leave = measuringRuns.watch(id, (state) => push(state))
  const state = measuringRuns.state(id)
  if (state) push(state)
  return leave
})
