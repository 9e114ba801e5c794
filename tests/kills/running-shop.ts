import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { readdirSync, readFileSync } from 'node:fs'
import { createInterface } from 'node:readline'
import { fire } from '../support/attack'

export type Part = 'application' | 'database' | 'launcher'

/** A shop as its owner starts it, by the start command and in a folder of its own, whose parts can be killed one by one. */
export class RunningShop {
  private launcher: ChildProcess | null = null
  private ended: Promise<unknown> = Promise.resolve()
  firstOwnerCode = ''

  constructor(
    private readonly folder: string,
    private readonly port: number,
  ) {}

  get url(): string {
    return `http://127.0.0.1:${this.port}`
  }

  /** Starts it and waits until it says that it is open; tries again where what was killed has not gone yet. */
  async start(): Promise<void> {
    for (let attempt = 1; ; attempt++) {
      const launcher = spawn(
        process.execPath,
        ['--import', 'tsx', 'launcher/shop.ts', '--folder', this.folder, '--port', String(this.port)],
        { stdio: ['ignore', 'pipe', 'pipe'] },
      )
      this.launcher = launcher
      this.ended = once(launcher, 'exit')
      const said: string[] = []
      createInterface({ input: launcher.stderr }).on('line', (line) => said.push(line))
      for await (const line of createInterface({ input: launcher.stdout })) {
        said.push(line)
        this.firstOwnerCode = /with the code {3}(\w+)/.exec(line)?.[1] ?? this.firstOwnerCode
        if (line.includes('Ctrl-C stops it')) {
          launcher.stdout.resume()
          return
        }
      }
      await this.ended
      if (attempt >= 5) throw new Error(`The shop did not open: ${said.slice(-6).join(' | ')}`)
    }
  }

  /** Kills one part with -9 and waits until the start command has ended, as it does when a part is missing. */
  async kill(part: Part): Promise<void> {
    const pid = this.pidOf(part)
    process.kill(pid, 'SIGKILL')
    await this.ended
  }

  async stop(): Promise<void> {
    this.launcher?.kill('SIGTERM')
    await this.ended
  }

  async answers(): Promise<boolean> {
    return (await fire(this.url, { method: 'GET', path: '/api/health' })).status === 200
  }

  private pidOf(part: Part): number {
    const launcher = this.launcher?.pid ?? 0
    if (part === 'launcher') return launcher
    const sign = part === 'database' ? `--datadir=${this.folder}/database` : '.output/server/index.mjs'
    const found = readdirSync('/proc')
      .filter((name) => /^\d+$/.test(name))
      .map(Number)
      .find((pid) => parentOf(pid) === launcher && commandLine(pid).includes(sign))
    if (found === undefined) throw new Error(`The ${part} is not running.`)
    return found
  }
}

function commandLine(pid: number): string {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8')
  } catch {
    return ''
  }
}

function parentOf(pid: number): number {
  try {
    return Number(/^PPid:\s*(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1])
  } catch {
    return 0
  }
}
