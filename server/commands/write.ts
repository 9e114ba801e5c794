import { and, eq } from 'drizzle-orm'
import type { MySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core'
import type { Role } from '../../messages/vocabulary'
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
  readonly subject:
    | 'person'
    | 'setting'
    | 'meter'
    | 'instrument'
    | 'owner'
    | 'construction'
    | 'engine-type'
    | 'engine'
    | 'component'
    | 'job'
    | 'finding'
    | 'note'
    | 'part'
    | 'sheet'
    | 'reading'
    | 'search'
    | 'strip'
    | 'continuity'
    | 'knowledge'
    | 'photograph'
    | 'timer'
    | 'care'
    | 'shelf'
    | 'parcel'
    | 'running'
  readonly subjectId: string
  readonly jobId?: string
  readonly summary: string
  readonly before?: unknown
  readonly after?: unknown
}

export type IdentifiedTable = MySqlTable & { id: MySqlColumn }
export type VersionedTable = IdentifiedTable & { version: MySqlColumn }
/** What a row hangs on: its job, its engine, its sheet. */
export type Within<T extends MySqlTable> = Partial<T['$inferSelect']>

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

  /**
   * The row, locked until the transaction ends; refuses when it is not there, or not within what it is asked for in:
   * a row of another job is as good as none.
   */
  async lock<T extends IdentifiedTable>(
    table: T,
    id: string,
    what: string,
    within: Within<T> = {},
  ): Promise<T['$inferSelect']> {
    const row = await this.find(table, id)
    if (!row || !liesWithin(row, within)) throw notInTheBook(what)
    return row
  }

  /** For a row that may come later, or never: refuses when it is there, but not within what it is named in. */
  async mustNotLieElsewhere<T extends IdentifiedTable>(
    table: T,
    id: string,
    what: string,
    within: Within<T>,
  ): Promise<void> {
    const row = await this.find(table, id)
    if (row && !liesWithin(row, within)) throw notInTheBook(what)
  }

  /**
   * Makes a new row or changes an existing one. An existing row asks for the version it was changed from; an
   * older one is refused with the row as it stands, one that lies elsewhere as if it were not there.
   *
   * @param within what a new row hangs on, and an existing one must
   * @returns the row before (null when it is new) and its version afterwards
   */
  async save<T extends VersionedTable>(
    table: T,
    id: string,
    what: string,
    fields: Partial<T['$inferInsert']>,
    within: Within<T> = {},
    onlyWhenNew: Partial<T['$inferInsert']> = {},
  ): Promise<{ before: T['$inferSelect'] | null; version: number }> {
    const before = await this.find(table, id)
    if (!before) {
      if (this.expectedVersion) throw notInTheBook(what)
      await this.transaction.insert(table).values({ ...onlyWhenNew, ...fields, ...within, id } as T['$inferInsert'])
      return { before: null, version: 1 }
    }
    if (!liesWithin(before, within)) throw notInTheBook(what)
    const current = (before as { version: number }).version
    if (this.expectedVersion === undefined)
      throw cannotBeWritten(`The version this ${what} was changed from is missing.`, 'expectedVersion')
    if (this.expectedVersion !== current) throw staleWrite(what, before)
    const version = current + 1
    await this.transaction
      .update(table)
      .set({ ...fields, version } as never)
      .where(and(eq(table.id, id), eq(table.version, current)))
    return { before, version }
  }

  private async find<T extends IdentifiedTable>(table: T, id: string): Promise<T['$inferSelect'] | undefined> {
    const rows = await this.transaction
      .select()
      .from(table as MySqlTable)
      .where(eq(table.id, id))
      .for('update')
    return rows[0] as T['$inferSelect'] | undefined
  }
}

function liesWithin(row: object, within: object): boolean {
  return Object.entries(within).every(([column, value]) => (row as Record<string, unknown>)[column] === value)
}
