import { readFileSync } from 'node:fs'
import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2'
import { createPool, type ConnectionOptions, type Pool } from 'mysql2/promise'
import * as schema from './schema'

/** Where the book's database listens and who asks; the application gets it from the start command's environment. */
export interface DatabaseAddress {
  readonly host: string
  readonly port: number
  readonly user: string
  readonly password: string
  readonly database: string
  /** Encrypted and the server's certificate checked, against this authority or the machine's own; null on loopback. */
  readonly tls?: { readonly caFile: string | null } | null
}

export type Database = MySql2Database<typeof schema>
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0]

/** The open book: one pool for the process. */
export interface Book {
  readonly database: Database
  readonly pool: Pool
  readonly databaseName: string
  close(): Promise<void>
}

/** How long a connection may take to come about before the book counts as away, ms. On a busy machine it takes seconds. */
const CONNECT_TIMEOUT_MS = 30_000

/**
 * @param options.connections most connections at a time
 * @param options.connectTimeoutMs shorter where somebody waits at a screen, whose note is kept in the browser meanwhile
 */
export function openBook(
  address: DatabaseAddress,
  { connections = 10, connectTimeoutMs = CONNECT_TIMEOUT_MS }: { connections?: number; connectTimeoutMs?: number } = {},
): Book {
  const pool = createPool({
    ...connectionTo(address),
    connectionLimit: connections,
    timezone: 'Z',
    charset: 'utf8mb4',
    connectTimeout: connectTimeoutMs,
    enableKeepAlive: true,
    supportBigNumbers: true,
  })
  return {
    database: drizzle(pool, { schema, mode: 'planetscale' }),
    pool,
    databaseName: address.database,
    close: () => pool.end(),
  }
}

/** An address as the driver takes it. */
export function connectionTo({ host, port, user, password, database, tls }: DatabaseAddress): ConnectionOptions {
  return {
    host,
    port,
    user,
    password,
    database,
    ...(tls ? { ssl: { rejectUnauthorized: true, ...(tls.caFile ? { ca: readFileSync(tls.caFile) } : {}) } } : {}),
  }
}

/** Reads the address from the environment; says which variable is missing. */
export function databaseAddressFromEnvironment(environment: Record<string, string | undefined>): DatabaseAddress {
  const need = (name: string): string => {
    const value = environment[name]
    if (!value) throw new Error(`${name} is not set: start the shop with bin/demo or bin/start, which set it.`)
    return value
  }
  return {
    host: environment.ECHOPPE_DATABASE_HOST ?? '127.0.0.1',
    port: Number(need('ECHOPPE_DATABASE_PORT')),
    user: need('ECHOPPE_DATABASE_USER'),
    password: need('ECHOPPE_DATABASE_PASSWORD'),
    database: need('ECHOPPE_DATABASE_NAME'),
    tls: environment.ECHOPPE_DATABASE_TLS === 'yes' ? { caFile: environment.ECHOPPE_DATABASE_CA || null } : null,
  }
}
