import type { H3Event } from 'h3'

/** The token a phone was let in by. It never stands in an address: those are written down along the way. */
export const phoneToken = (event: H3Event): string => getRequestHeader(event, 'x-phone-token') ?? ''
