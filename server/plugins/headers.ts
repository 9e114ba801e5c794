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

/** Headers that every answer carries, files and pages as well as data; set before anything else looks at the request. */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('request', (event) => {
    setHeaders(event.node.req, event.node.res, () => {})
    setResponseHeader(event, 'permissions-policy', 'geolocation=(), microphone=(self), camera=(self)')
    if (event.path.startsWith('/api/')) setResponseHeader(event, 'cache-control', 'no-store')
  })
})
