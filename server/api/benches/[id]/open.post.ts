import { answer, pathId } from '../../../answer'
import { fieldsOf, readJson, SMALL_BODY_BYTES } from '../../../read-json'
import { liveBenches } from '../../../measuring/live-benches'
import { mustMayMeasure } from '../../../measuring/may-measure'

/** Opens a supply at a bench, output off. */
export default answer(async (event, database, actor) => {
  mustMayMeasure(actor)
  const { engineId, place } = fieldsOf(await readJson(event, SMALL_BODY_BYTES))
  return {
    state: await liveBenches.open(
      database,
      pathId(event),
      typeof engineId === 'string' ? engineId : null,
      place === 'rails' ? 'rails' : 'motor',
    ),
  }
})
