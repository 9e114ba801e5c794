import { mkdirSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = join(dirname(fileURLToPath(import.meta.url)), '..')
export const migrations = join(root, 'server', 'db', 'migrations')

/** The folder of a workshop or of the demo, or the one that was named, made where it is not there yet. */
export function shopFolder({
  demo = false,
  folder: named,
}: {
  demo?: boolean | undefined
  folder?: string | undefined
}): string {
  const folder = named === undefined ? join(root, 'var', demo ? 'demo' : 'workshop') : resolve(named)
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  return folder
}

export const databaseFolder = (folder: string): string => join(folder, 'database')
export const dumpsFolder = (folder: string): string => join(folder, 'dumps')
export const backupsFolder = (folder: string): string => join(folder, 'backups')
