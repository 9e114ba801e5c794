import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { SentenceError } from './sentence-error'

/** What the built application depends on. */
const SOURCES = ['app', 'core', 'bench', 'messages', 'public', 'server', 'work', 'nuxt.config.ts', 'package-lock.json']
const STAMP = join('.output', 'built-from')

/** Builds the application unless the sources are those it was last built from. About a minute when it must. */
export async function buildWhenChanged(root: string, say: (line: string) => void): Promise<void> {
  const wanted = fingerprint(root)
  const stamp = join(root, STAMP)
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return
  say('Building the application (about a minute) …')
  await run(root, 'node', ['--import', 'tsx', 'messages/compile-validators.ts'])
  await run(root, 'node', ['--import', 'tsx', 'server/reckoning/compile-worker.ts'])
  await run(root, process.execPath, [join('node_modules', 'nuxt', 'bin', 'nuxt.mjs'), 'build'])
  writeFileSync(stamp, wanted)
}

function fingerprint(root: string): string {
  const hash = createHash('sha256').update(process.version)
  const add = (path: string): void => {
    const full = join(root, path)
    if (!existsSync(full) || path.endsWith('.test.ts') || path.endsWith('/generated')) return
    try {
      for (const name of readdirSync(full).sort()) add(`${path}/${name}`)
    } catch {
      hash.update(path).update('\0').update(readFileSync(full))
    }
  }
  for (const source of SOURCES) add(source)
  return hash.digest('hex')
}

function run(root: string, program: string, parameters: string[]): Promise<void> {
  return new Promise((resolve, reject) => {
    const lines: string[] = []
    const child = spawn(program, parameters, {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
    })
    const keep = (chunk: Buffer): void => {
      lines.push(chunk.toString())
    }
    child.stdout.on('data', keep)
    child.stderr.on('data', keep)
    // Stopped while it builds, the start command takes the build with it.
    const endIt = (): void => void child.kill()
    process.once('exit', endIt)
    child.once('error', reject)
    child.once('exit', (code) => {
      process.off('exit', endIt)
      if (code === 0) return resolve()
      const tail = lines.join('').trim().split('\n').slice(-25).join('\n')
      const full = /ENOSPC/.test(tail) ? ' The disk is full: free some space, then start again.' : ''
      reject(new SentenceError(`${tail}\n\nThe application could not be built.${full}`))
    })
  })
}
