import { mkdirSync } from 'node:fs'
import { dirname, resolve } from 'node:path'
import { openBook, type DatabaseAddress } from '../server/db/book'
import { migrationState } from '../server/db/migrate'
import { writeBookFile, type CheckedBookFile } from './book-file'
import { SentenceError } from './sentence-error'
import { migrations } from './shop-folder'

/**
 * Writes a book with its photographs into a file, as it stands at one moment, while the shop goes on.
 *
 * @throws SentenceError when there is no book yet or the file cannot be written
 */
export async function backUp(address: DatabaseAddress, file: string, now: Date): Promise<CheckedBookFile> {
  const book = openBook(address, { connections: 1 })
  const { applied } = await migrationState(book, migrations).finally(() => book.close())
  if (applied === 0) throw new SentenceError('There is no book here yet: start the shop first.')
  const whole = resolve(file)
  mkdirSync(dirname(whole), { recursive: true, mode: 0o700 })
  return writeBookFile(address, whole, { migrations: applied, writtenAt: now.toISOString() })
}
