import { railClamp } from '../../../../core/engine/motor-clamp'
import { answer, pathId } from '../../../answer'
import type { MeasuringOutlook } from '../../../../messages/measuring'
import { clampAdvice, clampDrawing, firstMotorClamp } from '../../../measuring/clamp-advice'
import { measuringRuns } from '../../../measuring/measuring-runs'
import { proceduresFor } from '../../../measuring/procedures/procedures'
import { sheetMachine } from '../../../measuring/sheet-machine'

/** How the measuring of a sheet stands (null when there is none), and where one would clamp. */
export default answer(async (event, database) => {
  const id = pathId(event)
  const machine = await sheetMachine(database, id)
  const { description } = machine
  const [motor] = description.motors
  const clamp = firstMotorClamp(description)
  return {
    state: measuringRuns.state(id),
    procedures: proceduresFor(machine),
    woundField: motor !== undefined && motor.field !== null,
    motor: clampAdvice(description, clamp),
    motorDrawing: clampDrawing(description, clamp),
    rails: clampAdvice(description, railClamp(description, false)),
    railsMotorsOff: clampAdvice(description, railClamp(description, true)),
  } satisfies MeasuringOutlook
})
