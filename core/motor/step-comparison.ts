import { compareBeforeAfter } from '../measure/before-after'
import type { IntervalFigure } from '../measure/measured-value'

/** One test on the way back together. */
export interface TestedStep {
  readonly name: string
  /** Mean of the repeats with its expanded uncertainty, A. */
  readonly current: IntervalFigure
  /** Volts it was taken at. */
  readonly volts: number
  readonly turns: 'forward' | 'reverse' | 'stands'
}

export interface StepVerdict {
  readonly weight: 'sound' | 'care' | 'fault'
  readonly sentence: string
}

/** A part added always takes a little: less than this over the step before is what one expects. Common practice. */
const EXPECTED_RISE = 0.1
/** Currents taken at voltages further apart than this cannot be compared. */
const SAME_VOLTS_SHARE = 0.05

/**
 * What a step did, against the step before: standing still, turning round, or asking for more current beyond what the
 * readings may be wrong by.
 *
 * @param before null at the first step
 */
export function judgeStep(before: TestedStep | null, now: TestedStep): StepVerdict {
  const { name } = now
  if (!before)
    return now.turns === 'stands'
      ? { weight: 'fault', sentence: 'It takes current and does not turn: begin with what is there.' }
      : { weight: 'sound', sentence: 'The first figure: every further step is held against the one before it.' }
  if (now.turns === 'stands' && before.turns !== 'stands')
    return { weight: 'fault', sentence: `It stopped with “${name}”: that step is the one that is wrong.` }
  if (now.turns === 'stands') return { weight: 'fault', sentence: 'It still does not turn.' }
  if (before.turns !== 'stands' && before.turns !== now.turns)
    return {
      weight: 'fault',
      sentence: `It turns the other way since “${name}”: leads, motor or contact strips went back mirrored.`,
    }
  if (Math.abs(now.volts - before.volts) > SAME_VOLTS_SHARE * before.volts)
    return {
      weight: 'care',
      sentence: `Taken at ${now.volts.toFixed(1)} V, the step before at ${before.volts.toFixed(1)} V: the currents cannot be compared.`,
    }
  const change = compareBeforeAfter(before.current, now.current)
  const words = `${milliamps(before.current.value)} before, ${milliamps(now.current.value)} now`
  if (change.verdict === 'no-measurable-change') return { weight: 'sound', sentence: `No measurable change: ${words}.` }
  if (change.verdict === 'lower') return { weight: 'sound', sentence: `Less than before: ${words}.` }
  const rise = change.difference / before.current.value
  const beyond = `beyond the ±${milliamps(change.uncertainty)} the readings allow`
  return rise <= EXPECTED_RISE
    ? { weight: 'sound', sentence: `A little more, as a part added takes: ${words}.` }
    : {
        weight: rise > 3 * EXPECTED_RISE ? 'fault' : 'care',
        sentence: `Up by ${Math.round(rise * 100)} % with “${name}”, ${beyond}: ${words}. Loosen it and see whether it falls again.`,
      }
}

/**
 * A current as the bench says it.
 *
 * @example milliamps(0.1234) // '123 mA'
 */
export const milliamps = (amps: number): string => `${(amps * 1000).toFixed(amps < 0.1 ? 1 : 0)} mA`
