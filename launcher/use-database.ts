import { createConnection } from 'mysql2/promise'
import { connectionTo, type DatabaseAddress } from '../server/db/book'
import { ownDatabase, type DatabaseOptions } from './database-options'
import { lockFolder } from './folder-lock'
import { mustAnswer } from './must-answer'
import { startMariaDb } from './private-mariadb'
import { runningDatabase } from './running-database'
import { databaseFolder } from './shop-folder'

/**
 * The book's database for a command beside the shop: the one of the running shop where that may go on, otherwise the
 * shop's own server or the private one started for as long as it takes, with the folder locked.
 *
 * @throws SentenceError when the shop runs and may not, or the database does not answer
 */
export async function withDatabase<T>(
  folder: string,
  options: DatabaseOptions & { besideTheShop: boolean },
  work: (address: DatabaseAddress) => Promise<T>,
): Promise<T> {
  const running = options.besideTheShop ? runningDatabase(folder) : null
  if (running && (await answers(running))) return work(running)
  const unlock = await lockFolder(folder)
  try {
    const own = ownDatabase(options)
    if (own) {
      await mustAnswer(own)
      return await work(own)
    }
    const mariadb = await startMariaDb(databaseFolder(folder))
    return await work(mariadb.address).finally(() => mariadb.stop())
  } finally {
    await unlock()
  }
}

async function answers(address: DatabaseAddress): Promise<boolean> {
  try {
    const connection = await createConnection({ ...connectionTo(address), connectTimeout: 2000 })
    await connection.end()
    return true
  } catch {
    return false
  }
}
