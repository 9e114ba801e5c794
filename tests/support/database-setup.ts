import { rmSync } from 'node:fs'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { startMariaDb } from '../../launcher/private-mariadb'
import { openBook, type DatabaseAddress } from '../../server/db/book'
import { bringUpToDate } from '../../server/db/migrate'
import { throwAwayFolder } from './throw-away-folder'

declare module 'vitest' {
  export interface ProvidedContext {
    databaseAddress: DatabaseAddress
  }
}

/** A throw-away MariaDB for the server tests, migrated as a real one is. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const folder = throwAwayFolder('test')
  const mariadb = await startMariaDb(join(folder, 'database'), { durable: false })
  const book = openBook(mariadb.address)
  await bringUpToDate(book, 'server/db/migrations')
  await book.close()
  project.provide('databaseAddress', mariadb.address)
  return async () => {
    await mariadb.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
