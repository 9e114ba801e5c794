import { lookup } from 'node:dns/promises'
import { networkInterfaces } from 'node:os'
import ipaddr from 'ipaddr.js'
import { SupplyProblem } from '../../bench/supply/supply-client'

/** Networks that do not leave the house (RFC 1918, 3927, 4193, 4291; loopback for a supply's own program). */
const IN_HOUSE: ReadonlySet<string> = new Set(['loopback', 'private', 'linkLocal', 'uniqueLocal'])

/**
 * The number to connect to for an instrument's host: looked up here and used as found, so that a name cannot lead
 * somewhere else between the look and the call.
 *
 * @throws SupplyProblem when it leads out of the house or to the shop itself
 */
export async function addressInShop(host: string, port: number): Promise<string> {
  const found = ipaddr.isValid(host) ? host : (await lookup(host).catch(() => null))?.address
  if (found === undefined)
    throw new SupplyProblem('unreachable', `Nobody in the shop’s network is called ${host}: is the name right?`)
  const sentence = whyNotInShop(found, port)
  if (sentence) throw new SupplyProblem('unreachable', sentence)
  return found
}

/** Why an address cannot be an instrument's, as far as its text says; null where it may be. A name is looked up later. */
export function whyNotInShop(host: string, port: number): string | null {
  if (!ipaddr.isValid(host))
    return /^[a-z0-9]([a-z0-9.-]*[a-z0-9])?$/i.test(host)
      ? null
      : `“${host}” is no address: a name or a number such as 192.168.1.40.`
  const address = ipaddr.process(host)
  if (!IN_HOUSE.has(address.range()))
    return `${host} is not in the shop’s own network: instruments are spoken to there only.`
  if (isOwnPort(address.toString(), port)) return `At ${host}, port ${port} is the shop itself, not an instrument.`
  return null
}

/** The application's and the database's own doors. */
function isOwnPort(host: string, port: number): boolean {
  const { ECHOPPE_DATABASE_HOST = '127.0.0.1', ECHOPPE_DATABASE_PORT, NITRO_PORT } = process.env
  if (host === ECHOPPE_DATABASE_HOST && String(port) === ECHOPPE_DATABASE_PORT) return true
  return isThisMachine(host) && [ECHOPPE_DATABASE_PORT, NITRO_PORT].includes(String(port))
}

function isThisMachine(host: string): boolean {
  return (
    ipaddr.process(host).range() === 'loopback' ||
    Object.values(networkInterfaces())
      .flat()
      .some((one) => one?.address === host)
  )
}
