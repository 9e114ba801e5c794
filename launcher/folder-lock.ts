import { randomBytes } from 'node:crypto'
import { linkSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { connect, createServer, type Server } from 'node:net'
import { join } from 'node:path'
import { SentenceError, systemErrorCode } from './sentence-error'

const LONGEST_ANSWER_MS = 1000

/**
 * Keeps two starts from using one data folder. The lock is a socket in the kernel's own name space (Linux, abstract
 * names): of two starts in the same instant exactly one gets the name, and it is free again the moment its process
 * ends, however it ends. The name is a secret of the folder, so that no other user of the machine can take it first.
 *
 * @returns a function that gives the lock back
 * @throws SentenceError when a living process holds it
 */
export async function lockFolder(folder: string): Promise<() => Promise<void>> {
  const name = `\0echoppe-${secretName(folder)}`
  const server = createServer((socket) => socket.on('error', () => {}).end(String(process.pid)))
  try {
    await listen(server, name)
  } catch (error) {
    if (systemErrorCode(error) !== 'EADDRINUSE') throw error
    throw new SentenceError(
      `The shop is already running (process ${await holderOf(name)}): use that one, or stop it with Ctrl-C first.`,
    )
  }
  // The lock alone keeps no process alive.
  server.unref()
  return () => new Promise((resolve) => server.close(() => resolve()))
}

function listen(server: Server, path: string): Promise<void> {
  return new Promise((resolve, reject) => {
    server.once('error', reject)
    server.listen({ path, exclusive: true }, resolve)
  })
}

/** Made once for each folder; of two that make it at once the first one's stands. */
function secretName(folder: string): string {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const file = join(folder, 'lock-name')
  const mine = `${file}.${process.pid}-${randomBytes(4).toString('hex')}`
  writeFileSync(mine, randomBytes(18).toString('hex'), { mode: 0o600 })
  try {
    linkSync(mine, file)
  } catch (error) {
    if (systemErrorCode(error) !== 'EEXIST') throw error
  } finally {
    rmSync(mine, { force: true })
  }
  return readFileSync(file, 'utf8')
}

function holderOf(path: string): Promise<string> {
  return new Promise((resolve) => {
    let said = ''
    const socket = connect({ path })
      .setEncoding('utf8')
      .setTimeout(LONGEST_ANSWER_MS, () => socket.destroy())
    socket
      .on('data', (chunk: string) => {
        said += chunk
      })
      .on('error', () => {})
      .on('close', () => resolve(/^\d+$/.test(said) ? said : 'number not known'))
  })
}
