import { randomBytes } from 'node:crypto'
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { count } from 'drizzle-orm'
import { openBook, type DatabaseAddress } from '../server/db/book'
import { person } from '../server/db/schema'
import { answeredHosts, networkAddresses } from './answered-hosts'
import { buildWhenChanged } from './build-when-changed'
import { ownDatabase, type DatabaseOptions } from './database-options'
import { lockFolder } from './folder-lock'
import { claimPort } from './free-port'
import { mustAnswer } from './must-answer'
import { keepNightlyBackups } from './nightly-backups'
import { ownCertificate, type OwnCertificate } from './own-certificate'
import { startMariaDb } from './private-mariadb'
import { runCommandLine } from './run-command-line'
import { noteRunningDatabase } from './running-database'
import { SentenceError } from './sentence-error'
import { backupsFolder, databaseFolder, dumpsFolder, migrations, root, shopFolder } from './shop-folder'
import { startShopServer, type ShopServer } from './shop-server'
import { updateBook } from './update-book'

/**
 * The start command behind bin/demo and bin/start: lock, build, database, migration, (demo scenario,)
 * application; and everything in the opposite order on Ctrl-C.
 */
const say = (line: string): void => console.log(line)

/** The sign-in of the demo's people; printed at start, so it is no secret. */
const DEMO_SIGN_IN = { signInName: 'maren', password: 'harbour-festival' }

interface StartOptions extends DatabaseOptions {
  readonly demo: boolean
  readonly fresh: boolean
  readonly lan: boolean
  readonly tls: boolean
  readonly port: number
  readonly hosts: readonly string[]
  readonly folder?: string
}

function readOptions(): StartOptions {
  const { values } = parseArgs({
    options: {
      demo: { type: 'boolean' },
      fresh: { type: 'boolean' },
      lan: { type: 'boolean' },
      tls: { type: 'boolean' },
      port: { type: 'string' },
      host: { type: 'string', multiple: true },
      folder: { type: 'string' },
      database: { type: 'string' },
      'database-password-file': { type: 'string' },
      'database-ca': { type: 'string' },
    },
  })
  const { demo = false, fresh = false, lan = false, tls = false, port, host, ...database } = values
  if (fresh && !demo)
    throw new SentenceError('Only the demo can be started anew: bin/demo --fresh. Your own workshop is never emptied.')
  if (demo && database.database !== undefined)
    throw new SentenceError('The demo keeps to its own database: --database goes with bin/start.')
  return {
    demo,
    fresh,
    lan,
    tls,
    port: readPort(port, demo ? 4780 : 4770),
    hosts: answeredHosts({ lan, named: host ?? [] }),
    ...database,
  }
}

function readPort(text: string | undefined, usual: number): number {
  if (text === undefined) return usual
  const port = Number(text)
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new SentenceError(`“${text}” is not a port: give a number from 1024 to 65535.`)
  return port
}

runCommandLine(async () => {
  const options = readOptions()
  const folder = shopFolder(options)
  const stopping: Array<() => Promise<void> | void> = [await lockFolder(folder)]
  const stopAll = async (): Promise<void> => {
    for (const stop of stopping.splice(0).reverse()) await stop()
  }
  let stopRequested = false
  const onSignal = (): void => {
    if (stopRequested) return
    stopRequested = true
    say('\nStopping …')
    void stopAll().then(() => process.exit(0))
  }
  process.on('SIGINT', onSignal).on('SIGTERM', onSignal).on('SIGHUP', onSignal)
  try {
    await run(options, folder, stopping)
    if (!stopRequested) {
      say('The shop ended unexpectedly: everything that was confirmed is kept. Start it again.')
      await stopAll()
      process.exit(1)
    }
  } catch (error) {
    await stopAll()
    throw error
  }
})

