import { plainCopy } from '~/forms/plain-copy'
import { problemDocument, failedStatus } from '~/stores/problem-sentence'
import { defineStore } from 'pinia'
import { v7 as newId } from 'uuid'
import type { Changes } from '~~/messages/changes'
import type { CommandName, CommandPayload } from '~~/messages/commands'
import { sendingOf, type ChangedFrom } from '~~/messages/sendings'
import type { PhotographSubject } from '~~/messages/photograph-entries'
import type { StationId } from '~~/messages/vocabulary'
import { deliveryOfFailure } from './delivery-of-failure'
import { isStaleCommand, OutboxQueue, type Delivery } from './outbox-queue'
import { browserStorage, type QueuedCommand, type QueuedEntry } from './outbox-storage'
import { postEntry } from './post-entry'

type Listener = (lane: string, changes: Changes) => void

/**
 * Every write goes through here: first into the browser's own database, then to the server, in order within a
 * job, again and again until it is acknowledged. Refused entries stay and can be edited; after a sign-out
 * everything waits for its author.
 */
export const useOutbox = defineStore('outbox', () => {
  const entries = shallowRef<readonly QueuedEntry[]>([])
  const serverAway = ref(false)
  const listeners = new Set<Listener>()
  const session = useSessionStore()

  const queue = new OutboxQueue({
    storage: browserStorage,
    deliver,
    author: () => (session.ranOut ? undefined : session.person?.id),
    pause: (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds)),
    changed() {
      entries.value = queue.entries
    },
    acknowledged(lane, changes) {
      for (const listener of listeners) listener(lane, changes)
    },
  })

  const waiting = computed(() => entries.value.filter((entry) => entry.state === 'waiting'))
  const refused = computed(() => entries.value.filter((entry) => entry.state === 'refused'))
  const stale = computed(() => entries.value.filter(isStaleCommand))

  async function start(): Promise<void> {
    window.addEventListener('online', () => queue.flush())
    await queue.start()
  }

  /**
   * Queues one command; resolves once the browser has kept it. Lane, subject, version and base come from the message.
   *
   * @param from the row it changes, as it was when the change was begun; left out for what is new
   * @param label what it is in the waiting strip, where the message's own word is too wide
   */
  async function send<N extends CommandName, F extends ChangedFrom>(
    name: N,
    payload: CommandPayload<N>,
    from?: F,
    label?: string,
  ): Promise<void> {
    const sending = sendingOf(name, payload, from)
    await queue.put({
      kind: 'command',
      name,
      payload: plainCopy(payload) as Record<string, unknown>,
      ...head(),
      ...plainCopy(sending),
      ...(label ? { label } : {}),
    })
  }

  async function sendPhotograph(
    jobId: string,
    station: StationId,
    bytes: Blob,
    about: PhotographSubject | null = null,
  ): Promise<void> {
    const photographId = newId()
    await queue.put({
      kind: 'photograph',
      photographId,
      station,
      caption: '',
      about: plainCopy(about),
      bytes,
      ...head(),
      lane: jobId,
      subject: `photograph:${photographId}`,
      label: 'photograph',
    })
  }

  function head() {
    const author = session.person
    if (!author) throw new Error('Nobody is signed in.')
    return {
      commandId: newId(),
      capturedAt: new Date().toISOString(),
      authorId: author.id,
      authorName: author.name,
      state: 'waiting' as const,
    }
  }

  async function deliver(entry: QueuedEntry): Promise<Delivery> {
    try {
      const receipt = await postEntry(entry)
      serverAway.value = false
      const version = (receipt.result as { version?: number } | null)?.version
      return { kind: 'done', changes: receipt.changes, ...(version === undefined ? {} : { version }) }
    } catch (error) {
      const delivery = deliveryOfFailure({ status: failedStatus(error), problem: problemDocument(error) }, entry.kind)
      serverAway.value = delivery.kind === 'later' || delivery.kind === 'stumbled'
      if (delivery.kind === 'signed-out') session.ranOut = true
      return delivery
    }
  }

  /** Sends an entry that was set aside once more, as it is. */
  const tryAgain = (entry: QueuedEntry): Promise<void> => queue.sendAgain(entry)

  /** Sends a conflicting entry again with the fields chosen, on top of the row as it stands. */
  function settleConflict(entry: QueuedCommand, fields: Record<string, unknown>, version: number): Promise<void> {
    return queue.sendAgain({
      ...entry,
      commandId: newId(),
      payload: { ...entry.payload, fields },
      expectedVersion: version,
    })
  }

  function onAcknowledged(listener: Listener): () => void {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }

  return {
    entries,
    waiting,
    refused,
    stale,
    serverAway,
    start,
    send,
    sendPhotograph,
    settleConflict,
    tryAgain,
    onAcknowledged,
    flush: () => queue.flush(),
    discard: (sequence: number) => queue.discard(sequence),
  }
})
