import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { migrate } from 'drizzle-orm/mysql2/migrator'
import type { Book } from './book'

interface MigrationJournal {
  readonly entries: ReadonlyArray<{ readonly when: number; readonly tag: string }>
}

/** How many of the shipped migrations the database has, and how many are shipped. */
export async function migrationState(
  book: Pick<Book, 'pool'>,
  folder: string,
): Promise<{ applied: number; shipped: number; unknown: boolean }> {
  const { entries } = JSON.parse(readFileSync(join(folder, 'meta', '_journal.json'), 'utf8')) as MigrationJournal
  const [tables] = await book.pool.query("show tables like '\\_\\_drizzle\\_migrations'")
  if ((tables as unknown[]).length === 0) return { applied: 0, shipped: entries.length, unknown: false }
  const [rows] = await book.pool.query('select created_at as at from __drizzle_migrations')
  const applied = (rows as Array<{ at: number | string }>).map((row) => Number(row.at))
  const shipped = new Set(entries.map((entry) => entry.when))
  return { applied: applied.length, shipped: entries.length, unknown: applied.some((at) => !shipped.has(at)) }
}

/** Brings the database to the shipped schema. MariaDB does not undo half a schema change: dump before calling. */
export async function bringUpToDate(book: Book, folder: string): Promise<void> {
  await migrate(book.database, { migrationsFolder: folder })
}
