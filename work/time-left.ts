/**
 * How long until then, as a kitchen clock shows it.
 *
 * @param endsAt ISO instant
 * @param now ms since 1970
 * @example timeLeft('2026-11-30T10:01:05Z', Date.parse('2026-11-30T10:00:00Z')) // '1:05'
 */
export function timeLeft(endsAt: string, now: number): string {
  const seconds = Math.max(0, Math.round((Date.parse(endsAt) - now) / 1000))
  const minutes = Math.floor(seconds / 60)
  if (minutes < 60) return `${minutes}:${String(seconds % 60).padStart(2, '0')}`
  const hours = Math.floor(minutes / 60)
  return hours < 48 ? `${hours} h ${minutes % 60} min` : `${Math.round(hours / 24)} days`
}
