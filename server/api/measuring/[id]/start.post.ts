import { measuringProcedures } from '../../../../messages/measuring'
import { cutText } from '../../../../messages/cut-text'
import { answer, pathId } from '../../../answer'
import { mustMayMeasure } from '../../../measuring/may-measure'
import { measuringRuns } from '../../../measuring/measuring-runs'
import { fieldsOf, readJson, SMALL_BODY_BYTES } from '../../../read-json'

const LONGEST_STEP = 120

/** Starts measuring into a sheet with an instrument. */
export default answer(async (event, database, actor) => {
  mustMayMeasure(actor)
  const { instrumentId, procedure, step } = fieldsOf(await readJson(event, SMALL_BODY_BYTES))
  return {
    state: await measuringRuns.start(database, actor, pathId(event), {
      instrumentId: typeof instrumentId === 'string' ? instrumentId : '',
      procedure: measuringProcedures.find((entry) => entry === procedure) ?? 'sweep',
      step: typeof step === 'string' ? cutText(step, LONGEST_STEP) : '',
    }),
  }
})
