import { validate as isUuid } from 'uuid'
import { answer, pathId } from '../../../answer'
import { fieldsOf, readJson, SMALL_BODY_BYTES } from '../../../read-json'
import { keepLiveReading } from '../../../measuring/keep-live-reading'
import { liveBenches } from '../../../measuring/live-benches'
import { mustMayMeasure } from '../../../measuring/may-measure'
import { Problem } from '../../../problems'

/** Writes what a live supply reads now into the sheet of the engine's job. */
export default answer(async (event, database, actor) => {
  mustMayMeasure(actor)
  const { commandId, held } = fieldsOf(await readJson(event, SMALL_BODY_BYTES))
  if (typeof commandId !== 'string' || !isUuid(commandId))
    throw new Problem(422, 'command-id', 'A reading to keep needs a number of its own (commandId, a uuid).')
  return {
    kept: await keepLiveReading(database, liveBenches, actor, pathId(event), { commandId, held: held === true }),
  }
})
