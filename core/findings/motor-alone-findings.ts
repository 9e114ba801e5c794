import { isRefused } from '../measure/measured-value'
import { plainNumber } from '../measure/significant-digits'
import type { SheetJudgement } from '../motor/sheet-judgement'
import { isMetered, type SheetReading } from '../motor/sheet-reading'
import type { GatheredOutcome } from './continuity-findings'

export interface MotorAlone {
  readonly nominalVolts: number
  /** A of a sound motor of the construction, alone at these volts; null where that says nothing. */
  readonly usualAmps: (volts: number) => number | null
  /** Ω of a sound one between its terminals. */
  readonly usualOhms: number | null
}

const READINGS_THAT_COUNT = 3
const FULL_SHARE = 0.6
/** Windings of one construction differ so much from type to type that only this far off is said; judged. */
const OHMS_LOW = 0.5
const OHMS_USUAL = [0.75, 1.35] as const
const OHMS_HIGH = 1.8
const AMPS_USUAL = 1.5
const AMPS_HIGH = 2.2

/**
 * What a sheet the supply took at the motor's own terminals says to the diagnosis: that the motor runs there, what it
 * draws and its ohms. It says nothing of how the machine does on the track.
 *
 * @param readings the lines the supply took
 * @param judgement of the same lines
 */
export function motorAloneFindings(
  readings: readonly SheetReading[],
  judgement: SheetJudgement,
  { nominalVolts, usualAmps, usualOhms }: MotorAlone,
): GatheredOutcome[] {
  const metered = readings.filter(isMetered)
  const running = metered.filter((reading) => reading.kind === 'running')
  const full = (reading: (typeof metered)[number]): boolean => reading.voltage.value >= FULL_SHARE * nominalVolts
  const found: GatheredOutcome[] = []
  if (running.length >= READINGS_THAT_COUNT && running.some(full)) {
    const hard = judgement.remarks.some((remark) => remark.code === 'hard-start')
    found.push({
      test: 'terminals-run',
      outcome: hard ? 'falters' : 'runs',
      words: `The supply at its terminals: ${hard ? 'it starts hard' : `it ran at ${running.length} readings`}`,
    })
  } else if (running.length === 0 && metered.some(full)) {
    found.push({
      test: 'terminals-run',
      outcome: 'stands',
      words: 'The supply at its terminals: it stood although current flowed',
    })
  }
  const times = running.filter(full).flatMap((reading) => {
    const usual = usualAmps(reading.voltage.value)
    return usual === null || !(usual > 0) ? [] : [reading.current.value / usual]
  })
  const mean = times.reduce((sum, value) => sum + value, 0) / times.length
  const draws = times.length === 0 ? null : mean <= AMPS_USUAL ? 'usual' : mean >= AMPS_HIGH ? 'high' : null
  if (draws)
    found.push({
      test: 'motor-current',
      outcome: draws,
      words: `The supply at its terminals: ${mean.toFixed(1)} times the current of a sound one`,
    })
  const resistance = judgement.fit?.figures.resistance
  if (usualOhms !== null && resistance && !isRefused(resistance)) {
    const ratio = resistance.value / usualOhms
    const ohms =
      ratio < OHMS_LOW
        ? 'low'
        : ratio > OHMS_HIGH
          ? 'high'
          : ratio >= OHMS_USUAL[0] && ratio <= OHMS_USUAL[1]
            ? 'usual'
            : null
    if (ohms)
      found.push({
        test: 'motor-ohms',
        outcome: ohms,
        words: `The supply at its terminals: ${plainNumber(resistance.value)} Ω where ${plainNumber(usualOhms)} Ω is usual`,
      })
  }
  return found
}
