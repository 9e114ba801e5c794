import { spawn, type ChildProcess } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { get } from 'node:http'
import { get as secureGet } from 'node:https'
import { join } from 'node:path'
import type { DatabaseAddress } from '../server/db/book'
import type { OwnCertificate } from './own-certificate'
import { SentenceError } from './sentence-error'

export interface ShopServerOptions {
  readonly root: string
  readonly host: string
  readonly port: number
  readonly database: DatabaseAddress
  readonly sessionPassword: string
  /** Code with which the first visitor of an empty workshop makes the owner's account. */
  readonly firstOwnerCode?: string
  readonly demo?: boolean
  /** Names by which it answers; without any, by every name. */
  readonly hosts?: readonly string[]
  /** Where the book lies on this machine, whose disk is watched. */
  readonly folder?: string
  /** With one, https instead of plain http. */
  readonly certificate?: OwnCertificate
  readonly quiet?: boolean
  readonly environment?: Readonly<Record<string, string>>
}

export interface ShopServer {
  readonly url: string
  readonly pid: number
  readonly ended: Promise<number | null>
  stop(): Promise<void>
}

/** Starts the built application and waits until it answers. */
export async function startShopServer(options: ShopServerOptions): Promise<ShopServer> {
  const { root, host, port, database, certificate } = options
  const child = spawn(process.execPath, [join(root, '.output', 'server', 'index.mjs')], {
    cwd: root,
    detached: true,
    stdio: ['pipe', options.quiet ? 'ignore' : 'inherit', 'inherit'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      NITRO_HOST: host,
      NITRO_PORT: String(port),
      NITRO_SHUTDOWN_TIMEOUT: '1000',
      NUXT_SESSION_PASSWORD: options.sessionPassword,
      NUXT_SESSION_COOKIE_SECURE: certificate ? 'true' : 'false',
      ECHOPPE_ENDS_WITH_INPUT: 'yes',
      ...(options.hosts ? { ECHOPPE_HOSTS: options.hosts.join(',') } : {}),
      ...(options.folder ? { ECHOPPE_BOOK_FOLDER: options.folder } : {}),
      ...(certificate
        ? {
            NITRO_SSL_CERT: readFileSync(certificate.certificateFile, 'utf8'),
            NITRO_SSL_KEY: readFileSync(certificate.keyFile, 'utf8'),
          }
        : {}),
      ECHOPPE_DATABASE_HOST: database.host,
      ...(database.tls ? { ECHOPPE_DATABASE_TLS: 'yes', ECHOPPE_DATABASE_CA: database.tls.caFile ?? '' } : {}),
      ECHOPPE_DATABASE_PORT: String(database.port),
      ECHOPPE_DATABASE_USER: database.user,
      ECHOPPE_DATABASE_PASSWORD: database.password,
      ECHOPPE_DATABASE_NAME: database.database,
      ECHOPPE_SEARCH_JUDGE: join(root, 'messages', 'generated', 'search-judge.worker.mjs'),
      ...(options.firstOwnerCode ? { ECHOPPE_FIRST_OWNER_CODE: options.firstOwnerCode } : {}),
      ...(options.demo ? { ECHOPPE_DEMO: 'yes' } : {}),
      ...options.environment,
    },
  })
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve).once('error', () => resolve(1)))
  const url = `${certificate ? 'https' : 'http'}://${host === '0.0.0.0' ? '127.0.0.1' : host}:${port}`
  await waitUntilItAnswers(child, url, certificate)
  return {
    url,
    pid: child.pid as number,
    ended,
    async stop() {
      if (child.exitCode === null && child.signalCode === null) child.kill('SIGTERM')
      const forced = setTimeout(() => child.kill('SIGKILL'), 8000)
      await ended
      clearTimeout(forced)
    },
  }
}

function isHealthy(url: string, certificate: OwnCertificate | undefined): Promise<boolean> {
  return new Promise((resolve, reject) => {
    const asked = certificate ? secureGet(url, { ca: readFileSync(certificate.certificateFile) }) : get(url)
    asked
      .once('response', (answer) => {
        answer.resume()
        resolve(answer.statusCode === 200)
      })
      .once('error', reject)
  })
}

async function waitUntilItAnswers(
  child: ChildProcess,
  url: string,
  certificate: OwnCertificate | undefined,
): Promise<void> {
  const deadline = Date.now() + 30_000
  while (Date.now() < deadline) {
    if (child.exitCode !== null) throw new SentenceError('The application ended while starting: see the lines above.')
    try {
      if (await isHealthy(`${url}/api/health`, certificate)) return
    } catch {
      // Not listening yet.
    }
    await new Promise((resolve) => setTimeout(resolve, 60))
  }
  child.kill('SIGKILL')
  throw new SentenceError('The application did not answer within half a minute.')
}
