import type { SheetReading, TimedRun } from '../../core/motor/sheet-reading'
import { defineReading, direction, needed, readingSchema, timedRun } from './reading-kind'
import { showQuantity } from './recorded-quantity'

const distanceAndTime = <const K extends 'timed' | 'creep'>(
  kind: K,
  name: string,
  said: (direction: 'forward' | 'reverse', run: TimedRun) => SheetReading,
) =>
  defineReading({
    name,
    schema: readingSchema(kind, { distance: 'needed', duration: 'needed' }, direction),
    offered: ['watch'],
    boxes: () => [needed('distance'), needed('duration')],
    contradictions: ({ distance, duration }) => {
      if (distance?.value === 0) return { distance: 'A distance above zero.' }
      if (duration?.value === 0) return { duration: 'A time above zero.' }
      return {}
    },
    line: ({ direction: way, quantities }) => ({
      words: `${name}, ${way}`,
      values: [showQuantity('distance', quantities.distance), showQuantity('duration', quantities.duration)],
    }),
    motor: ({ direction: way, quantities }) => {
      const run = timedRun(quantities)
      return run && said(way, run)
    },
  })

/** A distance and the time it took. */
export const timed = distanceAndTime('timed', 'Timed run', (way, run) => ({ kind: 'timed', direction: way, run }))
/** The same as slowly as it will go. */
export const creep = distanceAndTime('creep', 'Creep', (way, run) => ({ kind: 'creep', direction: way, run }))
