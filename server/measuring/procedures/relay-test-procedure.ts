import {
  relayTest,
  usualRelayTest,
  type HeardOfRelay,
  type RelayTestEvent,
  type VoltBracket,
} from '../../../bench/supply/relay-test'
import type { EngineDescription } from '../../../core/engine/description-schema'
import { railClamp } from '../../../core/engine/motor-clamp'
import { judgeRelay, type MeanVolts } from '../../../core/motor/relay-account'
import type { InstrumentRow } from '../../../messages/book'
import type { MeasuringAnswer } from '../../../messages/measuring'
import { relayEventOf, relayReadings } from '../../../work/relay-lines'
import type { KeptLine } from '../../../work/sheet-readings'
import type { ReadingFields } from '../../../messages/readings/reading-kinds'
import { relayInWords } from '../../../messages/readings/relay'
import { Problem } from '../../problems'
import { measuredQuantities } from '../measured-quantities'
import type { Procedure } from '../measuring-runs'

/** A relay that DC pulls in: where it does, where it lets go, and whether AC leaves it at rest. */
export const relayTestProcedure: Procedure = {
  clamp: ({ description }) => railClamp(description, true),
  check({ description, station }) {
    if (!hasRelay(description)) throw new Problem(422, 'no-relay', 'This machine has no relay.')
    if (station === 'rebuild') throw new Problem(422, 'station', 'The test of a relay belongs to First run and Prove.')
  },
  async run({ opened, row, machine, tell, keep, stopped, answered, askAnew }) {
    const kept: KeptLine[] = []
    const note = async (fields: ReadingFields): Promise<void> => {
      kept.push({ ...fields, struck: false })
      await keep(fields)
    }
    for await (const event of relayTest(
      opened.client,
      usualRelayTest(machine.nominalVolts),
      opened.surroundings,
      () => heardOf(answered()),
      askAnew,
    )) {
      if (stopped()) return
      if (event.kind === 'doing') tell({ status: 'running', says: event.what, done: event.done, of: event.of })
      else if (event.kind === 'stopped') return tell({ status: 'failed', says: event.sentence })
      else {
        const { volts, amps } = measuredQuantities(row, event.volts, event.amps)
        const latest = { volts, amps, radPerSecond: null }
        if (event.kind === 'asks')
          tell({
            status: 'asks',
            latest,
            says: 'The current shows nothing. What do you hear while the volts go up and down?',
          })
        else {
          tell({ status: 'running', latest, says: `${relayInWords(relayEventOf(event))}.` })
          await note(readingOf(row, event))
        }
      }
    }
    if (stopped()) return
    const readings = relayReadings(kept)
    if (!readings) return
    const { pullIn, dropOut, says } = judgeRelay(readings)
    const figures = [pullIn ? `It pulls in at ${inWords(pullIn)}` : '', dropOut ? `lets go at ${inWords(dropOut)}` : '']
      .filter(Boolean)
      .join(' and ')
    tell({ status: 'done', says: [figures && `${figures}.`, ...says, 'The output is off.'].filter(Boolean).join(' ') })
  },
}

export function hasRelay({ switches }: EngineDescription): boolean {
  return switches.some((entry) => entry.kind === 'relay')
}

const inWords = ({ mean, halfWidth }: MeanVolts): string => `${mean.toFixed(2)} ± ${halfWidth.toFixed(2)} V`

function heardOf(answer: MeasuringAnswer | null): HeardOfRelay | null {
  return answer === 'clicks' || answer === 'silent' || answer === 'always-on' ? answer : null
}

/** The middle of the step it happened in, as exact as the step is wide; where nothing happened, what was read last. */
function readingOf(
  row: InstrumentRow,
  event: Extract<RelayTestEvent, { kind: 'pull-in' | 'drop-out' | 'on-ac' | 'heard' }>,
): ReadingFields {
  const { quantities } = measuredQuantities(row, event.volts, event.amps)
  const voltage =
    event.kind !== 'heard' && event.between ? { ...quantities.voltage, ...middleOf(event.between) } : quantities.voltage
  return {
    kind: 'relay',
    ...relayEventOf(event),
    vouched: false,
    quantities: { ...quantities, voltage },
  }
}

function middleOf([below, above]: NonNullable<VoltBracket>): { value: number; resolution: number } {
  return { value: Number(((below + above) / 2).toFixed(3)), resolution: Number((above - below).toFixed(3)) }
}
