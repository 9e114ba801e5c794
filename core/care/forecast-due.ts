import weights from '../knowledge/care/weights.json'
import { careIntervals, type CareInterval } from './due-list'

/** Hours an engine ran on a day. */
export interface RanOn {
  /** Days since any fixed day; only differences count. */
  readonly day: number
  readonly hours: number
}

/** When something falls due next. */
export interface DueForecast {
  readonly interval: CareInterval
  /** Hours run since it was last done. */
  readonly spent: number
  readonly every: number
  readonly state: 'due' | 'soon' | 'later'
  /** Days from today until it is due by the pace of the last months; null while it does not run. */
  readonly inDays: number | null
  /** 80 % interval of that; the later end null where it may never be. */
  readonly earliest: number | null
  readonly latest: number | null
}

/** Hours a week, with half the width of their 80 % interval. */
export interface Pace {
  readonly mean: number
  readonly error: number
}

export interface ForecastOptions {
  /** What is left of an interval: gardens and carpets halve every one. */
  readonly shortened?: number
  /** Where it is known already, for another interval of the same engine. */
  readonly pace?: Pace | null
}

/** The pace of so many days back counts, and from such a share on a thing is due soon. */
const { paceDays: PACE_DAYS, soonShare: SOON_SHARE } = weights
const WEEK = 7
/** Of a normal distribution, for 80 %. */
const Z80 = 1.2816

/**
 * Hours since last done, and when the interval is used up by the pace of the last months. The interval of the forecast
 * comes from how much the weeks differ: the mean week ± 1.28 standard errors.
 *
 * @param ran oldest first
 * @param doneOn day it was last done; null for never, then everything counts
 * @param today
 * 12 h since oiled at 2 h a week: due in 42 days
 */
export function forecastDue(
  ran: readonly RanOn[],
  doneOn: number | null,
  today: number,
  interval: CareInterval,
  { shortened = 1, pace = paceOf(ran, today) }: ForecastOptions = {},
): DueForecast {
  const every = interval.every * shortened
  let spent = 0
  for (const { day, hours } of ran) if (doneOn === null || day > doneOn) spent += hours
  const left = every - spent
  const share = spent / every
  if (left <= 0) return { interval, spent, every, state: 'due', inDays: 0, earliest: 0, latest: 0 }
  const state = share >= SOON_SHARE ? ('soon' as const) : ('later' as const)
  if (!pace) return { interval, spent, every, state, inDays: null, earliest: null, latest: null }
  const days = (perWeek: number): number => Math.round((left / perWeek) * WEEK)
  return {
    interval,
    spent,
    every,
    state,
    inDays: days(pace.mean),
    earliest: days(pace.mean + pace.error),
    latest: pace.mean > pace.error ? days(pace.mean - pace.error) : null,
  }
}

/**
 * Hours a week by the last months, and how far that may be off; null while it does not run.
 *
 * @param ran oldest first
 * @example
 * paceOf(
 *   [
 *     { day: 0, hours: 2 },
 *     { day: 7, hours: 2 },
 *     { day: 14, hours: 2 },
 *   ],
 *   21,
 * ) // { mean: 1.5, error: 0.6408 }
 */
export function paceOf(ran: readonly RanOn[], today: number): Pace | null {
  const perWeek = hoursPerWeek(ran, today)
  const weeks = perWeek.length
  let sum = 0
  for (const hours of perWeek) sum += hours
  const mean = sum / weeks
  if (weeks === 0 || mean <= 0) return null
  let squares = 0
  for (const hours of perWeek) squares += (hours - mean) ** 2
  const spread = Math.sqrt(squares / Math.max(1, weeks - 1))
  // A single week says nothing of how weeks differ: then it may be half or double.
  return { mean, error: weeks > 1 ? (Z80 * spread) / Math.sqrt(weeks) : mean / 2 }
}

/** Hours in each week back from today, as far as the pace counts and the engine has run. */
function hoursPerWeek(ran: readonly RanOn[], today: number): Float64Array {
  const perWeek = new Float64Array(Math.ceil(PACE_DAYS / WEEK))
  let weeks = 0
  for (const { day, hours } of ran) {
    if (day <= today - PACE_DAYS || day > today) continue
    const week = Math.floor((today - day) / WEEK)
    weeks = Math.max(weeks, week + 1)
    perWeek[week] = (perWeek[week] ?? 0) + hours
  }
  return perWeek.subarray(0, weeks)
}

/** Those that count hours: wiping and oiling. */
export const hourly: readonly CareInterval[] = careIntervals.filter((interval) => interval.counts === 'hours')
