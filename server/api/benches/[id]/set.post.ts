import type { BenchChange } from '../../../../messages/commands'
import { problemsOf } from '../../../../messages/validate'
import { answer, pathId } from '../../../answer'
import { readJson, SMALL_BODY_BYTES } from '../../../read-json'
import { liveBenches } from '../../../measuring/live-benches'
import { mustMayMeasure } from '../../../measuring/may-measure'
import { Problem } from '../../../problems'

/** Volts, limit, polarity and output of a supply that is live. */
export default answer(async (event, _database, actor) => {
  mustMayMeasure(actor)
  const change: unknown = await readJson(event, SMALL_BODY_BYTES)
  const [problem] = problemsOf('BenchChange', change)
  if (problem)
    throw new Problem(422, 'settings', `${problem.message} A supply is set to 0 to 24 V with a limit of 0.01 to 3 A.`)
  return { state: await liveBenches.set(pathId(event), change as BenchChange) }
})
