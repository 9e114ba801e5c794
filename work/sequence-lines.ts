import type { SeenPosition } from '../core/motor/sequence-steps'
import type { ReadingRow } from '../messages/book'

/** One look at a sequence switch. */
export interface SequenceStop {
  readonly position: SeenPosition
  readonly amps: number
}

/** The name a look stands under in the sheet; `number` 0 is how it was found. */
export function sequenceStep(number: number, position: SeenPosition): string {
  return `${number === 0 ? 'As found' : `Interruption ${number}`}: ${position}`
}

/** The latest test of a sequence switch on a sheet: from the last “as found” on; empty where there is none. */
export function sequenceStops(lines: readonly Pick<ReadingRow, 'step' | 'struck' | 'quantities'>[]): SequenceStop[] {
  const named = lines.flatMap((line) => {
    const [, start, position] = /^(As found|Interruption \d+): (forward|reverse|neutral)$/.exec(line.step ?? '') ?? []
    return position && !line.struck
      ? [{ found: start === 'As found', position: position as SeenPosition, amps: line.quantities.current?.value ?? 0 }]
      : []
  })
  const from = named.findLastIndex((stop) => stop.found)
  return from < 0 ? [] : named.slice(from).map(({ position, amps }) => ({ position, amps }))
}
