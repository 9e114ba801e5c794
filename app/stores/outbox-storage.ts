import { openDB, type IDBPDatabase } from 'idb'
import type { ProblemDocument } from '~~/messages/problem-document'
import type { CommandName } from '~~/messages/commands'
import type { PhotographSubject } from '~~/messages/photograph-entries'
import type { StationId } from '~~/messages/vocabulary'
import type { OutboxStorage } from './outbox-queue'

interface Queued {
  /** Order of writing; given by the browser's database. */
  sequence: number
  commandId: string
  /** Entries of one lane (a job, or the workshop) go out first in, first out. */
  lane: string
  /** What it changes, so that a chain of edits follows the version the server gives. */
  subject: string
  expectedVersion?: number
  capturedAt: string
  authorId: string
  authorName: string
  /** What it is, in words for the waiting strip. */
  label: string
  state: 'waiting' | 'refused' | 'stale'
  problem?: ProblemDocument
}

export interface QueuedCommand extends Queued {
  kind: 'command'
  name: CommandName
  payload: Record<string, unknown>
  /** The fields as they were before the edit, to tell on a conflict who changed what. */
  base?: Record<string, unknown>
}

export interface QueuedPhotograph extends Queued {
  kind: 'photograph'
  photographId: string
  station: StationId
  caption: string
  /** Left out by an earlier version, and where only the station is known. */
  about?: PhotographSubject | null
  bytes: Blob
}

export type QueuedEntry = QueuedCommand | QueuedPhotograph
export type NewEntry = Omit<QueuedCommand, 'sequence'> | Omit<QueuedPhotograph, 'sequence'>

let opened: Promise<IDBPDatabase> | undefined

function storage(): Promise<IDBPDatabase> {
  opened ??= openDB('echoppe', 1, {
    upgrade(database) {
      database.createObjectStore('outbox', { keyPath: 'sequence', autoIncrement: true })
    },
  })
  return opened
}

const JOTTED = 'echoppe.jotted.'

/**
 * The outbox in the browser's own database; every promise resolves when the browser has it on disk. That takes some
 * milliseconds, in which a page can be left: until then an entry stands in the storage that takes it at once.
 */
export const browserStorage: OutboxStorage = {
  jot(entry) {
    // A photograph is too large for it, and a browser may refuse: then the database has it some milliseconds later.
    if (entry.kind === 'photograph') return
    try {
      localStorage.setItem(JOTTED + entry.commandId, JSON.stringify(entry))
    } catch {
      return
    }
  },
  jotted() {
    // Commands are numbered by the clock: in order of their names they are in order of being made.
    return Object.keys(localStorage)
      .filter((key) => key.startsWith(JOTTED))
      .sort()
      .map((key) => JSON.parse(localStorage.getItem(key) as string) as NewEntry)
  },
  strikeJot(commandId) {
    localStorage.removeItem(JOTTED + commandId)
  },
  async read() {
    return (await storage()).getAll('outbox') as Promise<QueuedEntry[]>
  },
  async add(entry) {
    const sequence = await (await storage()).add('outbox', entry)
    return { ...entry, sequence: sequence as number } as QueuedEntry
  },
  async replace(entry) {
    await (await storage()).put('outbox', entry)
  },
  async remove(sequence) {
    await (await storage()).delete('outbox', sequence)
  },
}
