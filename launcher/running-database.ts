import { readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { DatabaseAddress } from '../server/db/book'

/** Where the book of a running shop can be reached, for the commands beside it; readable by this user only. */
const fileIn = (folder: string): string => join(folder, 'running-database.json')

export function noteRunningDatabase(folder: string, address: DatabaseAddress): () => void {
  writeFileSync(fileIn(folder), JSON.stringify(address), { mode: 0o600 })
  return () => rmSync(fileIn(folder), { force: true })
}

/** Null where no shop runs on the folder, or did not come to its end; whoever uses it must see whether it answers. */
export function runningDatabase(folder: string): DatabaseAddress | null {
  try {
    return JSON.parse(readFileSync(fileIn(folder), 'utf8')) as DatabaseAddress
  } catch {
    return null
  }
}
