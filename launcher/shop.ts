import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { networkInterfaces } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { count } from 'drizzle-orm'
import { openBook, type Book } from '../server/db/book'
import { bringUpToDate, migrationState } from '../server/db/migrate'
import { person } from '../server/db/schema'
import { buildWhenChanged } from './build-when-changed'
import { dumpDatabase } from './dump-database'
import { lockFolder } from './folder-lock'
import { claimPort } from './free-port'
import { startMariaDb, type PrivateMariaDb } from './private-mariadb'
import { SentenceError, systemErrorCode } from './sentence-error'
import { startShopServer, type ShopServer } from './shop-server'

/**
 * The start command behind bin/demo and bin/start: lock, build, database, migration, (demo scenario,)
 * application; and everything in the opposite order on Ctrl-C.
 */
const root = join(dirname(fileURLToPath(import.meta.url)), '..')
const migrations = join(root, 'server', 'db', 'migrations')
const say = (line: string): void => console.log(line)

/** The commands of the demo scenario's people; printed at start, so they are no secret. */
const DEMO_SIGN_IN = { signInName: 'maren', password: 'harbour-festival' }

async function main(): Promise<void> {
  const { values } = parseArgs({ options: { demo: { type: 'boolean' }, fresh: { type: 'boolean' }, lan: { type: 'boolean' }, port: { type: 'string' } } })
  const demo = values.demo ?? false
  if (values.fresh && !demo) throw new SentenceError('Only the demo can be started anew: bin/demo --fresh. Your own workshop is never emptied.')
  const port = readPort(values.port, demo ? 4780 : 4770)
  const host = values.lan ? '0.0.0.0' : '127.0.0.1'
  const folder = join(root, 'var', demo ? 'demo' : 'workshop')
  mkdirSync(folder, { recursive: true, mode: 0o700 })

  const unlock = lockFolder(join(folder, 'running'))
  const stopping: Array<() => Promise<void> | void> = [unlock]
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
    await claimPort(port, host)
    await buildWhenChanged(root, say)
    const data = join(folder, 'database')
    if (values.fresh) for (const leftover of [data, `${data}.password`, join(folder, 'scenario-loaded')]) rmSync(leftover, { recursive: true, force: true })
    const mariadb = await startMariaDb(data)
    stopping.push(() => mariadb.stop())
    const book = openBook(mariadb.address)
    const firstOwnerCode = await prepareBook(book, mariadb, folder, demo).finally(() => book.close())
    const server = await startShopServer({
      root, host, port, database: mariadb.address, sessionPassword: sessionPassword(folder), demo,
      ...(firstOwnerCode ? { firstOwnerCode } : {}),
    })
    stopping.push(() => server.stop())
    announce(server, { demo, lan: values.lan ?? false, port, firstOwnerCode })
    await Promise.race([server.ended, mariadb.ended])
    if (!stopRequested) {
      say('The shop ended unexpectedly: everything that was confirmed is kept. Start it again.')
      await stopAll()
      process.exit(1)
    }
  } catch (error) {
    await stopAll()
    throw error
  }
}

function readPort(text: string | undefined, usual: number): number {
  if (text === undefined) return usual
  const port = Number(text)
  if (!Number.isInteger(port) || port < 1 || port > 65535) throw new SentenceError(`“${text}” is not a port: give a number from 1024 to 65535.`)
  return port
}

/** Migrates (after a dump, where there is something to lose) and loads the scenario or makes the first owner's code. */
async function prepareBook(book: Book, mariadb: PrivateMariaDb, folder: string, demo: boolean): Promise<string | undefined> {
  const state = await migrationState(book, migrations)
  if (state.unknown) throw new SentenceError('This book was written by a newer version of the program: start that version. Nothing was changed.')
  if (state.applied < state.shipped) {
    if (state.applied > 0) {
      const file = await dumpDatabase(mariadb, join(folder, 'dumps'), `before-update-${state.shipped}-${new Date().toISOString().replace(/[:.]/g, '-')}`)
      say(`The book is brought up to date; as it was, it is kept in ${file}.`)
    }
    await bringUpToDate(book, migrations)
  }
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
  return (people?.rows ?? 0) === 0 ? randomBytes(4).toString('hex') : undefined
}

/** Seals the session cookies; made once, readable by this user only. */
function sessionPassword(folder: string): string {
  const file = join(folder, 'session-password')
  if (!existsSync(file)) writeFileSync(file, randomBytes(36).toString('base64url'), { mode: 0o600 })
  return readFileSync(file, 'utf8')
}

function announce(server: ShopServer, { demo, lan, port, firstOwnerCode }: { demo: boolean; lan: boolean; port: number; firstOwnerCode: string | undefined }): void {
  say('')
  say(`  The shop is open:  ${server.url}`)
  if (lan) {
    for (const address of Object.values(networkInterfaces()).flat()) {
      if (address && !address.internal && address.family === 'IPv4') say(`  On the network:    http://${address.address}:${port}`)
    }
  }
  if (demo) say(`  Sign in as         ${DEMO_SIGN_IN.signInName}   with   ${DEMO_SIGN_IN.password}`)
  if (firstOwnerCode) say(`  First visitor: make the owner’s account with the code   ${firstOwnerCode}`)
  say('')
  say('  Ctrl-C stops it.')
}

main().catch((error: unknown) => {
  if (error instanceof SentenceError) console.error(error.message)
  else if (systemErrorCode(error) === 'ENOSPC') console.error('The disk is full: free some space, then start again. What was confirmed before is kept.')
  else console.error(error)
  process.exit(1)
})
