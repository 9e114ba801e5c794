import type { Changes } from '~~/messages/changes'
import type { QueuedEntry } from './outbox-storage'

/** What the server says of a write it took. */
export interface Receipt {
  readonly result: unknown
  readonly changes: Changes
}

/** Sends one entry of the outbox as it stands, once. */
export function postEntry(entry: QueuedEntry): Promise<Receipt> {
  if (entry.kind === 'photograph') {
    const query = {
      jobId: entry.lane,
      commandId: entry.commandId,
      station: entry.station,
      caption: entry.caption,
      takenAt: entry.capturedAt,
      ...(entry.about ? { about: JSON.stringify(entry.about) } : {}),
    }
    return $fetch<Receipt, string>(`/api/photographs/${entry.photographId}`, {
      method: 'PUT',
      query,
      body: entry.bytes,
      headers: { 'content-type': 'application/octet-stream' },
      retry: 0,
    })
  }
  const { commandId, capturedAt, expectedVersion, payload } = entry
  return $fetch<Receipt, string>(`/api/commands/${entry.name}`, {
    method: 'POST',
    body: { commandId, capturedAt, ...(expectedVersion === undefined ? {} : { expectedVersion }), payload },
    retry: 0,
  })
}
