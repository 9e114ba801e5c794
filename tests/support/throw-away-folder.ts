import { mkdtempSync, readdirSync, rmSync, statfsSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const IN_MEMORY = '/dev/shm'
const ROOM_BYTES = 3e9
/** Named by the process it belongs to, so that what one that was killed left behind can be told. */
const OF_PROCESS = /^ech-(\d+)-/
let swept = false

/** A new folder for what a test throws away: in memory where there is room, since a disk that confirms each write is most of a test's time. */
export function throwAwayFolder(name: string): string {
  if (!swept) for (const root of [IN_MEMORY, tmpdir()]) sweep(root)
  swept = true
  return mkdtempSync(join(hasRoom() ? IN_MEMORY : tmpdir(), `ech-${process.pid}-${name}-`))
}

/** Takes away the folders of processes that are no more: a run that was killed could not. */
export function sweep(root: string): void {
  for (const folder of namesIn(root)) {
    const [, process] = OF_PROCESS.exec(folder) ?? []
    if (process !== undefined && !isThere(Number(process))) rmSync(join(root, folder), { recursive: true, force: true })
  }
}

function namesIn(root: string): readonly string[] {
  try {
    return readdirSync(root)
  } catch {
    return []
  }
}

function isThere(pid: number): boolean {
  try {
    process.kill(pid, 0)
    return true
  } catch (error) {
    // Somebody else's process may not be asked, but is there.
    return (error as NodeJS.ErrnoException).code !== 'ESRCH'
  }
}

function hasRoom(): boolean {
  try {
    const { bavail, bsize } = statfsSync(IN_MEMORY)
    return bavail * bsize > ROOM_BYTES
  } catch {
    return false
  }
}
