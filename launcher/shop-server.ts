import { spawn, type ChildProcess } from 'node:child_process'
import { join } from 'node:path'
import type { DatabaseAddress } from '../server/db/book'
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
  const { root, host, port, database } = options
  const child = spawn(process.execPath, [join(root, '.output', 'server', 'index.mjs')], {
    cwd: root,
    detached: true,
    stdio: ['ignore', options.quiet ? 'ignore' : 'inherit', 'inherit'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      NITRO_HOST: host,
      NITRO_PORT: String(port),
      NITRO_SHUTDOWN_TIMEOUT: '1000',
      NUXT_SESSION_PASSWORD: options.sessionPassword,
      NUXT_SESSION_COOKIE_SECURE: 'false',
      ECHOPPE_DATABASE_PORT: String(database.port),
      ECHOPPE_DATABASE_USER: database.user,
      ECHOPPE_DATABASE_PASSWORD: database.password,
      ECHOPPE_DATABASE_NAME: database.database,
      ECHOPPE_SEARCH_JUDGE: join(root, 'shared', 'generated', 'search-judge.worker.mjs'),
      ...(options.firstOwnerCode ? { ECHOPPE_FIRST_OWNER_CODE: options.firstOwnerCode } : {}),
      ...(options.demo ? { ECHOPPE_DEMO: 'yes' } : {}),
      ...options.environment,
    },
  })
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve).once('error', () => resolve(1)))
  const url = `http://${host === '0.0.0.0' ? '127.0.0.1' : host}:${port}`
  await waitUntilItAnswers(child, url)
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

async function waitUntilItAnswers(child: ChildProcess, url: string): Promise<void> {
  const deadline = Date.now() + 30_000
  while (Date.now() < deadline) {
    if (child.exitCode !== null) throw new SentenceError('The application ended while starting: see the lines above.')
    try {
      const answer = await fetch(`${url}/api/health`)
      if (answer.ok) return
    } catch {
      // Not listening yet.
    }
    await new Promise((resolve) => setTimeout(resolve, 60))
  }
  child.kill('SIGKILL')
  throw new SentenceError('The application did not answer within half a minute.')
}
