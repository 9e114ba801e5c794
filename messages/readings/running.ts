import { defineReading, direction, needed, optional, read, readingSchema, timedRun } from './reading-kind'
import { showQuantity, type Quantities } from './recorded-quantity'

/** Volts and amps while it turns, with its speed where that was told. */
export const running = defineReading({
  name: 'Running',
  schema: readingSchema(
    'running',
    { voltage: 'needed', current: 'needed', rotation: 'optional', distance: 'optional', duration: 'optional' },
    direction,
  ),
  offered: ['meter'],
  boxes: (speedBy) => [
    needed('voltage'),
    needed('current'),
    ...(speedBy === 'rotation'
      ? [optional('rotation')]
      : speedBy === 'timed'
        ? [optional('distance'), optional('duration')]
        : []),
  ],
  contradictions: ({ voltage, current }) => {
    if (voltage?.value === 0) return { voltage: 'A reading at 0 V tells nothing about the motor.' }
    if (current?.value === 0)
      return { current: 'Running without current cannot be: on the track with 0 mA it is Dead.' }
    return {}
  },
  line: ({ direction: way, quantities }) => ({
    words: way === 'reverse' ? 'Reverse' : 'Forward',
    values: voltsAndAmps(quantities).concat(
      quantities.rotation ? [showQuantity('rotation', quantities.rotation)] : [],
      quantities.distance ? [showQuantity('distance', quantities.distance)] : [],
      quantities.duration ? [showQuantity('duration', quantities.duration)] : [],
    ),
  }),
  motor: ({ direction: way, quantities: { voltage, current, rotation, ...run } }) =>
    current.value > 0
      ? {
          kind: 'running',
          direction: way,
          voltage: read(voltage),
          current: read(current),
          speed: rotation ? read(rotation) : null,
          run: timedRun(run),
        }
      : null,
})

export const voltsAndAmps = ({ voltage, current }: Quantities): string[] => [
  ...(voltage ? [showQuantity('voltage', voltage)] : []),
  ...(current ? [showQuantity('current', current)] : []),
]
