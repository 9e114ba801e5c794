import { statfsSync } from 'node:fs'
import { diskFull } from '../problems'

/** Kept free for the database to go on: its own log, temporary tables, a night's dump. A full disk would end it. */
const RESERVE_BYTES = 150 * 1024 * 1024
/** A row in its table, its index, the log and the copy before it is written. */
const TIMES_WRITTEN = 3

export function freeBytes(folder: string): number {
  const { bavail, bsize } = statfsSync(folder)
  return bavail * bsize
}

/**
 * Makes sure that the disk under the book has room for so many bytes and a reserve besides. Only where the book lies
 * on this machine: a server of the shop's own looks after its disk itself.
 *
 * @throws Problem 507 before anything is written
 */
export function mustHaveRoom(bytes: number): void {
  const folder = process.env.ECHOPPE_BOOK_FOLDER
  if (folder && freeBytes(folder) < RESERVE_BYTES + TIMES_WRITTEN * bytes) throw diskFull()
}
