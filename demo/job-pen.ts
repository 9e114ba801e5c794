import { v7 as newId } from 'uuid'
import type { MeterRow } from '../messages/book'
import type { CommandName, CommandPayload } from '../messages/commands'
import { runCommand } from '../server/commands/run-command'
import type { Actor } from '../server/commands/write'
import type { Database } from '../server/db/book'
import { keepPhotograph } from '../server/services/photographs'
import { engineTypes, type DemoType } from './engine-types'
import type { DemoEngine } from './engines'

const MINUTE_MS = 60 * 1000
export const DAY_MS = 24 * 60 * MINUTE_MS

/** Runs one command as a screen would send it. */
export async function runDemo<N extends CommandName>(
  database: Database,
  actor: Actor,
  name: N,
  payload: CommandPayload<N>,
  at: Date,
  expectedVersion?: number,
): Promise<{ version?: number }> {
  const receipt = await runCommand(database, actor, name, {
    commandId: newId(),
    capturedAt: at.toISOString(),
    ...(expectedVersion === undefined ? {} : { expectedVersion }),
    payload,
  })
  return receipt.result as { version?: number }
}

/** What everything written into one job shares: whose, which, and the time that passes between two entries. */
export class JobPen {
  readonly jobId = newId()
  readonly type: DemoType

  /** @param clock ms since 1970 of what was written last */
  constructor(
    readonly database: Database,
    readonly actor: Actor,
    readonly engine: DemoEngine,
    readonly meterRows: readonly MeterRow[],
    public clock: number,
  ) {
    this.type = engineTypes.find((type) => type.key === engine.type) as DemoType
  }

  later(minutes: number): Date {
    this.clock += minutes * MINUTE_MS
    return new Date(this.clock)
  }

  /** Some minutes after what was written last. */
  write<N extends CommandName>(
    name: N,
    payload: CommandPayload<N>,
    minutes: number,
    { expectedVersion }: { readonly expectedVersion?: number } = {},
  ): Promise<{ version?: number }> {
    return runDemo(this.database, this.actor, name, payload, this.later(minutes), expectedVersion)
  }

  async photograph(
    fields: Pick<Parameters<typeof keepPhotograph>[3], 'id' | 'station' | 'caption' | 'about'>,
    minutes: number,
    bytes: Parameters<typeof keepPhotograph>[4],
  ): Promise<void> {
    const entry = { ...fields, jobId: this.jobId, takenAt: this.later(minutes) }
    await keepPhotograph(this.database, this.actor, newId(), entry, bytes)
  }
}
