import { sql } from 'drizzle-orm'
import { v7 as newId } from 'uuid'
import { afterAll, beforeAll, beforeEach, inject } from 'vitest'
import { openBook, type Book } from '../../server/db/book'
import type { Actor } from '../../server/commands/write'
import { runCommand, type CommandReceipt } from '../../server/commands/run-command'
import { openWorkshop } from '../../server/services/open-workshop'
import { emptyEngineType, someJob } from './some-entries'
import type { CommandName, CommandPayload } from '../../messages/commands'

export function openTestBook(): Book {
  return openBook(inject('databaseAddress'))
}

const TABLES = [
  'learned',
  'strip_entry',
  'continuity_reading',
  'search_reckoning',
  'search_entry',
  'reading',
  'sheet',
  'finding',
  'note',
  'part_wanted',
  'calendar_feed',
  'running_entry',
  'shelf_product',
  'care_entry',
  'phone_access',
  'timer',
  'photograph_block',
  'photograph',
  'job',
  'parcel',
  'component',
  'engine',
  'type_knowledge',
  'engine_type',
  'construction_template',
  'owner',
  'meter',
  'instrument',
  'setting',
  'journal',
  'session',
  'person',
  'counter',
  'sign_in_try',
]

/** Empties the book and opens the workshop anew. */
export async function freshWorkshop(book: Book): Promise<Actor> {
  for (const table of TABLES) await book.database.execute(sql.raw(`delete from ${table}`))
  return openWorkshop(book.database, {
    workshopName: 'Test bench',
    name: 'Maren Tolvik',
    signInName: 'maren',
    password: 'harbour-festival',
  })
}

/** Opens the book for a file of tests, empties it before each of them, and closes it at the end. */
export function useTestBook(): { readonly book: Book; readonly maren: Actor } {
  let book: Book
  let maren: Actor
  beforeAll(() => {
    book = openTestBook()
  })
  afterAll(() => book.close())
  beforeEach(async () => {
    maren = await freshWorkshop(book)
  })
  return {
    get book() {
      return book
    },
    get maren() {
      return maren
    },
  }
}

export interface SendOptions {
  commandId?: string
  expectedVersion?: number
  capturedAt?: string
}

/** Sends one command as the browser would. */
export function send<N extends CommandName>(
  book: Book,
  actor: Actor,
  name: N,
  payload: CommandPayload<N>,
  options: SendOptions = {},
): Promise<CommandReceipt> {
  const { commandId = newId(), expectedVersion, capturedAt = new Date().toISOString() } = options
  return runCommand(book.database, actor, name, {
    commandId,
    capturedAt,
    ...(expectedVersion === undefined ? {} : { expectedVersion }),
    payload,
  })
}

/** An owner, a type, an engine and a job, taken in together. */
export async function takeInSomething(
  book: Book,
  actor: Actor,
  complaint = 'Stops on the turnout',
  existingTypeId: string | null = null,
): Promise<{ jobId: string; engineId: string; ownerId: string; typeId: string; number: number }> {
  const ids = { jobId: newId(), engineId: newId(), ownerId: newId(), typeId: existingTypeId ?? newId() }
  const receipt = await send(book, actor, 'job.take-in', {
    jobId: ids.jobId,
    owner: {
      made: {
        id: ids.ownerId,
        fields: { name: 'Ines Carvalhal', email: '', phone: '', address: '', notes: '', isShop: false },
      },
    },
    type: existingTypeId ? { existing: existingTypeId } : { made: { id: ids.typeId, fields: emptyEngineType } },
    engine: {
      made: {
        id: ids.engineId,
        fields: {
          nickname: 'Orrin Seven',
          runningNumber: '7',
          marks: '',
          condition: '',
          history: '',
          differences: '',
          units: [{ id: newId(), name: 'Locomotive', powered: true, marks: '' }],
        },
      },
    },
    job: { ...someJob, complaint },
  })
  return { ...ids, number: (receipt.result as { number: number }).number }
}
