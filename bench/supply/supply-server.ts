import { createServer, type Server, type Socket } from 'node:net'
import type { SimulatedSupply } from './simulated-supply'

/** A line longer than this is no command. */
const LONGEST_LINE = 4096

/**
 * Puts a simulated supply on the network as such instruments are: one line a message, one client at a time. A second
 * client is turned away; when the one it has goes, its output goes off.
 */
export class SupplyServer {
  private readonly server: Server
  private client: Socket | null = null
  private readonly sockets = new Set<Socket>()

  constructor(private readonly supply: SimulatedSupply) {
    this.server = createServer((socket) => this.accept(socket))
  }

  /** @returns the port it listens on, on this machine only */
  async listen(port = 0): Promise<number> {
    await new Promise<void>((resolve, reject) => {
      this.server.once('error', reject)
      this.server.listen(port, '127.0.0.1', resolve)
    })
    const address = this.server.address()
    return typeof address === 'object' && address ? address.port : port
  }

  /** Breaks the connection as a pulled cable does. */
  dropClient(): void {
    this.client?.destroy()
  }

  async close(): Promise<void> {
    for (const socket of this.sockets) socket.destroy()
    await new Promise<void>((resolve) => {
      this.server.close(() => resolve())
    })
  }

  private accept(socket: Socket): void {
    this.sockets.add(socket)
    socket.once('close', () => this.sockets.delete(socket))
    socket.on('error', () => {})
    if (this.client) {
      socket.end('ERR another client is connected\n')
      return
    }
    this.client = socket
    socket.setNoDelay(true)
    socket.setEncoding('utf8')
    let pending = ''
    socket.on('data', (chunk: string) => {
      pending += chunk
      for (let end = pending.indexOf('\n'); end >= 0; end = pending.indexOf('\n')) {
        const answer = this.supply.execute(pending.slice(0, end).trim())
        pending = pending.slice(end + 1)
        if (answer !== null) socket.write(`${answer}\n`)
      }
      if (pending.length > LONGEST_LINE) socket.destroy()
    })
    socket.on('close', () => {
      if (this.client !== socket) return
      this.client = null
      this.supply.off()
    })
  }
}