/** Opens the shop part by part; fulfils when a part ends by itself. */
async function run(options: StartOptions, folder: string, stopping: Array<() => Promise<void> | void>): Promise<void> {
  const { demo, lan, tls, port, hosts } = options
  const host = lan ? '0.0.0.0' : '127.0.0.1'
  const own = ownDatabase(options)
  await claimPort(port, host)
  await buildWhenChanged(root, say)
  if (options.fresh)
    for (const leftover of [
      databaseFolder(folder),
      `${databaseFolder(folder)}.password`,
      join(folder, 'scenario-loaded'),
    ])
      rmSync(leftover, { recursive: true, force: true })

  const database = own ? await usingOwn(own) : await startPrivate(folder, stopping)
  await updateBook(database.address, { migrations, dumps: dumpsFolder(folder), now: new Date(), say })
  const firstOwnerCode = await prepareBook(database.address, folder, demo)
  stopping.push(noteRunningDatabase(folder, database.address))
  const certificate = tls ? await ownCertificate(folder, hosts, new Date()) : undefined
  const server = await startShopServer({
    root,
    host,
    port,
    database: database.address,
    sessionPassword: sessionPassword(folder),
    demo,
    hosts,
    ...(own ? {} : { folder }),
    ...(firstOwnerCode ? { firstOwnerCode } : {}),
    ...(certificate ? { certificate } : {}),
  })
  stopping.push(() => server.stop())
  if (!demo) stopping.push(keepNightlyBackups(database.address, backupsFolder(folder), say))
  announce(server, options, firstOwnerCode, certificate)
  await Promise.race([server.ended, database.ended])
}

async function usingOwn(address: DatabaseAddress): Promise<{ address: DatabaseAddress; ended: Promise<void> }> {
  await mustAnswer(address)
  return { address, ended: new Promise(() => {}) }
}

async function startPrivate(
  folder: string,
  stopping: Array<() => Promise<void> | void>,
): Promise<{ address: DatabaseAddress; ended: Promise<void> }> {
  const mariadb = await startMariaDb(databaseFolder(folder))
  stopping.push(() => mariadb.stop())
  if (mariadb.accountsClosed)
    say(
      'The database’s administrator was open to every user of this machine without a password. That door is closed now: only the shop itself gets in.',
    )
  return mariadb
}

/** Loads the scenario, or makes the code with which the first owner's account is made. */
async function prepareBook(address: DatabaseAddress, folder: string, demo: boolean): Promise<string | undefined> {
  const book = openBook(address)
  try {
    if (demo) {
      const mark = join(folder, 'scenario-loaded')
      if (!existsSync(mark)) {
        say('Loading the demo scenario …')
        const { loadScenario } = await import('../demo/load-scenario')
        await loadScenario(book.database, { now: new Date(), password: DEMO_SIGN_IN.password })
        writeFileSync(mark, new Date().toISOString())
      }
      return undefined
    }
    const [people] = await book.database.select({ rows: count() }).from(person)
    return (people?.rows ?? 0) === 0 ? randomBytes(8).toString('hex') : undefined
  } finally {
    await book.close()
  }
}

/** Seals the session cookies; made once, readable by this user only. */
function sessionPassword(folder: string): string {
  const file = join(folder, 'session-password')
  if (!existsSync(file)) writeFileSync(file, randomBytes(36).toString('base64url'), { mode: 0o600 })
  return readFileSync(file, 'utf8')
}

function announce(
  server: ShopServer,
  { demo, lan, tls, port }: StartOptions,
  firstOwnerCode: string | undefined,
  certificate: OwnCertificate | undefined,
): void {
  say('')
  say(`  The shop is open:  ${server.url}`)
  if (lan)
    for (const address of networkAddresses()) say(`  On the network:    ${tls ? 'https' : 'http'}://${address}:${port}`)
  if (certificate) {
    say(`  Its certificate is its own: each device asks once whether to trust it. Compare there:`)
    say(`  SHA-256 ${certificate.fingerprint}`)
  }
  if (demo) say(`  Sign in as         ${DEMO_SIGN_IN.signInName}   with   ${DEMO_SIGN_IN.password}`)
  if (firstOwnerCode) say(`  First visitor: make the owner’s account with the code   ${firstOwnerCode}`)
  say('')
  say('  Ctrl-C stops it.')
}
