import { mkdirSync, readdirSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { set, subDays } from 'date-fns'
import { openBook, type DatabaseAddress } from '../server/db/book'
import { readWorkshop } from '../server/services/read-workshop'
import { freeBytes } from '../server/services/disk-room'
import { backUp } from './back-up'

/** The hour of the night, by this machine's clock. */
const HOUR = 2
const LOOK_EVERY_MS = 5 * 60_000
const NAME = /^book-\d{4}-\d{2}-\d{2}T[\d-]+Z\.book\.gz$/
/** Of the disk, besides twice what the last backup took. */
const ROOM_BYTES = 500 * 1024 * 1024

/** Whether a backup is due: none was begun since the last time it was two in the night. */
export function backupIsDue(latest: Date | null, now: Date): boolean {
  const today = set(now, { hours: HOUR, minutes: 0, seconds: 0, milliseconds: 0 })
  return latest === null || latest < (now < today ? subDays(today, 1) : today)
}

/**
 * Writes the book into the folder every night, or at the next start after a night the shop was closed, and keeps as
 * many as the workshop's setting says; none with 0.
 *
 * @returns a function that stops it and waits for one that is being written
 */
export function keepNightlyBackups(
  address: DatabaseAddress,
  folder: string,
  say: (line: string) => void,
): () => Promise<void> {
  let last: Promise<void> = Promise.resolve()
  let lastTrouble = ''
  const look = (): void => {
    last = last
      .then(() => backUpWhenDue(address, folder, new Date()))
      .then(
        () => {
          lastTrouble = ''
        },
        (error: unknown) => {
          const trouble = `Tonight’s backup could not be written: ${error instanceof Error ? error.message : String(error)}`
          if (trouble !== lastTrouble) say(trouble)
          lastTrouble = trouble
        },
      )
  }
  const timer = setInterval(look, LOOK_EVERY_MS)
  look()
  return () => {
    clearInterval(timer)
    return last
  }
}

/** One look: writes a backup when one is due and lets go of what is more than the setting keeps. */
export async function backUpWhenDue(address: DatabaseAddress, folder: string, now: Date): Promise<void> {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const kept = backupsIn(folder)
  const latest = kept.at(-1)
  if (!backupIsDue(latest ? timeOf(latest) : null, now)) return
  const book = openBook(address, { connections: 1 })
  const { workshop } = await readWorkshop(book.database).finally(() => book.close())
  if (workshop.nightlyBackups === 0) return
  const needed = ROOM_BYTES + 2 * (latest ? statSync(join(folder, latest)).size : 0)
  if (freeBytes(folder) < needed) throw new Error(`the disk has less than ${Math.round(needed / 1e6)} MB free.`)
  await backUp(address, join(folder, `book-${now.toISOString().replace(/[:.]/g, '-')}.book.gz`), now)
  for (const old of backupsIn(folder).slice(0, -workshop.nightlyBackups)) rmSync(join(folder, old))
}

/** Oldest first; the name carries the time. */
const backupsIn = (folder: string): string[] =>
  readdirSync(folder)
    .filter((name) => NAME.test(name))
    .sort()

function timeOf(name: string): Date {
  const [, day = '', hour = '', minute = '', second = ''] = /^book-(.{10})T(\d\d)-(\d\d)-(\d\d)/.exec(name) ?? []
  return new Date(`${day}T${hour}:${minute}:${second}Z`)
}
