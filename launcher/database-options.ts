import { readFileSync } from 'node:fs'
import type { DatabaseAddress } from '../server/db/book'
import { isLoopback } from './is-loopback'
import { SentenceError } from './sentence-error'

const FORM = 'user@host:port/database, for example  echoppe@192.168.1.20:3306/echoppe'
const USUAL_PORT = 3306

/** What the start command is told of a database server of the shop's own. */
export interface DatabaseOptions {
  readonly database?: string | undefined
  readonly 'database-password-file'?: string | undefined
  readonly 'database-ca'?: string | undefined
}

/**
 * The address of a MariaDB server of the shop's own; null where none is named and the private one is meant. Beyond
 * this machine the connection is encrypted and the server's certificate checked.
 *
 * @throws SentenceError when the address is none, or the password cannot be read
 */
export function ownDatabase(options: DatabaseOptions): DatabaseAddress | null {
  if (options.database === undefined) return null
  const match =
    /^([A-Za-z0-9_.-]{1,80})@(\[[0-9a-fA-F:.]+\]|[A-Za-z0-9.-]{1,253})(?::(\d{1,5}))?\/([A-Za-z0-9_$-]{1,64})$/.exec(
      options.database,
    )
  if (!match) throw new SentenceError(`“${options.database}” is no address of a database: write ${FORM}.`)
  const [, user = '', bracketed = '', port = String(USUAL_PORT), database = ''] = match
  if (Number(port) < 1 || Number(port) > 65_535) throw new SentenceError(`${port} is no port: write ${FORM}.`)
  const host = bracketed.replace(/^\[|\]$/g, '')
  const caFile = options['database-ca'] ?? null
  return {
    host,
    port: Number(port),
    user,
    database,
    password: password(options['database-password-file']),
    tls: caFile !== null || !isLoopback(host) ? { caFile: caFile === null ? null : readable(caFile) } : null,
  }
}

function password(file: string | undefined): string {
  if (!file)
    throw new SentenceError(
      'The password of the database is read from a file: name it with  --database-password-file FILE.',
    )
  return readFileSync(readable(file), 'utf8').replace(/\r?\n$/, '')
}

function readable(file: string): string {
  try {
    readFileSync(file)
    return file
  } catch {
    throw new SentenceError(`${file} cannot be read: is the name right, and may you read it?`)
  }
}
