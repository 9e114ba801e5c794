import { randomBytes } from 'node:crypto'
import { pageSecurityPolicy } from '../security-policy'

/** Gives every script of a page a number used once, and lets only those run. */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('render:response', (response, { event }) => {
    if (response.headers) delete response.headers['x-powered-by']
    if (typeof response.body !== 'string') return
    const nonce = randomBytes(16).toString('base64')
    response.body = response.body
      .replace(/<script(?=[\s>])/g, `<script nonce="${nonce}"`)
      .replace(/<link(?=[^>]*\bas="script")/g, `<link nonce="${nonce}"`)
    setResponseHeader(event, 'content-security-policy', pageSecurityPolicy(nonce))
  })
})
