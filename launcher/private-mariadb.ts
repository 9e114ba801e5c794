import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import {
  closeSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readFileSync,
  renameSync,
  rmSync,
  statfsSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir, userInfo } from 'node:os'
import { dirname, join } from 'node:path'
import { createConnection } from 'mysql2/promise'
import { connectionTo, type DatabaseAddress } from '../server/db/book'
import { freePort } from './free-port'
import { endLeftOverDatabase } from './left-over-database'
import { SentenceError } from './sentence-error'

/** Marks a whole data folder, written last; a folder without it was left half-made. */
const FORMAT_FILE = 'echoppe-format.json'
/** 2: the book's own account is the only one; in 1 the database's administrator stood open to the whole machine. */
const FORMAT = 2
const DATABASE = 'echoppe'
const LEAST_FREE_BYTES = 400 * 1024 * 1024
const START_TIMEOUT_MS = 60_000

export interface PrivateMariaDb {
  readonly address: DatabaseAddress
  readonly pid: number
  readonly socket: string
  /** Fulfils when the server ends, for whatever reason. */
  readonly ended: Promise<void>
  /** True when accounts of an earlier version, open to other users of this machine, were closed at this start. */
  readonly accountsClosed: boolean
  stop(): Promise<void>
}

export interface MariaDbOptions {
  /** The port to listen on; a free one when none is asked for. */
  readonly port?: number
  /** False for a book that is thrown away: what was confirmed is then not pressed onto the disk each time. */
  readonly durable?: boolean
  /** More words for the server's command line. */
  readonly parameters?: readonly string[]
}

/**
 * Starts a MariaDB of our own on loopback, from Debian's programs, without a system service. The data folder
 * is made beside its place and renamed when whole, so that an interrupted first start leaves nothing half-made.
 *
 * @param dataFolder where the tables live
 * @throws SentenceError with what to do
 */
export async function startMariaDb(
  dataFolder: string,
  { port: asked, durable = true, parameters = [] }: MariaDbOptions = {},
): Promise<PrivateMariaDb> {
  const program = findProgram('mariadbd')
  checkRoom(dirname(dataFolder))
  const format = checkFolder(dataFolder)
  await endLeftOverDatabase(dataFolder)
  const passwordFile = `${dataFolder}.password`
  if (!existsSync(dataFolder)) makeDataFolder(dataFolder)
  if (!existsSync(passwordFile)) writeFileSync(passwordFile, randomBytes(24).toString('base64url'), { mode: 0o600 })
  const password = readFileSync(passwordFile, 'utf8')

  const port = asked ?? (await freePort())
  const runFolder = mkdtempSync(join(shortTemporaryFolder(), 'ech-'))
  const socket = join(runFolder, 's.sock')
  const initFile = join(runFolder, 'init.sql')
  writeFileSync(initFile, oneAccount(password), { mode: 0o600 })

  const logFile = `${dataFolder}.log`
  const log = openSync(logFile, 'a', 0o600)
  const child = spawn(
    program,
    [...serverArguments({ dataFolder, runFolder, socket, port, initFile, durable }), ...parameters, ...asUser()],
    { stdio: ['ignore', log, log], detached: true },
  )
  closeSync(log)
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()).once('error', () => resolve()))
  const address: DatabaseAddress = { host: '127.0.0.1', port, user: DATABASE, password, database: DATABASE }
  try {
    await waitUntilReady(child, address, logFile)
    if (format < FORMAT) writeFileSync(join(dataFolder, FORMAT_FILE), JSON.stringify({ format: FORMAT }))
  } catch (error) {
    child.kill('SIGKILL')
    throw error
  } finally {
    rmSync(initFile, { force: true })
  }
  return {
    address,
    pid: child.pid as number,
    socket,
    ended,
    accountsClosed: format < FORMAT,
    async stop() {
      if (child.exitCode === null && child.signalCode === null) child.kill('SIGTERM')
      await ended
      rmSync(runFolder, { recursive: true, force: true })
    },
  }
}

/** How the server is called: on loopback alone, everything of its own beneath our folders. */
function serverArguments(of: {
  readonly dataFolder: string
  readonly runFolder: string
  readonly socket: string
  readonly port: number
  readonly initFile: string
  readonly durable: boolean
}): string[] {
  const { dataFolder, runFolder, socket, port, initFile, durable } = of
  return [
    '--no-defaults',
    `--datadir=${dataFolder}`,
    `--tmpdir=${runFolder}`,
    `--socket=${socket}`,
    `--port=${port}`,
    '--bind-address=127.0.0.1',
    `--pid-file=${join(runFolder, 'pid')}`,
    `--init-file=${initFile}`,
    '--skip-name-resolve',
    '--skip-log-bin',
    '--character-set-server=utf8mb4',
    '--collation-server=utf8mb4_unicode_ci',
    '--default-time-zone=+00:00',
    '--local-infile=0',
    `--secure-file-priv=${runFolder}`,
    `--innodb-flush-log-at-trx-commit=${durable ? 1 : 0}`,
    `--innodb-doublewrite=${durable ? 1 : 0}`,
    `--innodb-flush-method=${durable ? 'O_DIRECT' : 'nosync'}`,
    '--innodb-buffer-pool-size=192M',
    '--max-allowed-packet=16M',
  ]
}

