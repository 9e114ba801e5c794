import { sequenceTest, usualSequenceTest } from '../../../bench/supply/sequence-test'
import { railClamp } from '../../../core/engine/motor-clamp'
import { readSequence, type SeenPosition, type SequenceAccount } from '../../../core/motor/sequence-steps'
import { LEADS_OFF, turnsOf } from '../../../messages/measuring'
import { lookInWords, pullInWords } from '../../../messages/readings/sequence'
import { Problem } from '../../problems'
import { measuredQuantities } from '../measured-quantities'
import type { Procedure } from '../measuring-runs'

/** The sequence switch of an AC machine: interrupted again and again, each position named, the volts that pull it in. */
export const sequenceTestProcedure: Procedure = {
  clamp: ({ description }, { step }) => railClamp(description, step === LEADS_OFF),
  check({ description, station }) {
    if (!description.switches.some((entry) => entry.kind === 'sequence'))
      throw new Problem(422, 'no-switch', 'This machine has no sequence switch.')
    if (station === 'rebuild')
      throw new Problem(422, 'station', 'The test of the sequence switch belongs to First run and Prove.')
  },
  async run({ opened, row, machine, step, tell, keep, stopped, answered, askAnew }) {
    const seen: SeenPosition[] = []
    let pulledIn: { above: number; below: number } | null | undefined
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
        pulledIn = event.between ? { above: event.between[0], below: event.between[1] } : null
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
          const look = { interruption: event.number, position: event.position }
          seen.push(event.position)
          tell({ status: 'running', latest, says: lookInWords(look) })
          await keep({
            kind: 'sequence',
            ...look,
            vouched: false,
            quantities,
          })
        }
      }
    }
    if (stopped()) return
    const account = readSequence(seen)
    const count = (value: number) => ({ typed: '', value, resolution: 1, meter: null })
    await keep({
      kind: 'sequence-count',
      pullIn: pulledIn ?? null,
      vouched: false,
      quantities: { failures: count(account.missed + account.doubled), attempts: count(account.steps.length) },
    })
    tell({
      status: 'done',
      says: [
        accountInWords(account),
        ...(pulledIn === undefined ? [] : [pullInWords(pulledIn)]),
        'The output is off.',
      ].join(' '),
    })
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
