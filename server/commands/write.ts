import { and, eq } from 'drizzle-orm'
import type { MySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core'
import type { Role } from '../../shared/vocabulary'
import type { Transaction } from '../db/book'
import { cannotBeWritten, notInTheBook, staleWrite } from '../problems'

/** Who writes. */
export interface Actor {
  readonly id: string
  readonly name: string
  readonly role: Role
}

/** One line for the journal: which subject, in words, and its row before and after. */
export interface JournalEntry {
  readonly subject: 'person' | 'setting' | 'meter' | 'instrument' | 'owner' | 'construction' | 'engine-type' | 'engine' | 'component' | 'job' | 'finding' | 'note' | 'part' | 'sheet' | 'reading' | 'search' | 'continuity' | 'knowledge' | 'photograph'
  readonly subjectId: string
  readonly jobId?: string
  readonly summary: string
  readonly before?: unknown
  readonly after?: unknown
}

export type VersionedTable = MySqlTable & { id: MySqlColumn; version: MySqlColumn }

/** What a command's handler works with: one transaction, the author, and the journal of that transaction. */
export class Write {
  readonly entries: JournalEntry[] = []

  constructor(
    readonly transaction: Transaction,
    readonly actor: Actor,
    readonly capturedAt: Date,
    readonly receivedAt: Date,
    readonly expectedVersion: number | undefined,
  ) {}

  journal(entry: JournalEntry): void {
    this.entries.push(entry)
  }

  /** The row, locked until the transaction ends; refuses when it is not there. */
  async lock<T extends VersionedTable>(table: T, id: string, what: string): Promise<T['$inferSelect']> {
    const row = await this.find(table, id)
    if (!row) throw notInTheBook(what)
    return row
  }

  /**
   * Makes a new row or changes an existing one. An existing row asks for the version it was changed from; an
   * older one is refused with the row as it stands.
   *
   * @returns the row before (null when it is new) and its version afterwards
   */
  async save<T extends VersionedTable>(
    table: T,
    id: string,
    what: string,
    fields: Partial<T['$inferInsert']>,
    onlyWhenNew: Partial<T['$inferInsert']> = {},
  ): Promise<{ before: T['$inferSelect'] | null; version: number }> {
    const before = await this.find(table, id)
    if (!before) {
      if (this.expectedVersion) throw notInTheBook(what)
      await this.transaction.insert(table).values({ ...onlyWhenNew, ...fields, id } as T['$inferInsert'])
      return { before: null, version: 1 }
    }
    const current = (before as { version: number }).version
    if (this.expectedVersion === undefined) throw cannotBeWritten(`The version this ${what} was changed from is missing.`, 'expectedVersion')
    if (this.expectedVersion !== current) throw staleWrite(what, before)
    const version = current + 1
    await this.transaction.update(table).set({ ...fields, version } as never).where(and(eq(table.id, id), eq(table.version, current)))
    return { before, version }
  }

  private async find<T extends VersionedTable>(table: T, id: string): Promise<T['$inferSelect'] | undefined> {
    const rows = await this.transaction.select().from(table as MySqlTable).where(eq(table.id, id)).for('update')
    return rows[0] as T['$inferSelect'] | undefined
  }
}
