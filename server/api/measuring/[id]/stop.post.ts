import { answer, pathId } from '../../../answer'
import { measuringRuns } from '../../../measuring/measuring-runs'

/** Stops measuring, output off. Whoever sees smoke may, a reader too. */
export default answer((event) => {
  measuringRuns.stop(pathId(event))
  return Promise.resolve({ state: measuringRuns.state(pathId(event)) })
})
