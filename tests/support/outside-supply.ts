import { spawn, type ChildProcessWithoutNullStreams } from 'node:child_process'
import { createInterface, type Interface } from 'node:readline'

/** The bench supply of `supply-process.ts`, seen from a test. */
export class OutsideSupply {
  private constructor(
    private readonly process: ChildProcessWithoutNullStreams,
    private readonly lines: AsyncIterator<string>,
    private readonly reader: Interface,
    readonly port: number,
  ) {}

  static async start(): Promise<OutsideSupply> {
    const child = spawn(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'tests/support/supply-process.ts'], {
      stdio: ['pipe', 'pipe', 'pipe'],
    })
    child.stderr.pipe(process.stderr)
    const reader = createInterface({ input: child.stdout })
    const lines = reader[Symbol.asyncIterator]()
    const first = await lines.next()
    return new OutsideSupply(child, lines, reader, Number(first.value))
  }

  /** Takes the clamps off or puts them on. */
  async say(what: 'clamp' | 'unclamp'): Promise<void> {
    await this.ask(what)
  }

  async isOn(): Promise<boolean> {
    return (await this.ask('on?')) === 'on'
  }

  close(): void {
    this.reader.close()
    this.process.kill()
  }

  private async ask(line: string): Promise<string> {
    this.process.stdin.write(`${line}\n`)
    return String((await this.lines.next()).value)
  }
}
