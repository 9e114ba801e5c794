import { differenceInCalendarDays, format, formatDistanceToNowStrict, parseISO } from 'date-fns'
import type { JobState } from '../messages/vocabulary'

/** A due day in words, and whether it presses. Null when there is none or the job is gone. */
export function describeDue(
  dueOn: string | null,
  state: JobState,
  today = new Date(),
): { text: string; late: boolean; soon: boolean } | null {
  if (!dueOn || state === 'handed-back' || state === 'declined') return null
  const day = parseISO(dueOn)
  const days = differenceInCalendarDays(day, today)
  if (days < 0) return { text: `${-days} ${days === -1 ? 'day' : 'days'} late`, late: true, soon: false }
  if (days === 0) return { text: 'due today', late: false, soon: true }
  if (days === 1) return { text: 'due tomorrow', late: false, soon: true }
  return { text: `due ${format(day, days < 7 ? 'EEEE' : 'd MMM')}`, late: false, soon: days <= 3 }
}

export function showDay(instantOrDay: string | null): string {
  return instantOrDay ? format(parseISO(instantOrDay), 'd MMM yyyy') : ''
}

export function showMoment(instant: string): string {
  return format(parseISO(instant), 'd MMM, HH:mm')
}

export function showAgo(instant: string): string {
  return formatDistanceToNowStrict(parseISO(instant), { addSuffix: true })
}

/** The calendar day it is now, as days are kept. */
export function today(): string {
  return format(new Date(), 'yyyy-MM-dd')
}
