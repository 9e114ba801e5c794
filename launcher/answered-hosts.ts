import { hostname, networkInterfaces } from 'node:os'
import { SentenceError } from './sentence-error'

const NAME = /^[a-z0-9]([a-z0-9.-]{0,250}[a-z0-9])?$/i

/** IPv4 addresses of this machine in the shop's network. */
export function networkAddresses(): string[] {
  return Object.values(networkInterfaces())
    .flat()
    .flatMap((address) => (address && !address.internal && address.family === 'IPv4' ? [address.address] : []))
}

/**
 * The hosts by which the shop may be asked for: this machine, its addresses and name in the network when it is open
 * there, and what the owner names besides. Asked for by another name it does not answer, so that a page elsewhere
 * cannot get at it by giving this machine a name of its own.
 */
export function answeredHosts({ lan, named }: { lan: boolean; named: readonly string[] }): string[] {
  const wrong = named.find((name) => !NAME.test(name))
  if (wrong !== undefined)
    throw new SentenceError(
      `“${wrong}” is no name of a host: give it without http:// and port, for example  --host bench.example`,
    )
  const own = hostname().toLowerCase()
  return [
    ...new Set([
      'localhost',
      '127.0.0.1',
      ...(lan ? [...networkAddresses(), own, `${own.replace(/\.local$/, '')}.local`] : []),
      ...named.map((name) => name.toLowerCase()),
    ]),
  ]
}
