import { databaseAddressFromEnvironment, openBook, type Book } from './db/book'

let book: Book | undefined

/** The process's book, opened at first use. */
export function theBook(): Book {
  book ??= openBook(databaseAddressFromEnvironment(process.env), { connectTimeoutMs: 4000 })
  return book
}

export async function closeTheBook(): Promise<void> {
  const open = book
  book = undefined
  await open?.close()
}
