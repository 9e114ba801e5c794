import type { SeenPosition } from '../core/motor/sequence-steps'
import type { ReadingFields } from '../messages/readings/reading-kinds'
import type { KeptLine } from './sheet-readings'

/** One look at a sequence switch. */
export interface SequenceStop {
  readonly position: SeenPosition
  readonly amps: number
}

/** The latest test of a sequence switch on a sheet: from the last look “as found” on; empty where there is none. */
export function sequenceStops(lines: readonly KeptLine[]): SequenceStop[] {
  const looks = lines.filter(
    (line): line is KeptLine & Extract<ReadingFields, { kind: 'sequence' }> => line.kind === 'sequence' && !line.struck,
  )
  const from = looks.findLastIndex((look) => look.interruption === 0)
  return from < 0
    ? []
    : looks.slice(from).map(({ position, quantities }) => ({ position, amps: quantities.current.value }))
}
