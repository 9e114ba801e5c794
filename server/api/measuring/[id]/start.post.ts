import { answer, pathId } from '../../../answer'
import { mustMayMeasure } from '../../../measuring/may-measure'
import { measuringRuns } from '../../../measuring/measuring-runs'

/** Starts measuring into a sheet with an instrument. */
export default answer(async (event, database, actor) => {
  mustMayMeasure(actor)
  const { instrumentId } = (await readBody<{ instrumentId?: unknown }>(event)) ?? {}
  return { state: await measuringRuns.start(database, actor, pathId(event), String(instrumentId ?? '')) }
})
