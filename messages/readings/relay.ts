import { Type } from 'typebox'
import { OneOf, OrNull } from '../parts'
import { defineReading, readingSchema } from './reading-kind'
import { voltsAndAmps } from './running'

/** What a relay did at a voltage, or what was heard of it where the current shows nothing. */
export const relayEvents = {
  'pulls-in': 'pulls in',
  'lets-go': 'lets go',
  hangs: 'hangs',
  'ac-pulled-in': 'pulled in',
  'ac-at-rest': 'at rest',
  clicks: 'clicks only',
  silent: 'silent',
  'always-on': 'on from the start',
} as const
export type RelayEvent = keyof typeof relayEvents

/** One event of a relay's test, written by the supply. */
export const relay = defineReading({
  name: 'Relay',
  schema: readingSchema(
    'relay',
    { voltage: 'needed', current: 'needed' },
    {
      event: OneOf(relayEvents),
      /** Which rise of the volts it belongs to; null on AC and for what was heard. */
      rise: OrNull(Type.Integer({ minimum: 1, maximum: 99 })),
    },
  ),
  offered: [],
  boxes: () => [],
  contradictions: () => ({}),
  line: ({ quantities, ...what }) => ({ words: relayInWords(what), values: voltsAndAmps(quantities) }),
  // With the motors’ leads off its current is coil and lamp alone.
  motor: () => null,
})

/**
 * @example
 * relayInWords({ event: 'pulls-in', rise: 2 }) // 'Relay 2: pulls in'
 * relayInWords({ event: 'ac-at-rest', rise: null }) // 'Relay on AC: at rest'
 */
export function relayInWords({ event, rise }: { readonly event: RelayEvent; readonly rise: number | null }): string {
  const onAc = event === 'ac-pulled-in' || event === 'ac-at-rest'
  return `Relay${onAc ? ' on AC' : rise === null ? '' : ` ${rise}`}: ${relayEvents[event]}`
}
