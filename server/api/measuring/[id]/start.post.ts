import { mayCommand } from '../../../../shared/messages/commands'
import { answer, pathId } from '../../../answer'
import { measuringRuns } from '../../../measuring/measuring-runs'
import { Problem } from '../../../problems'

/** Starts measuring into a sheet with an instrument. */
export default answer(async (event, database, actor) => {
  if (!mayCommand(actor.role, 'reading.add')) throw new Problem(403, 'role', 'Your account may read the book but not measure.')
  const { instrumentId } = (await readBody<{ instrumentId?: unknown }>(event)) ?? {}
  return { state: await measuringRuns.start(database, actor, pathId(event), String(instrumentId ?? '')) }
})
