import type { HeardOfRelay, RelayTestEvent } from '../bench/supply/relay-test'
import type { RelayReadings } from '../core/motor/relay-account'
import type { ReadingRow } from '../messages/book'

/** The name a relay's reading stands under in the sheet. */
export function relayStep(
  event: Extract<RelayTestEvent, { kind: 'pull-in' | 'drop-out' | 'on-ac' | 'heard' }>,
): string {
  switch (event.kind) {
    case 'pull-in':
      return `Relay ${event.repeat}: pulls in`
    case 'drop-out':
      return `Relay ${event.repeat}: ${event.between ? 'lets go' : 'hangs'}`
    case 'on-ac':
      return `Relay on AC: ${event.between ? 'pulled in' : 'at rest'}`
    case 'heard':
      return `Relay: ${heardWords[event.what]}`
  }
}

const heardWords: Readonly<Record<HeardOfRelay, string>> = {
  clicks: 'clicks only',
  silent: 'silent',
  'always-on': 'on from the start',
}

/**
 * The latest test of a relay on a sheet.
 *
 * @param lines standing ones, oldest first
 * @returns null where there is none
 */
export function relayReadings(
  lines: readonly Pick<ReadingRow, 'step' | 'struck' | 'quantities'>[],
): RelayReadings | null {
  const named = lines.flatMap((line) => {
    const [, number, what] = /^Relay(?: (\d+|on AC))?: (.+)$/.exec(line.step ?? '') ?? []
    return what && !line.struck
      ? [{ number, what, volts: line.quantities.voltage?.value ?? 0, width: line.quantities.voltage?.resolution ?? 0 }]
      : []
  })
  const from = named.findLastIndex(
    (line, index) =>
      (line.number === '1' && line.what === 'pulls in') || (line.number === undefined && index === named.length - 1),
  )
  if (from < 0) return null
  const latest = named.slice(from)
  const onAc = latest.find((line) => line.number === 'on AC')
  const heard = (Object.entries(heardWords) as Array<[HeardOfRelay, string]>).find(([, words]) =>
    latest.some((line) => line.number === undefined && line.what === words),
  )
  return {
    pullInVolts: latest.flatMap((line) => (line.what === 'pulls in' ? [line.volts] : [])),
    dropOutVolts: latest.flatMap((line) =>
      line.what === 'lets go' ? [line.volts] : line.what === 'hangs' ? [null] : [],
    ),
    stepVolts: Math.max(0, ...latest.filter((line) => line.what === 'pulls in').map((line) => line.width)),
    ...(onAc ? { pulledByAc: onAc.what === 'pulled in' ? onAc.volts : null } : {}),
    heard: heard?.[0] ?? null,
  }
}
