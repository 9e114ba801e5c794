import type { RelayTestEvent } from '../bench/supply/relay-test'
import type { RelayReadings } from '../core/motor/relay-account'
import type { ReadingFields } from '../messages/readings/reading-kinds'
import type { RelayEvent } from '../messages/readings/relay'
import type { KeptLine } from './sheet-readings'

type RelayLine = KeptLine & Extract<ReadingFields, { kind: 'relay' }>

/** What a reading of the relay's test is called by on the sheet. */
export function relayEventOf(event: Extract<RelayTestEvent, { kind: 'pull-in' | 'drop-out' | 'on-ac' | 'heard' }>): {
  readonly event: RelayEvent
  readonly rise: number | null
} {
  switch (event.kind) {
    case 'pull-in':
      return { event: 'pulls-in', rise: event.repeat }
    case 'drop-out':
      return { event: event.between ? 'lets-go' : 'hangs', rise: event.repeat }
    case 'on-ac':
      return { event: event.between ? 'ac-pulled-in' : 'ac-at-rest', rise: null }
    case 'heard':
      return { event: event.what, rise: null }
  }
}

/**
 * The latest test of a relay on a sheet: from the last first rise on, or the last thing heard.
 *
 * @param lines standing ones, oldest first
 * @returns null where there is none
 */
export function relayReadings(lines: readonly KeptLine[]): RelayReadings | null {
  const told = lines.filter((line): line is RelayLine => line.kind === 'relay' && !line.struck)
  const from = told.findLastIndex(
    ({ event, rise }, index) => (event === 'pulls-in' && rise === 1) || (isHeard(event) && index === told.length - 1),
  )
  if (from < 0) return null
  const latest = told.slice(from)
  const pullsIn = latest.filter(({ event }) => event === 'pulls-in')
  const onAc = latest.find(({ event }) => event === 'ac-pulled-in' || event === 'ac-at-rest')
  return {
    pullInVolts: pullsIn.map(({ quantities }) => quantities.voltage.value),
    dropOutVolts: latest.flatMap(({ event, quantities }) =>
      event === 'lets-go' ? [quantities.voltage.value] : event === 'hangs' ? [null] : [],
    ),
    stepVolts: Math.max(0, ...pullsIn.map(({ quantities }) => quantities.voltage.resolution)),
    ...(onAc ? { pulledByAc: onAc.event === 'ac-pulled-in' ? onAc.quantities.voltage.value : null } : {}),
    heard: latest.map(({ event }) => event).find(isHeard) ?? null,
  }
}

const isHeard = (event: RelayEvent): event is NonNullable<RelayReadings['heard']> =>
  event === 'clicks' || event === 'silent' || event === 'always-on'
