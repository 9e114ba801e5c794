import type { Server } from 'node:http'
import type { Socket } from 'node:net'
import helmet from 'helmet'

/** A page's own policy, with its scripts' number, is set where the page is drawn (script-nonce). */
const setHeaders = helmet({
  contentSecurityPolicy: false,
  // A device on the shop's network may come by plain http too: it is not told to forget that.
  strictTransportSecurity: false,
  crossOriginEmbedderPolicy: false,
  referrerPolicy: { policy: 'same-origin' },
  frameguard: { action: 'deny' },
})

/**
 * Longer than any browser keeps an idle connection (five minutes), so that it is always the client who closes: a server
 * that closes in the very moment an idle connection is used again resets a request, a write among them.
 */
const IDLE_MS = 330_000

function keepConnectionsOpen(socket: Socket & { server?: Partial<Server> }): void {
  if (socket.server && socket.server.keepAliveTimeout !== IDLE_MS)
    Object.assign(socket.server, { keepAliveTimeout: IDLE_MS, headersTimeout: IDLE_MS + 10_000 })
}

/** Headers that every answer carries, files and pages as well as data; set before anything else looks at the request. */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('request', (event) => {
    keepConnectionsOpen(event.node.req.socket)
    setHeaders(event.node.req, event.node.res, () => {})
    setResponseHeader(event, 'permissions-policy', 'geolocation=(), microphone=(self), camera=(self)')
    if (event.path.startsWith('/api/')) setResponseHeader(event, 'cache-control', 'no-store')
  })
})
