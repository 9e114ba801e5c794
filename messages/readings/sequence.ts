import { Type } from 'typebox'
import { OneOf, OrNull } from '../parts'
import { defineReading, readingSchema } from './reading-kind'
import { voltsAndAmps } from './running'

/** Where a sequence switch stood after an interruption, written by the supply with somebody watching. */
export const sequence = defineReading({
  name: 'Sequence switch',
  schema: readingSchema(
    'sequence',
    { voltage: 'needed', current: 'needed' },
    {
      /** 0 is how it was found. */
      interruption: Type.Integer({ minimum: 0, maximum: 999 }),
      position: OneOf(['forward', 'neutral', 'reverse'] as const),
    },
  ),
  offered: [],
  boxes: () => [],
  contradictions: () => ({}),
  line: ({ quantities, ...look }) => ({ words: lookInWords(look), values: voltsAndAmps(quantities) }),
  // What a sequence switch did is no reading of the motor: its neutral is not a held armature.
  motor: () => null,
})

/** @example lookInWords({ interruption: 3, position: 'neutral' }) // 'Interruption 3: neutral' */
export function lookInWords({
  interruption,
  position,
}: {
  readonly interruption: number
  readonly position: string
}): string {
  return `${interruption === 0 ? 'As found' : `Interruption ${interruption}`}: ${position}`
}

/** How many interruptions did not move it by one step, and between which volts its coil pulls in. */
export const sequenceCount = defineReading({
  name: 'Sequence switch, counted',
  schema: readingSchema(
    'sequence-count',
    { failures: 'needed', attempts: 'needed' },
    {
      /** V; null where it did not pull in while the volts rose. */
      pullIn: OrNull(Type.Object({ above: Type.Number(), below: Type.Number() }, { additionalProperties: false })),
    },
  ),
  offered: [],
  boxes: () => [],
  contradictions: () => ({}),
  line: ({ quantities: { failures, attempts } }) => ({
    words: 'Sequence switch',
    values: [`failed ${failures.value} of ${attempts.value}`],
  }),
  motor: ({ quantities: { failures, attempts } }) => ({
    kind: 'trial',
    failures: failures.value,
    attempts: attempts.value,
  }),
})

/** @example pullInWords({ above: 4.1, below: 4.2 }) // 'It pulls in between 4.10 and 4.20 V.' */
export function pullInWords(pullIn: { readonly above: number; readonly below: number } | null): string {
  return pullIn
    ? `It pulls in between ${pullIn.above.toFixed(2)} and ${pullIn.below.toFixed(2)} V.`
    : 'While the volts rose it did not pull in.'
}
