import { Problem } from '../problems'
import { sendProblem } from '../answer'

/** The shop answers by its own names only, and takes writes from its own pages only. */
export default defineEventHandler((event) => {
  const host = getRequestHeader(event, 'host') ?? ''
  if (!isOwnHost(host))
    return sendProblem(
      event,
      new Problem(
        421,
        'other-host',
        'The shop is not known by this name. Start it with  --host NAME  if it should be.',
      ),
    )
  if (['GET', 'HEAD', 'OPTIONS'].includes(event.method)) return undefined
  const origin = getRequestHeader(event, 'origin')
  const sameOrigin = origin ? hostOf(origin) === host : getRequestHeader(event, 'sec-fetch-site') === 'same-origin'
  if (!sameOrigin)
    return sendProblem(event, new Problem(403, 'other-site', 'Writes are only taken from this shop’s own pages.'))
  return undefined
})

/** Names the start command gave; without any (a server started by hand) every name is taken. */
function isOwnHost(host: string): boolean {
  const own = process.env.ECHOPPE_HOSTS
  return !own || own.split(',').includes(host.replace(/:\d+$/, '').toLowerCase())
}

function hostOf(origin: string): string | null {
  try {
    return new URL(origin).host
  } catch {
    return null
  }
}
