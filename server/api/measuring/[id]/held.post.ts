import { answer, pathId } from '../../../answer'
import { measuringRuns } from '../../../measuring/measuring-runs'

/** A hand says that the armature is held. */
export default answer((event) => {
  measuringRuns.held(pathId(event))
  return Promise.resolve({ state: measuringRuns.state(pathId(event)) })
})
