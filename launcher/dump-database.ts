import { spawn } from 'node:child_process'
import { createWriteStream, mkdirSync, renameSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { createGzip } from 'node:zlib'
import { findProgram, type PrivateMariaDb } from './private-mariadb'
import { SentenceError } from './sentence-error'

/** Writes the whole book to a compressed file; needed before a migration, which MariaDB cannot undo. */
export async function dumpDatabase(mariadb: PrivateMariaDb, folder: string, label: string): Promise<string> {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const file = join(folder, `${label}.sql.gz`)
  const { address } = mariadb
  const child = spawn(findProgram('mariadb-dump'), [
    '--no-defaults', '--single-transaction', '--hex-blob', '--routines', '--host=127.0.0.1', `--port=${address.port}`, `--user=${address.user}`, address.database,
  ], { stdio: ['ignore', 'pipe', 'inherit'], env: { ...process.env, MYSQL_PWD: address.password } })
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve))
  await pipeline(child.stdout, createGzip(), createWriteStream(`${file}.part`, { mode: 0o600 }))
  if ((await ended) !== 0) {
    rmSync(`${file}.part`, { force: true })
    throw new SentenceError('The book could not be dumped before the update, so nothing was updated: see the line above.')
  }
  renameSync(`${file}.part`, file)
  return file
}
