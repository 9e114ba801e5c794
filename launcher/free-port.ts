import { createServer } from 'node:net'
import { SentenceError, systemErrorCode } from './sentence-error'

/** Asks the system for a free port on loopback. */
export function freePort(): Promise<number> {
  return tryPort(0, '127.0.0.1')
}

/** Makes sure a port can be used; says what to do when it cannot. */
export async function claimPort(port: number, host: string): Promise<number> {
  try {
    return await tryPort(port, host)
  } catch (error) {
    if (systemErrorCode(error) === 'EADDRINUSE')
      throw new SentenceError(
        `Port ${port} is taken by another program: start with  --port ${port + 1}  or stop that program.`,
      )
    if (systemErrorCode(error) === 'EACCES')
      throw new SentenceError(
        `Port ${port} needs an administrator: start with a port above 1023, for example  --port 4780.`,
      )
    throw error
  }
}

function tryPort(port: number, host: string): Promise<number> {
  return new Promise((resolve, reject) => {
    const server = createServer()
    server.once('error', reject)
    server.listen(port, host, () => {
      const address = server.address()
      server.close(() => resolve(typeof address === 'object' && address ? address.port : port))
    })
  })
}
