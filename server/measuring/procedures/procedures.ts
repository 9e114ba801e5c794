import { measuringProcedures, type MeasuringProcedure } from '../../../messages/measuring'
import { Problem } from '../../problems'
import type { Procedure } from '../measuring-runs'
import type { SheetMachine } from '../sheet-machine'
import { relayTestProcedure } from './relay-test-procedure'
import { sequenceTestProcedure } from './sequence-test-procedure'
import { stepTestProcedure } from './step-test-procedure'
import { sweepProcedure } from './sweep-procedure'

/** Every way of measuring by its name. */
export const procedures: Readonly<Record<MeasuringProcedure, Procedure>> = {
  sweep: sweepProcedure,
  step: stepTestProcedure,
  sequence: sequenceTestProcedure,
  relay: relayTestProcedure,
}

/** The ways that suit a sheet and its machine. */
export function proceduresFor(machine: SheetMachine): MeasuringProcedure[] {
  return measuringProcedures.filter((name) => {
    try {
      procedures[name].check(machine, { instrumentId: '', procedure: name, step: 'any' })
      return true
    } catch (error) {
      if (error instanceof Problem) return false
      throw error
    }
  })
}
