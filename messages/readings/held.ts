import { defineReading, direction, needed, optional, read, readingSchema } from './reading-kind'
import { showQuantity, type Quantities } from './recorded-quantity'
import { voltsAndAmps } from './running'

/** Volts and amps with the armature held. */
export const held = defineReading({
  name: 'Held',
  schema: readingSchema(
    'locked',
    { voltage: 'needed', current: 'needed', angle: 'optional', hold: 'optional' },
    direction,
  ),
  offered: ['meter'],
  boxes: () => [needed('voltage'), needed('current'), optional('angle')],
  contradictions: ({ voltage, current }) => {
    if (voltage?.value === 0) return { voltage: 'A reading at 0 V tells nothing about the motor.' }
    if (current?.value === 0)
      return { current: 'No current although held: an open circuit is a finding (F), not a reading.' }
    return {}
  },
  line: ({ quantities }) => ({
    words: quantities.angle ? `Held at ${showQuantity('angle', quantities.angle).replace(' ', '')}` : 'Held',
    values: voltsAndAmps(quantities),
  }),
  motor: ({ direction: way, quantities: { voltage, current, angle, hold } }) =>
    current.value > 0
      ? {
          kind: 'locked',
          direction: way,
          voltage: read(voltage),
          current: read(current),
          angle: angle?.value ?? null,
          ...holdOf({ hold, angle }),
        }
      : null,
})

/** Which hold it belongs to: counted by an instrument, or by the angle somebody noted. */
function holdOf({ hold, angle }: { [N in 'hold' | 'angle']: Quantities[N] | undefined }): { hold?: number } {
  if (hold) return { hold: hold.value }
  return angle ? { hold: HELD_BY_ANGLE + Math.round((angle.value * 180) / Math.PI) } : {}
}

/** Degrees noted by hand are kept apart from holds an instrument counted. */
const HELD_BY_ANGLE = 1000
