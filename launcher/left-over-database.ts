import { readdirSync, readFileSync, statSync } from 'node:fs'
import { SentenceError, systemErrorCode } from './sentence-error'

const LONGEST_GOODBYE_MS = 30_000

/**
 * Ends a database server that was left behind on this data folder when whoever started it was killed alone. Two
 * servers on one folder would be refused by the tables' own locks; the one left behind has nobody who stops it.
 *
 * @throws SentenceError when it does not end
 */
export async function endLeftOverDatabase(dataFolder: string): Promise<void> {
  for (const pid of databasesOn(dataFolder)) {
    try {
      process.kill(pid, 'SIGTERM')
    } catch (error) {
      if (systemErrorCode(error) !== 'ESRCH') throw error
    }
    await untilGone(pid, dataFolder)
  }
}

/** Processes of this user whose command line names the folder as theirs. */
function databasesOn(dataFolder: string): number[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number)
    .filter((pid) => {
      try {
        return (
          statSync(`/proc/${pid}`).uid === process.getuid?.() &&
          readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0').includes(`--datadir=${dataFolder}`)
        )
      } catch {
        // Ended while we looked.
        return false
      }
    })
}

async function untilGone(pid: number, dataFolder: string): Promise<void> {
  const deadline = Date.now() + LONGEST_GOODBYE_MS
  while (databasesOn(dataFolder).includes(pid)) {
    if (Date.now() > deadline)
      throw new SentenceError(
        `A database left behind on ${dataFolder} (process ${pid}) does not end: stop it with  kill ${pid}  and start again.`,
      )
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
}
