import { createConnection, type RowDataPacket } from 'mysql2/promise'
import { connectionTo, type DatabaseAddress } from '../server/db/book'
import { SentenceError } from './sentence-error'

const OLDEST = [10, 6] as const

/** Makes sure that a database server of the shop's own answers, is MariaDB, and is new enough. */
export async function mustAnswer(address: DatabaseAddress): Promise<void> {
  const place = `${address.host}:${address.port}`
  const connection = await createConnection({ ...connectionTo(address), connectTimeout: 5000 }).catch(
    (error: unknown) => {
      throw new SentenceError(
        `The database at ${place} cannot be used: ${error instanceof Error ? error.message : String(error)}. See docs/operations.md for what it needs.`,
      )
    },
  )
  try {
    const [[row]] = (await connection.query<RowDataPacket[]>('select version() as version')) as unknown as [
      [{ version: string }],
    ]
    const [major = 0, minor = 0] = row.version.split('.').map((part) => Number.parseInt(part, 10))
    if (!/mariadb/i.test(row.version) || major < OLDEST[0] || (major === OLDEST[0] && minor < OLDEST[1])) {
      throw new SentenceError(
        `The database at ${place} is ${row.version}: MariaDB ${OLDEST.join('.')} or newer is needed.`,
      )
    }
  } finally {
    await connection.end()
  }
}
