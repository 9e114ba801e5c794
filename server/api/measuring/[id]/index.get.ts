import { answer, pathId } from '../../../answer'
import type { MeasuringOutlook } from '../../../../shared/measuring'
import { clampAdvice, railAdvice } from '../../../measuring/clamp-advice'
import { measuringRuns } from '../../../measuring/measuring-runs'
import { sheetMachine } from '../../../measuring/sheet-machine'

/** How the measuring of a sheet stands (null when there is none), and where one would clamp. */
export default answer(async (event, database) => {
  const id = pathId(event)
  const { description } = await sheetMachine(database, id)
  return { state: measuringRuns.state(id), clamp: clampAdvice(description), rails: railAdvice(description), sequenceSwitch: description.switches.some((entry) => entry.id === 'sequence') } satisfies MeasuringOutlook
})