/**
 * What the server does before it listens: the book, and one account for it over loopback, with rights in the book and
 * nothing beyond it (no FILE, no other database). Every other account goes, the administrator's too; `mariadb.sys` is
 * locked and only owns the server's own views.
 */
function oneAccount(password: string): string {
  const account = `'${DATABASE}'@'127.0.0.1'`
  return [
    `create database if not exists ${DATABASE} character set utf8mb4 collate utf8mb4_unicode_ci;`,
    `delete from mysql.global_priv where User <> 'mariadb.sys';`,
    `delete from mysql.db;`,
    `delete from mysql.proxies_priv;`,
    `flush privileges;`,
    `create user ${account} identified by '${password}';`,
    `grant all on ${DATABASE}.* to ${account};`,
    '',
  ].join('\n')
}

/** Where a program is, also when /usr/sbin is not on the path. */
export function findProgram(name: string): string {
  const folders = [...(process.env.PATH ?? '').split(':'), '/usr/sbin', '/usr/bin', '/usr/local/sbin', '/sbin']
  const found = folders.map((folder) => join(folder, name)).find((path) => existsSync(path))
  if (!found)
    throw new SentenceError(
      `The program ${name} is missing: run  sudo apt-get install mariadb-server-core mariadb-client  then start again.`,
    )
  return found
}

function checkRoom(folder: string): void {
  mkdirSync(folder, { recursive: true })
  const { bavail, bsize } = statfsSync(folder)
  if (bavail * bsize < LEAST_FREE_BYTES) {
    throw new SentenceError(
      `The disk that holds ${folder} has less than ${LEAST_FREE_BYTES / 1024 / 1024} MB free: free some space, then start again. Nothing was changed.`,
    )
  }
}

/** @returns the format the folder was written in; today's where there is none yet */
function checkFolder(dataFolder: string): number {
  if (!existsSync(dataFolder)) return FORMAT
  const formatFile = join(dataFolder, FORMAT_FILE)
  if (!existsSync(formatFile)) {
    throw new SentenceError(
      `${dataFolder} is not a whole data folder of this program: move it away (or restore it from a backup), then start again. Nothing in it was changed.`,
    )
  }
  const { format } = JSON.parse(readFileSync(formatFile, 'utf8')) as { format: number }
  if (format > FORMAT) {
    throw new SentenceError(
      `${dataFolder} was written by a newer version of this program: start that version, or move the folder away. Nothing in it was changed.`,
    )
  }
  return format
}

function makeDataFolder(dataFolder: string): void {
  const beside = `${dataFolder}.being-made`
  // Temporary tables of two servers in one folder get in each other's way: each has its own.
  const temporary = `${dataFolder}.temporary`
  for (const folder of [beside, temporary]) rmSync(folder, { recursive: true, force: true })
  mkdirSync(temporary, { recursive: true })
  const made = spawnSync(
    findProgram('mariadb-install-db'),
    [
      '--no-defaults',
      `--datadir=${beside}`,
      `--tmpdir=${temporary}`,
      '--auth-root-authentication-method=normal',
      '--skip-test-db',
      ...asUser(),
    ],
    { encoding: 'utf8' },
  )
  rmSync(temporary, { recursive: true, force: true })
  if (made.status !== 0) {
    rmSync(beside, { recursive: true, force: true })
    const reason = `${made.stdout}${made.stderr}`.trim().split('\n').slice(-3).join(' ')
    throw new SentenceError(
      `The database folder could not be made: ${reason || 'mariadb-install-db failed'}. Is the disk full, or may this user not write to ${dirname(dataFolder)}?`,
    )
  }
  writeFileSync(join(beside, FORMAT_FILE), JSON.stringify({ format: FORMAT }))
  renameSync(beside, dataFolder)
}

/** A server started by root refuses to run unless told which user it is. */
function asUser(): string[] {
  return process.getuid?.() === 0 ? [`--user=${userInfo().username}`] : []
}

/** A socket's path may have 107 bytes at most: a long TMPDIR is left aside. */
function shortTemporaryFolder(): string {
  const folder = tmpdir()
  return Buffer.byteLength(folder) <= 60 ? folder : '/tmp'
}

async function waitUntilReady(child: ChildProcess, address: DatabaseAddress, logFile: string): Promise<void> {
  const deadline = Date.now() + START_TIMEOUT_MS
  while (Date.now() < deadline) {
    if (child.exitCode !== null || child.signalCode !== null || child.pid === undefined) {
      const lines = readFileSync(logFile, 'utf8')
        .trim()
        .split('\n')
        .filter((line) => /error/i.test(line))
        .slice(-2)
        .join(' ')
      throw new SentenceError(
        `The database ended while starting. ${lines || 'It gave no reason.'} The whole log is ${logFile}.`,
      )
    }
    try {
      const connection = await createConnection({ ...connectionTo(address), connectTimeout: 1000 })
      await connection.end()
      return
    } catch {
      await new Promise((resolve) => setTimeout(resolve, 60))
    }
  }
  throw new SentenceError(`The database did not answer within a minute: look into ${logFile}.`)
}
