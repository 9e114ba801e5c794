import { openBook, type DatabaseAddress } from '../server/db/book'
import { migrationState } from '../server/db/migrate'
import { checkBookFile, readBookFile, sumOfRows } from './book-file'
import { changeTables, dropTables } from './change-tables'
import { SentenceError } from './sentence-error'
import { migrations } from './shop-folder'

export interface PutBackOptions {
  readonly dumps: string
  readonly now: Date
  say(line: string): void
}

/**
 * Puts a book file in place of the book. The file is checked to its end before anything is touched; what was there is
 * kept in a file of its own, and comes back by itself at the next start when this is broken off. What was put back is
 * compared with the file row for row. Sessions of those days are not taken up again.
 *
 * @throws SentenceError when the file is damaged or newer, with nothing touched; or when the rows are not the same
 */
export async function putBack(
  address: DatabaseAddress,
  file: string,
  { dumps, now, say }: PutBackOptions,
): Promise<void> {
  const book = openBook(address, { connections: 3 })
  try {
    const { shipped } = await migrationState(book, migrations)
    const { sums } = await checkBookFile(file, shipped)
    await changeTables(book, address, { dumps, now, say, migrations, why: 'restore' }, async (connection) => {
      await dropTables(connection)
      await readBookFile(address, file)
      if ((await sumOfRows(address)) !== sums.rows)
        throw new SentenceError(
          `What was put back is not what ${file} holds: the book goes back to what it was at the next start.`,
        )
      await connection.query('delete from session').catch(() => {})
    })
  } finally {
    await book.close()
  }
}
