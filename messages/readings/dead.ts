import { defineReading, optional, read, readingSchema } from './reading-kind'
import { voltsAndAmps } from './running'

/** Nothing moves; the voltage tried, if it was read. */
export const dead = defineReading({
  name: 'Dead',
  schema: readingSchema('dead', { voltage: 'optional' }, {}),
  offered: ['meter', 'watch'],
  boxes: () => [optional('voltage')],
  contradictions: () => ({}),
  line: ({ quantities }) => ({ words: 'Dead', values: voltsAndAmps(quantities) }),
  motor: ({ quantities: { voltage } }) => ({ kind: 'dead', voltage: voltage ? read(voltage) : null }),
})
