import type { Changes } from '~~/messages/changes'
import type { ProblemDocument } from '~~/messages/problem-document'
import type { NewEntry, QueuedCommand, QueuedEntry } from './outbox-storage'

/** Where entries are kept until the server has them. */
export interface OutboxStorage {
  /** Jots an entry down in the very instant, so that a page that is left within the key loses nothing. */
  jot(entry: NewEntry): void
  /** What was jotted down and never came further, oldest first. */
  jotted(): NewEntry[]
  /** It has come further. */
  strikeJot(commandId: string): void
  read(): Promise<QueuedEntry[]>
  add(entry: NewEntry): Promise<QueuedEntry>
  replace(entry: QueuedEntry): Promise<void>
  remove(sequence: number): Promise<void>
}

/** What became of one attempt to send an entry. */
export type Delivery =
  | { readonly kind: 'done'; readonly version?: number; readonly changes?: Changes }
  | { readonly kind: 'later' }
  /** The server failed over this very entry, which it may do each time. */
  | { readonly kind: 'stumbled'; readonly problem: ProblemDocument }
  | { readonly kind: 'signed-out' }
  | { readonly kind: 'set-aside'; readonly state: 'refused' | 'stale'; readonly problem: ProblemDocument }

interface Surroundings {
  storage: OutboxStorage
  deliver(entry: QueuedEntry): Promise<Delivery>
  /** Whose entries may go out now; undefined while nobody is signed in. */
  author(): string | undefined
  pause(milliseconds: number): Promise<void>
  /** Called after every change of `entries`. */
  changed(): void
  /** What the server made of an entry, in the same moment in which it leaves `entries`; nothing where one was thrown away. */
  acknowledged(lane: string, changes: Changes): void
}

const FIRST_PAUSE_MS = 1000
const LONGEST_PAUSE_MS = 8000
/** Then the entry is set aside and what waits behind it goes on. */
const MOST_STUMBLES = 4

/**
 * The queue of writes of one browser: each entry is kept in storage before anything else, goes out first in,
 * first out within its lane, again and again until it is acknowledged or set aside, and only for its author.
 *
 * Every change of `entries` reads them anew after the last await: two things that wait for the storage at the
 * same time must not write each other's lists.
 */
export class OutboxQueue {
  entries: readonly QueuedEntry[] = []
  private latestPut: Promise<void> = Promise.resolve()
  private readonly busyLanes = new Set<string>()
  /** What was made on this page: it jots and keeps it itself. */
  private readonly ours = new Set<string>()
  /** Which version our own edit of a subject led to, by the version it was made on. */
  private readonly followers = new Map<string, number>()

  constructor(private readonly around: Surroundings) {}

  async start(): Promise<void> {
    const { storage } = this.around
    const jotted = storage.jotted().filter(({ commandId }) => !this.ours.has(commandId))
    const kept = await storage.read()
    for (const entry of jotted) {
      if (!kept.some(({ commandId }) => commandId === entry.commandId)) kept.push(await storage.add(entry))
      storage.strikeJot(entry.commandId)
    }
    this.setEntries([
      ...kept,
      ...this.entries.filter((entry) => !kept.some((other) => other.sequence === entry.sequence)),
    ])
    this.flush()
  }

  /** Keeps an entry; resolves once the storage has it. One after the other: the order of calls is the order of sending. */
  put(entry: NewEntry): Promise<void> {
    this.ours.add(entry.commandId)
    this.around.storage.jot(entry)
    const kept = this.latestPut.then(async () => {
      const row = await this.around.storage.add(this.onTopOfOurs(entry))
      this.around.storage.strikeJot(entry.commandId)
      this.setEntries([...this.entries, row])
      this.flush()
    })
    this.latestPut = kept.catch(() => {})
    return kept
  }

  /** Starts sending in every lane that has something to send. */
  flush(): void {
    for (const lane of new Set(this.entries.map((entry) => entry.lane))) {
      if (!this.busyLanes.has(lane) && this.nextOf(lane)) void this.runLane(lane)
    }
  }

