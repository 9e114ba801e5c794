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
 * @param shortened gardens and carpets halve every interval
 * @example 12 h since oiled at 2 h a week: due in 42 days
 */
export function forecastDue(
  ran: readonly RanOn[],
  doneOn: number | null,
  today: number,
  interval: CareInterval,
  shortened = 1,
): DueForecast {
  const every = interval.every * shortened
  const spent = ran
    .filter((entry) => doneOn === null || entry.day > doneOn)
    .reduce((sum, entry) => sum + entry.hours, 0)
  const left = every - spent
  const share = spent / every
  const base = { interval, spent, every }
  if (left <= 0) return { ...base, state: 'due', inDays: 0, earliest: 0, latest: 0 }
  const state = share >= SOON_SHARE ? ('soon' as const) : ('later' as const)
  const recent = ran.filter((entry) => entry.day > today - PACE_DAYS && entry.day <= today)
  const first = recent[0]
  if (!first) return { ...base, state, inDays: null, earliest: null, latest: null }
  const weeks = Math.max(1, Math.ceil((today - first.day + 1) / WEEK))
  const perWeek = Array.from({ length: weeks }, (_, week) =>
    recent
      .filter((entry) => Math.floor((today - entry.day) / WEEK) === week)
      .reduce((sum, entry) => sum + entry.hours, 0),
  )
  const mean = perWeek.reduce((sum, hours) => sum + hours, 0) / weeks
  if (mean <= 0) return { ...base, state, inDays: null, earliest: null, latest: null }
  const spread = Math.sqrt(perWeek.reduce((sum, hours) => sum + (hours - mean) ** 2, 0) / Math.max(1, weeks - 1))
  // A single week says nothing of how weeks differ: then it may be half or double.
  const error = weeks > 1 ? (Z80 * spread) / Math.sqrt(weeks) : mean / 2
  const days = (pace: number): number => Math.round((left / pace) * WEEK)
  return {
    ...base,
    state,
    inDays: days(mean),
    earliest: days(mean + error),
    latest: mean - error > 0 ? days(mean - error) : null,
  }
}

/** Those that count hours: wiping and oiling. */
export const hourly: readonly CareInterval[] = careIntervals.filter((interval) => interval.counts === 'hours')
