import { measuringProcedures } from '../../../../shared/measuring'
import { answer, pathId } from '../../../answer'
import { mustMayMeasure } from '../../../measuring/may-measure'
import { measuringRuns } from '../../../measuring/measuring-runs'

/** Starts measuring into a sheet with an instrument. */
export default answer(async (event, database, actor) => {
  mustMayMeasure(actor)
  const { instrumentId, procedure, step } = (await readBody<{ instrumentId?: unknown; procedure?: unknown; step?: unknown }>(event)) ?? {}
  return { state: await measuringRuns.start(database, actor, pathId(event), {
    instrumentId: String(instrumentId ?? ''), procedure: measuringProcedures.find((entry) => entry === procedure) ?? 'sweep', step: typeof step === 'string' ? step : '',
  }) }
})