  /** Drops an entry for good; only ever at somebody's word. */
  async discard(sequence: number): Promise<void> {
    const entry = this.entries.find((other) => other.sequence === sequence)
    await this.around.storage.remove(sequence)
    this.setEntries(this.entries.filter((other) => other.sequence !== sequence))
    if (entry) this.around.acknowledged(entry.lane, {})
    this.flush()
  }

  /** Puts an entry that was set aside back into the queue, in its old place. */
  async sendAgain(entry: QueuedEntry): Promise<void> {
    const { problem: _settled, ...rest } = entry
    await this.replace({ ...rest, state: 'waiting' } as QueuedEntry)
    this.flush()
  }

  private async runLane(lane: string): Promise<void> {
    this.busyLanes.add(lane)
    let pause = FIRST_PAUSE_MS
    let stumbles = 0
    try {
      for (let entry = this.nextOf(lane); entry; entry = this.nextOf(lane)) {
        const outcome = await this.around.deliver(entry)
        if (outcome.kind === 'signed-out') return
        if (outcome.kind === 'stumbled') stumbles += 1
        if (outcome.kind === 'later' || (outcome.kind === 'stumbled' && stumbles < MOST_STUMBLES)) {
          await this.around.pause(pause)
          pause = Math.min(pause * 2, LONGEST_PAUSE_MS)
          continue
        }
        pause = FIRST_PAUSE_MS
        stumbles = 0
        if (outcome.kind === 'done') await this.acknowledge(entry, outcome)
        else
          await this.replace({
            ...entry,
            state: outcome.kind === 'stumbled' ? 'refused' : outcome.state,
            problem: outcome.problem,
          })
      }
    } finally {
      this.busyLanes.delete(lane)
    }
  }

  /** The first entry of a lane that may go: its author is signed in and no conflict stands before it. */
  private nextOf(lane: string): QueuedEntry | undefined {
    const author = this.around.author()
    const first = this.entries.find((entry) => entry.lane === lane && entry.state !== 'refused')
    return first && first.state === 'waiting' && author !== undefined && first.authorId === author ? first : undefined
  }

  private async acknowledge(
    entry: QueuedEntry,
    { version, changes = {} }: Extract<Delivery, { kind: 'done' }>,
  ): Promise<void> {
    // What is made here stands at version 0 on the screen until the server has given it one.
    const from = entry.expectedVersion ?? 0
    if (version !== undefined && version > from) this.followers.set(`${entry.subject}@${from}`, version)
    // What follows is kept with its new version before the acknowledged entry goes: only storage outlives a reload.
    await this.latestPut
    for (const other of this.entries) {
      const follows = other.subject === entry.subject && other.state === 'waiting' && other.sequence !== entry.sequence
      const moved = follows ? this.onTopOfOurs(other) : other
      if (moved !== other) await this.replace(moved)
    }
    await this.around.storage.remove(entry.sequence)
    this.around.acknowledged(entry.lane, changes)
    this.setEntries(this.entries.filter((other) => other.sequence !== entry.sequence))
  }

  /** An edit begun before our own earlier edit of the same subject was acknowledged follows the version that one gave. */
  private onTopOfOurs<E extends NewEntry | QueuedEntry>(entry: E): E {
    let version = entry.expectedVersion
    for (let next = version; next !== undefined; next = this.followers.get(`${entry.subject}@${next}`)) version = next
    return version === entry.expectedVersion || version === undefined ? entry : { ...entry, expectedVersion: version }
  }

  private async replace(entry: QueuedEntry): Promise<void> {
    await this.around.storage.replace(entry)
    this.setEntries(this.entries.map((other) => (other.sequence === entry.sequence ? entry : other)))
  }

  private setEntries(entries: readonly QueuedEntry[]): void {
    this.entries = [...entries].sort((first, second) => first.sequence - second.sequence)
    this.around.changed()
  }
}

/** Narrows to commands, which alone can be in conflict. */
export function isStaleCommand(entry: QueuedEntry): entry is QueuedCommand {
  return entry.state === 'stale' && entry.kind === 'command'
}
