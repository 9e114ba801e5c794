import { copyFileSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

export const MIGRATIONS = 'server/db/migrations'

interface Entry {
  readonly tag: string
}

/** The shipped migrations by name, oldest first. */
export function shippedMigrations(): string[] {
  return (
    JSON.parse(readFileSync(join(MIGRATIONS, 'meta', '_journal.json'), 'utf8')) as { entries: Entry[] }
  ).entries.map(({ tag }) => tag)
}

/** A folder with the first so many migrations alone: the program as it was then. */
export function firstMigrations(count: number, folder: string): string {
  mkdirSync(join(folder, 'meta'), { recursive: true })
  const journal = JSON.parse(readFileSync(join(MIGRATIONS, 'meta', '_journal.json'), 'utf8')) as { entries: Entry[] }
  const entries = journal.entries.slice(0, count)
  writeFileSync(join(folder, 'meta', '_journal.json'), JSON.stringify({ ...journal, entries }))
  for (const { tag } of entries) copyFileSync(join(MIGRATIONS, `${tag}.sql`), join(folder, `${tag}.sql`))
  return folder
}

/** What a migration says to the database, one after the other. */
export function statementsOf(tag: string): string[] {
  return readFileSync(join(MIGRATIONS, `${tag}.sql`), 'utf8')
    .split('--> statement-breakpoint')
    .map((text) => text.trim())
    .filter(Boolean)
}
