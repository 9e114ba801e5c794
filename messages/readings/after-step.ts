import type { Static } from 'typebox'
import type { MeteredReading } from '../../core/motor/sheet-reading'
import { NeededLine, OneOf } from '../parts'
import { held } from './held'
import { defineReading, optional, needed, readingSchema } from './reading-kind'
import { running, voltsAndAmps } from './running'

/** A quick test after a step of the rebuild: what had just been done, and which way it then turned. */
export const afterStep = defineReading({
  name: 'After a step',
  schema: readingSchema(
    'step',
    { voltage: 'needed', current: 'needed', rotation: 'optional' },
    { step: NeededLine(120), turns: OneOf(['forward', 'reverse', 'stands'] as const) },
  ),
  offered: [],
  boxes: () => [needed('voltage'), needed('current'), optional('rotation')],
  contradictions: (quantities) => running.contradictions(quantities),
  line: ({ step, quantities }) => ({ words: step, values: voltsAndAmps(quantities) }),
  // It is held against the step before, not against the motor as a whole.
  motor: () => null,
})

/** The volts and amps of such a test as a metered reading; null without current. */
export function meteredAfterStep({
  turns,
  quantities,
  vouched,
}: Static<typeof afterStep.schema>): MeteredReading | null {
  const { voltage, current } = quantities
  const found =
    turns === 'stands'
      ? held.motor({ kind: 'locked', direction: 'forward', quantities: { voltage, current }, vouched })
      : running.motor({ kind: 'running', direction: turns, quantities, vouched })
  return found && (found.kind === 'running' || found.kind === 'locked') ? found : null
}
