import { openBook, type DatabaseAddress } from '../server/db/book'
import { bringUpToDate, migrationState } from '../server/db/migrate'
import { changeTables, goBackWhereInterrupted, type ChangeOptions } from './change-tables'
import { SentenceError } from './sentence-error'

/**
 * Brings a book to the shipped tables, whatever happened before: a change that was broken off is gone back on first.
 *
 * @throws SentenceError when the book is of a newer version, or what to go back to is gone
 */
export async function updateBook(address: DatabaseAddress, options: Omit<ChangeOptions, 'why'>): Promise<void> {
  const book = openBook(address, { connections: 4 })
  try {
    await goBackWhereInterrupted(book, address, options)
    const state = await migrationState(book, options.migrations)
    if (state.unknown)
      throw new SentenceError(
        'This book was written by a newer version of the program: start that version. Nothing was changed.',
      )
    if (state.applied >= state.shipped) return
    if (state.applied > 0) options.say('The book is brought up to date.')
    await changeTables(book, address, { ...options, why: 'update' }, async () => {
      // Another start may have done it while this one waited for the lock.
      if ((await migrationState(book, options.migrations)).applied < state.shipped)
        await bringUpToDate(book, options.migrations)
    })
  } finally {
    await book.close()
  }
}
