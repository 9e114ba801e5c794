import { seededNormal } from '../core/measure/seeded-random'
import type { ReadingLine } from '../messages/readings/typed-line'
import type { DemoType } from './engine-types'

/** How an engine stood when a sheet was taken, against its healthy type. */
export interface DemoSheet {
  readonly withMeter: boolean
  /** Times the healthy drag; 1 when healthy. */
  readonly drag?: number
  /** Times the drag in reverse alone. */
  readonly reverseDrag?: number
  /** Times the healthy resistance. */
  readonly ohms?: number
  /** Times the healthy magnet. */
  readonly magnet?: number
  readonly brushDrop?: number
  readonly volts?: readonly number[]
  readonly speeds?: boolean
  readonly held?: boolean
  readonly celsius?: number
  readonly dead?: boolean
  readonly trial?: readonly [failed: number, attempts: number]
  /** Seconds over one metre, forward and reverse. */
  readonly timed?: readonly [number, number]
  readonly stops?: readonly [stops: number, laps: number]
  /** Seconds over 300 mm at the slowest steady creep. */
  readonly creep?: number
}

const RPM = 60 / (2 * Math.PI)
const USUAL_VOLTS = [4, 6, 8, 10, 12]
const HELD_VOLTS = [1, 1.2, 1.4, 1.6, 1.8, 2]

/** The lines of a sheet as somebody would have typed them, with the scatter of a real bench. */
export function demoLines(type: DemoType, sheet: DemoSheet, seed: number): ReadingLine[] {
  const normal = seededNormal(seed)
  const lines: ReadingLine[] = []
  if (sheet.dead) lines.push({ kind: 'dead', direction: 'forward', typed: {} })
  if (sheet.withMeter && !sheet.dead) lines.push(...meteredLines(type, sheet, normal))
  if (sheet.timed) {
    for (const [index, direction] of (['forward', 'reverse'] as const).entries()) {
      const seconds = sheet.timed[index] as number
      for (let repeat = 0; repeat < 3; repeat++)
        lines.push({
          kind: 'timed',
          direction,
          typed: { distance: '1 m', duration: (seconds * (1 + 0.02 * normal())).toFixed(1) },
        })
    }
  }
  if (sheet.creep)
    lines.push({ kind: 'creep', direction: 'forward', typed: { distance: '300', duration: sheet.creep.toFixed(1) } })
  if (sheet.stops)
    lines.push({
      kind: 'stops',
      direction: 'forward',
      typed: { stops: String(sheet.stops[0]), laps: String(sheet.stops[1]) },
    })
  if (sheet.trial)
    lines.push({
      kind: 'trial',
      direction: 'forward',
      typed: { failures: String(sheet.trial[0]), attempts: String(sheet.trial[1]) },
    })
  return lines
}

function meteredLines({ motor, fields }: DemoType, sheet: DemoSheet, normal: () => number): ReadingLine[] {
  const resistance = motor.resistance * (sheet.ohms ?? 1)
  const backEmf = motor.backEmf * (sheet.magnet ?? 1)
  const drop = sheet.brushDrop ?? 0
  const lines: ReadingLine[] = []
  for (const direction of ['forward', 'reverse'] as const) {
    // A weaker magnet asks more current for the same drag.
    const drag = ((sheet.drag ?? 1) * (direction === 'reverse' ? (sheet.reverseDrag ?? 1) : 1)) / (sheet.magnet ?? 1)
    const rest = motor.restCurrent * drag
    const rise = motor.currentPerSpeed * drag
    for (const volts of sheet.volts ?? USUAL_VOLTS) {
      const scaled = (volts * fields.nominalVolts) / 12
      const speed = (scaled - drop - resistance * rest) / (backEmf + resistance * rise)
      if (speed <= 20) continue
      const current = (rest + rise * speed) * (1 + 0.012 * normal())
      lines.push({
        kind: 'running',
        direction,
        typed: {
          voltage: scaled.toFixed(2),
          current: (current * 1000).toFixed(fields.power === 'ac' ? 0 : 1),
          ...(sheet.speeds ? { rotation: String(Math.round((speed * RPM * (1 + 0.008 * normal())) / 10) * 10) } : {}),
        },
      })
    }
  }
  if (sheet.held) {
    for (const [index, volts] of HELD_VOLTS.entries()) {
      const angle = 1 + 0.045 * Math.sin(index * 2.1) + 0.006 * normal()
      lines.push({
        kind: 'locked',
        direction: 'forward',
        typed: {
          voltage: volts.toFixed(2),
          current: (((volts - drop * 0.9) / (resistance * angle)) * 1000).toFixed(1),
          angle: String(index * 20),
        },
      })
    }
  }
  return lines
}
