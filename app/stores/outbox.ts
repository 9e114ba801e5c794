import { defineStore } from 'pinia'
import { v7 as newId } from 'uuid'
import type { CommandName, CommandPayload } from '~~/shared/messages/commands'
import type { StationId } from '~~/shared/vocabulary'
import { addToOutbox, readOutbox, removeFromOutbox, replaceInOutbox, type NewEntry, type QueuedCommand, type QueuedEntry } from './outbox-storage'

const FIRST_PAUSE_MS = 1000
const LONGEST_PAUSE_MS = 8000
export const WORKSHOP_LANE = 'workshop'

interface SendOptions {
  lane: string
  subject: string
  label: string
  expectedVersion?: number
  base?: object
}

/**
 * Every write goes through here: first into the browser's own database, then to the server, in order within a
 * job, again and again until it is acknowledged. Refused entries stay and can be edited; after a sign-out
 * everything waits for its author.
 */
export const useOutbox = defineStore('outbox', () => {
  const entries = shallowRef<QueuedEntry[]>([])
  /** Acknowledged but not yet seen in a fresh reading of the book; keeps the screen from flickering. */
  const acknowledged = shallowRef<QueuedEntry[]>([])
  const serverAway = ref(false)
  const listeners = new Set<(lane: string) => void>()
  const busyLanes = new Set<string>()
  const session = useSessionStore()

  const waiting = computed(() => entries.value.filter((entry) => entry.state === 'waiting'))
  const refused = computed(() => entries.value.filter((entry) => entry.state === 'refused'))
  const stale = computed(() => entries.value.filter((entry): entry is QueuedCommand => entry.state === 'stale' && entry.kind === 'command'))

  async function start(): Promise<void> {
    entries.value = await readOutbox()
    window.addEventListener('online', flush)
    flush()
  }

  /** Queues one command; resolves once the browser has kept it. */
  async function send<N extends CommandName>(name: N, payload: CommandPayload<N>, options: SendOptions): Promise<void> {
    await put({ kind: 'command', name, payload: plainCopy(payload) as Record<string, unknown>, ...head(options), ...(options.base ? { base: plainCopy(options.base) as Record<string, unknown> } : {}) })
  }

  async function sendPhotograph(jobId: string, station: StationId, caption: string, bytes: Blob): Promise<void> {
    const photographId = newId()
    await put({ kind: 'photograph', photographId, station, caption, bytes, ...head({ lane: jobId, subject: `photograph:${photographId}`, label: 'photograph' }) })
  }

  function head({ lane, subject, label, expectedVersion }: SendOptions) {
    const author = session.person
    if (!author) throw new Error('Nobody is signed in.')
    return {
      commandId: newId(), lane, subject, label, capturedAt: new Date().toISOString(), authorId: author.id, authorName: author.name, state: 'waiting' as const,
      ...(expectedVersion === undefined ? {} : { expectedVersion }),
    }
  }

  async function put(entry: NewEntry): Promise<void> {
    entries.value = [...entries.value, await addToOutbox(entry)]
    flush()
  }

  /** Starts sending in every lane that has something to send. */
  function flush(): void {
    for (const lane of new Set(waiting.value.map((entry) => entry.lane))) if (!busyLanes.has(lane)) void runLane(lane)
  }

  async function runLane(lane: string): Promise<void> {
    busyLanes.add(lane)
    let pause = FIRST_PAUSE_MS
    try {
      for (;;) {
        const entry = nextOf(lane)
        if (!entry) return
        const outcome = await deliver(entry)
        if (outcome === 'later') {
          await new Promise((resolve) => setTimeout(resolve, pause))
          pause = Math.min(pause * 2, LONGEST_PAUSE_MS)
        } else if (outcome === 'signed-out') {
          return
        } else {
          pause = FIRST_PAUSE_MS
        }
      }
    } finally {
      busyLanes.delete(lane)
    }
  }

  /** The first entry of a lane that may go: its author is signed in and no conflict stands before it. */
  function nextOf(lane: string): QueuedEntry | undefined {
    const author = session.person
    if (!author || session.ranOut) return undefined
    const inLane = entries.value.filter((entry) => entry.lane === lane && entry.state !== 'refused')
    const first = inLane[0]
    return first && first.state === 'waiting' && first.authorId === author.id ? first : undefined
  }

  async function deliver(entry: QueuedEntry): Promise<'done' | 'later' | 'signed-out' | 'set-aside'> {
    try {
      const receipt = await post(entry)
      serverAway.value = false
      await acknowledge(entry, (receipt.result as { version?: number } | null)?.version)
      return 'done'
    } catch (error) {
      const problem = problemDocument(error)
      if (!problem || problem.status >= 500 || problem.status === 429) {
        serverAway.value = true
        return 'later'
      }
      serverAway.value = false
      if (problem.status === 401) {
        session.ranOut = true
        return 'signed-out'
      }
      await replace({ ...entry, state: problem.status === 409 ? 'stale' : 'refused', problem })
      return 'set-aside'
    }
  }

  function post(entry: QueuedEntry): Promise<{ result: unknown }> {
    if (entry.kind === 'photograph') {
      const query = { jobId: entry.lane, commandId: entry.commandId, station: entry.station, caption: entry.caption, takenAt: entry.capturedAt }
      return $fetch(`/api/photographs/${entry.photographId}`, { method: 'PUT', query, body: entry.bytes, headers: { 'content-type': 'application/octet-stream' }, retry: 0 })
    }
    const { commandId, capturedAt, expectedVersion, payload } = entry
    return $fetch(`/api/commands/${entry.name}`, { method: 'POST', body: { commandId, capturedAt, ...(expectedVersion === undefined ? {} : { expectedVersion }), payload }, retry: 0 })
  }

  async function acknowledge(entry: QueuedEntry, version: number | undefined): Promise<void> {
    await removeFromOutbox(entry.sequence)
    acknowledged.value = [...acknowledged.value, entry]
    const rest = entries.value.filter((other) => other.sequence !== entry.sequence)
    // Later edits of the same subject were made on top of this one: they follow its new version.
    for (const [index, other] of rest.entries()) {
      if (version === undefined || other.subject !== entry.subject || other.expectedVersion === undefined) continue
      rest[index] = { ...other, expectedVersion: version }
      await replaceInOutbox(rest[index])
    }
    entries.value = rest
    for (const listener of listeners) listener(entry.lane)
  }

  async function replace(entry: QueuedEntry): Promise<void> {
    await replaceInOutbox(entry)
    entries.value = entries.value.map((other) => (other.sequence === entry.sequence ? entry : other))
  }

  /** Drops an entry for good; only ever at somebody's word. */
  async function discard(sequence: number): Promise<void> {
    const entry = entries.value.find((other) => other.sequence === sequence)
    await removeFromOutbox(sequence)
    entries.value = entries.value.filter((other) => other.sequence !== sequence)
    if (entry) for (const listener of listeners) listener(entry.lane)
    flush()
  }

  /** Sends a conflicting entry again with the fields chosen, on top of the row as it stands. */
  async function settleConflict(entry: QueuedCommand, fields: Record<string, unknown>, version: number): Promise<void> {
    const { problem: _settled, ...rest } = entry
    await replace({ ...rest, commandId: newId(), payload: { ...entry.payload, fields }, expectedVersion: version, state: 'waiting' })
    flush()
  }

  function onAcknowledged(listener: (lane: string) => void): () => void {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }

  /** Called after a fresh reading: what was acknowledged before it began is in the book now. */
  function forgetAcknowledged(before: readonly QueuedEntry[]): void {
    acknowledged.value = acknowledged.value.filter((entry) => !before.includes(entry))
  }

  return { entries, acknowledged, waiting, refused, stale, serverAway, start, flush, send, sendPhotograph, discard, settleConflict, onAcknowledged, forgetAcknowledged }
})
