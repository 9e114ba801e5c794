import { defineReading, needed, readingSchema } from './reading-kind'

/** How often it stopped by itself in so many laps. */
export const stops = defineReading({
  name: 'Stops',
  schema: readingSchema('stops', { stops: 'needed', laps: 'needed' }, {}),
  offered: ['watch'],
  boxes: () => [needed('stops'), needed('laps')],
  contradictions: ({ laps }) => (laps?.value === 0 ? { laps: 'At least one lap.' } : {}),
  line: ({ quantities: { stops: times, laps } }) => ({
    words: 'Stops',
    values: [`${times.value} in ${laps.value} laps`],
  }),
  motor: ({ quantities: { stops: times, laps } }) =>
    laps.value > 0 ? { kind: 'stops', stops: times.value, laps: laps.value } : null,
})

/** The complaint as a trial: how often it failed. */
export const trial = defineReading({
  name: 'Trial',
  schema: readingSchema('trial', { failures: 'needed', attempts: 'needed' }, {}),
  offered: ['meter', 'watch'],
  boxes: () => [needed('failures'), needed('attempts')],
  contradictions: ({ failures, attempts }) => {
    if (failures && attempts && failures.value > attempts.value)
      return { failures: 'It cannot fail more often than it was tried.' }
    return attempts?.value === 0 ? { attempts: 'At least one attempt.' } : {}
  },
  line: ({ quantities: { failures, attempts } }) => ({
    words: 'Trial',
    values: [`failed ${failures.value} of ${attempts.value}`],
  }),
  motor: ({ quantities: { failures, attempts } }) => ({
    kind: 'trial',
    failures: failures.value,
    attempts: attempts.value,
  }),
})
