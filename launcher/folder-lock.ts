import { closeSync, mkdirSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs'
import { dirname } from 'node:path'
import { SentenceError, systemErrorCode } from './sentence-error'

/**
 * Keeps two starts from using one data folder. The lock names its process; one left behind by a process that
 * no longer lives is taken over.
 *
 * @returns a function that gives the lock back
 * @throws SentenceError when a living process holds it
 */
export function lockFolder(lockFile: string): () => void {
  mkdirSync(dirname(lockFile), { recursive: true })
  for (let attempt = 0; attempt < 2; attempt++) {
    try {
      const file = openSync(lockFile, 'wx', 0o600)
      writeSync(file, `${process.pid} ${processStart(process.pid)}`)
      closeSync(file)
      return () => rmSync(lockFile, { force: true })
    } catch (error) {
      if (systemErrorCode(error) !== 'EEXIST') throw error
      const [pid = '', started = ''] = readFileSync(lockFile, 'utf8').split(' ')
      if (Number(pid) > 0 && started !== '' && processStart(Number(pid)) === started) {
        throw new SentenceError(`The shop is already running (process ${pid}): use that one, or stop it with Ctrl-C first.`)
      }
      rmSync(lockFile, { force: true })
    }
  }
  throw new SentenceError(`The lock ${lockFile} could not be taken: another start is just under way. Try again in a moment.`)
}

/** When a process was started, in clock ticks since boot, so that a reused number is not mistaken for the old process. */
function processStart(pid: number): string {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19] ?? ''
  } catch {
    return ''
  }
}
