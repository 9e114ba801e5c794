import type { MeasuringProcedure } from '../../../shared/measuring'
import type { Procedure } from '../measuring-runs'
import { sequenceTestProcedure } from './sequence-test-procedure'
import { stepTestProcedure } from './step-test-procedure'
import { sweepProcedure } from './sweep-procedure'

/** Every way of measuring by its name. */
export const procedures: Readonly<Record<MeasuringProcedure, Procedure>> = { sweep: sweepProcedure, step: stepTestProcedure, sequence: sequenceTestProcedure }
