import { mkdtempSync, statfsSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const IN_MEMORY = '/dev/shm'
const ROOM_BYTES = 3e9

/** A new folder for what a test throws away: in memory where there is room, since a disk that confirms each write is most of a test's time. */
export function throwAwayFolder(name: string): string {
  return mkdtempSync(join(hasRoom() ? IN_MEMORY : tmpdir(), `ech-${name}-`))
}

function hasRoom(): boolean {
  try {
    const { bavail, bsize } = statfsSync(IN_MEMORY)
    return bavail * bsize > ROOM_BYTES
  } catch {
    return false
  }
}
