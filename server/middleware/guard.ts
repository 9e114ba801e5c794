import { Problem } from '../problems'
import { sendProblem } from '../answer'

/** Headers every answer carries, and the check that a write comes from a page of this very server. */
export default defineEventHandler((event) => {
  setResponseHeaders(event, {
    'x-content-type-options': 'nosniff',
    'x-frame-options': 'DENY',
    'referrer-policy': 'same-origin',
    'cross-origin-opener-policy': 'same-origin',
    'permissions-policy': 'geolocation=(), microphone=(self), camera=(self)',
  })
  if (event.path.startsWith('/api/')) setResponseHeader(event, 'cache-control', 'no-store')
  if (['GET', 'HEAD', 'OPTIONS'].includes(event.method)) return undefined
  const host = getRequestHeader(event, 'host')
  const origin = getRequestHeader(event, 'origin')
  const sameOrigin = origin ? hostOf(origin) === host : getRequestHeader(event, 'sec-fetch-site') === 'same-origin'
  if (!sameOrigin) return sendProblem(event, new Problem(403, 'other-site', 'Writes are only taken from this shop’s own pages.'))
  return undefined
})

function hostOf(origin: string): string | null {
  try {
    return new URL(origin).host
  } catch {
    return null
  }
}
