import { stepTest, usualStepTest } from '../../../bench/supply/step-test'
import { turnsOf } from '../../../messages/measuring'
import { Problem } from '../../problems'
import { firstMotorClamp } from '../clamp-advice'
import { measuredQuantities } from '../measured-quantities'
import type { Procedure } from '../measuring-runs'

/** The quick test after a step of the rebuild: a moment at low volts, and somebody says which way it turned. */
export const stepTestProcedure: Procedure = {
  clamp: ({ description }) => firstMotorClamp(description),
  check(machine, { step }) {
    if (machine.station !== 'rebuild')
      throw new Problem(422, 'station', 'The quick test belongs to a step of the rebuild.')
    if (step.trim() === '') throw new Problem(422, 'step', 'Say which step was just done.')
    if (step.length > 120) throw new Problem(422, 'step', 'The name of a step has 120 characters at most.')
  },
  async run({ opened, row, machine, step, tell, keep, stopped, answered, state }) {
    for await (const event of stepTest(opened.client, usualStepTest(machine.nominalVolts), opened.surroundings, () =>
      turnsOf(answered()),
    )) {
      if (stopped()) return
      if (event.kind === 'doing') tell({ says: event.what, of: 2 })
      else if (event.kind === 'stopped') return tell({ status: 'failed', says: event.sentence })
      else if (event.kind === 'asks') {
        const { volts, amps } = measuredQuantities(row, event.volts, event.amps)
        tell({
          status: answered() === null ? 'asks' : 'running',
          says: answered() === null ? 'Which way does it turn?' : 'A few readings more',
          done: 1,
          latest: { volts, amps, radPerSecond: null },
        })
      } else {
        for (const reading of event.readings) {
          const { quantities } = measuredQuantities(row, reading.volts, reading.amps)
          await keep({
            kind: 'step',
            step: step.trim(),
            turns: event.turns,
            vouched: false,
            quantities,
          })
        }
        tell({
          status: 'done',
          done: 2,
          says: `Tested after “${step.trim()}”, ${state().readings} readings. The output is off.`,
        })
      }
    }
  },
}
