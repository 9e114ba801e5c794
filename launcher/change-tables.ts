import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import type { PoolConnection, RowDataPacket } from 'mysql2/promise'
import type { Book, DatabaseAddress } from '../server/db/book'
import { migrationState } from '../server/db/migrate'
import { checkBookFile, readBookFile, writeBookFile } from './book-file'
import { CHANGE_MARK } from './change-mark'
import { SentenceError } from './sentence-error'

const LOCK = 'echoppe-update'
const LOCK_SECONDS = 120

export interface ChangeOptions {
  readonly migrations: string
  /** Where what was before is kept. */
  readonly dumps: string
  readonly now: Date
  readonly why: 'update' | 'restore'
  say(line: string): void
}

/**
 * Does something to the tables that MariaDB cannot undo: what was before is written out, a mark is set, the work done,
 * the mark taken away. A start that finds the mark goes back by itself (`goBackWhereInterrupted`).
 */
export async function changeTables(
  book: Book,
  address: DatabaseAddress,
  { migrations, dumps, now, why, say }: ChangeOptions,
  work: (connection: PoolConnection) => Promise<void>,
): Promise<void> {
  await whileLocked(book, address, async (connection) => {
    const { applied, shipped } = await migrationState(book, migrations)
    let before = ''
    if (applied > 0) {
      mkdirSync(dumps, { recursive: true, mode: 0o700 })
      before = join(dumps, `before-${why}-${now.toISOString().replace(/[:.]/g, '-')}.book.gz`)
      await writeBookFile(address, before, { migrations: Math.min(applied, shipped), writtenAt: now.toISOString() })
      say(`As it was, the book is kept in ${before}.`)
    }
    await connection.query(
      `create table if not exists ${CHANGE_MARK} (book_file text not null, begun_at datetime not null)`,
    )
    await connection.query(`delete from ${CHANGE_MARK}`)
    await connection.query(`insert into ${CHANGE_MARK} values (?, ?)`, [before, now])
    await work(connection)
    await connection.query(`drop table ${CHANGE_MARK}`)
  })
}

/** Puts the book back as it was where a change of its tables was broken off, by a kill or a power cut. */
export async function goBackWhereInterrupted(
  book: Book,
  address: DatabaseAddress,
  { migrations, say }: Pick<ChangeOptions, 'migrations' | 'say'>,
): Promise<void> {
  await whileLocked(book, address, async (connection) => {
    const [marks] = await connection.query<RowDataPacket[]>(`show tables like '${CHANGE_MARK.replaceAll('_', '\\_')}'`)
    if (marks.length === 0) return
    const [rows] = await connection.query<Array<RowDataPacket & { book_file: string }>>(
      `select book_file from ${CHANGE_MARK}`,
    )
    const file = rows[0]?.book_file
    // A mark without its row was set when nothing had been changed yet.
    if (file !== undefined) {
      say('The last change of the book’s tables was interrupted: the book is put back as it was before it.')
      if (file !== '') await mustBeWhole(file, (await migrationState(book, migrations)).shipped)
      await dropTables(connection)
      if (file !== '') await readBookFile(address, file)
    }
    await connection.query(`drop table ${CHANGE_MARK}`)
  })
}

/** Empties the database but for the mark, so that whatever half a change made is gone. */
export async function dropTables(connection: PoolConnection): Promise<void> {
  const [tables] = await connection.query<Array<RowDataPacket & { name: string }>>(
    'select table_name as name from information_schema.tables where table_schema = database()',
  )
  await connection.query('set foreign_key_checks = 0')
  for (const { name } of tables) if (name !== CHANGE_MARK) await connection.query('drop table ??', [name])
  await connection.query('set foreign_key_checks = 1')
}

/** Of several starts on one server one works, the others wait for it. */
async function whileLocked(
  book: Book,
  address: DatabaseAddress,
  work: (connection: PoolConnection) => Promise<void>,
): Promise<void> {
  const connection = await book.pool.getConnection()
  try {
    const [rows] = await connection.query<Array<RowDataPacket & { got: number | null }>>(
      'select get_lock(?, ?) as got',
      [`${LOCK}-${address.database}`, LOCK_SECONDS],
    )
    if (rows[0]?.got !== 1)
      throw new SentenceError(
        'Another start is changing the tables of this book and is not done within two minutes: wait for it, then start again.',
      )
    await work(connection)
  } finally {
    // The lock goes with its connection, whatever became of it.
    connection.destroy()
  }
}

async function mustBeWhole(file: string, shipped: number): Promise<void> {
  await checkBookFile(file, shipped).catch((error: unknown) => {
    throw new SentenceError(
      `The last change of the book’s tables was interrupted, and what to go back to cannot be had: ${error instanceof Error ? error.message : String(error)} Put a backup back with  bin/restore FILE.`,
    )
  })
}
