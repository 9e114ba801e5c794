import { measuringAnswers } from '../../../../messages/measuring'
import { answer, pathId } from '../../../answer'
import { fieldsOf, readJson, SMALL_BODY_BYTES } from '../../../read-json'
import { mustMayMeasure } from '../../../measuring/may-measure'
import { measuringRuns } from '../../../measuring/measuring-runs'
import { Problem } from '../../../problems'

/** Somebody at the bench says what the engine does. */
export default answer(async (event, _database, actor) => {
  mustMayMeasure(actor)
  const { turns } = fieldsOf(await readJson(event, SMALL_BODY_BYTES))
  const said = measuringAnswers.find((entry) => entry === turns)
  if (!said)
    throw new Problem(
      422,
      'answer',
      'It turns forward, in reverse, or it stands; a relay clicks, is silent, or on from the start.',
    )
  measuringRuns.answer(pathId(event), said)
  return { state: measuringRuns.state(pathId(event)) }
})
