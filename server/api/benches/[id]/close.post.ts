import { answer, pathId } from '../../../answer'
import { liveBenches } from '../../../measuring/live-benches'
import { mustMayMeasure } from '../../../measuring/may-measure'

/** Output off, and the supply free for others. */
export default answer(async (event, _database, actor) => {
  mustMayMeasure(actor)
  await liveBenches.close(pathId(event))
  return { closed: true }
})
