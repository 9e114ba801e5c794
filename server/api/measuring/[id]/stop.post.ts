import { answer, pathId } from '../../../answer'
import { measuringRuns } from '../../../measuring/measuring-runs'

/** Stops measuring, output off. */
export default answer((event) => {
  measuringRuns.stop(pathId(event))
  return Promise.resolve({ state: measuringRuns.state(pathId(event)) })
})
