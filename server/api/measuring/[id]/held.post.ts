import { answer, pathId } from '../../../answer'
import { mustMayMeasure } from '../../../measuring/may-measure'
import { measuringRuns } from '../../../measuring/measuring-runs'

/** A hand says that the armature is held. */
export default answer((event, _database, actor) => {
  mustMayMeasure(actor)
  measuringRuns.held(pathId(event))
  return Promise.resolve({ state: measuringRuns.state(pathId(event)) })
})
