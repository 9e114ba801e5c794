import { sequenceTest, usualSequenceTest } from '../../../bench/supply/sequence-test'
import { railClamp } from '../../../core/engine/motor-clamp'
import { readSequence, type SeenPosition, type SequenceAccount } from '../../../core/motor/sequence-steps'
import { LEADS_OFF, turnsOf } from '../../../messages/measuring'
import { sequenceStep } from '../../../work/sequence-lines'
import { Problem } from '../../problems'
import { measuredQuantities } from '../measured-quantities'
import type { Procedure } from '../measuring-runs'

/** The sequence switch of an AC machine: interrupted again and again, each position named, the volts that pull it in. */
export const sequenceTestProcedure: Procedure = {
  clamp: ({ description }, { step }) => railClamp(description, step === LEADS_OFF),
  check({ description, station }) {
    if (!description.switches.some((entry) => entry.id === 'sequence'))
      throw new Problem(422, 'no-switch', 'This machine has no sequence switch.')
    if (station === 'rebuild')
      throw new Problem(422, 'station', 'The test of the sequence switch belongs to First run and Prove.')
  },
  async run({ opened, row, machine, step, tell, keep, stopped, answered, askAnew }) {
    const seen: SeenPosition[] = []
    let pulledIn: string = ''
    for await (const event of sequenceTest(
      opened.client,
      usualSequenceTest(machine.nominalVolts, step !== LEADS_OFF),
      opened.surroundings,
      () => turnsOf(answered()),
      askAnew,
    )) {
      if (stopped()) return
      if (event.kind === 'doing') tell({ status: 'running', says: event.what, done: event.done, of: event.of })
      else if (event.kind === 'stopped') return tell({ status: 'failed', says: event.sentence })
      else if (event.kind === 'pull-in')
        pulledIn = event.between
          ? ` It pulls in between ${event.between[0].toFixed(2)} and ${event.between[1].toFixed(2)} V.`
          : ' While the volts rose it did not pull in.'
      else {
        const { volts, amps, quantities } = measuredQuantities(row, event.volts, event.amps)
        const latest = { volts, amps, radPerSecond: null }
        if (event.kind === 'asks')
          tell({
            status: 'asks',
            latest,
            says:
              event.number === 0
                ? 'What does it do, as it was found?'
                : `Interruption ${event.number}: what does it do?`,
          })
        else {
          seen.push(event.position)
          tell({ status: 'running', latest, says: sequenceStep(event.number, event.position) })
          await keep({
            kind: event.position === 'neutral' ? 'locked' : 'running',
            direction: event.position === 'reverse' ? 'reverse' : 'forward',
            vouched: false,
            quantities,
            step: sequenceStep(event.number, event.position),
          })
        }
      }
    }
    if (stopped()) return
    const account = readSequence(seen)
    const count = (value: number) => ({ typed: '', value, resolution: 1, meter: null })
    await keep({
      kind: 'trial',
      direction: null,
      vouched: false,
      quantities: { failures: count(account.missed + account.doubled), attempts: count(account.steps.length) },
      step: `Sequence switch.${pulledIn}`.slice(0, 120),
    })
    tell({ status: 'done', says: `${accountInWords(account)}${pulledIn} The output is off.` })
  },
}

/** “Eight interruptions, seven steps as they should be, one missed (number 4).” */
export function accountInWords({ steps, missed, doubled, ambiguous }: SequenceAccount): string {
  if (missed + doubled === 0) return `${steps.length} interruptions, every one a single step.`
  const which = (test: (step: number) => boolean): string =>
    steps.flatMap((step, index) => (test(step) ? [String(index + 1)] : [])).join(', ')
  const parts = [
    missed > 0 ? `${missed} missed (${which((step) => step === 0)})` : '',
    doubled > 0 ? `${doubled} doubled (${which((step) => step > 1)})` : '',
  ].filter(Boolean)
  return `${steps.length} interruptions: ${parts.join(', ')}.${ambiguous ? ' Neutral after neutral may also have been two steps.' : ''}`
}
