import ipaddr from 'ipaddr.js'

/** Whether a host is this very machine, by its name or number alone. */
export function isLoopback(host: string): boolean {
  return host === 'localhost' || (ipaddr.isValid(host) && ipaddr.process(host).range() === 'loopback')
}
