import { parcel } from '../db/schema'
import { cannotBeWritten } from '../problems'
import type { Write } from './write'

/** Refuses a job that is said to have come in another owner’s parcel. */
export async function lockParcelOf(write: Write, parcelId: string | null | undefined, ownerId: string): Promise<void> {
  if (!parcelId) return
  const row = await write.lock(parcel, parcelId, 'parcel')
  if (row.ownerId !== ownerId)
    throw cannotBeWritten(
      'The engine and the parcel it is said to have come in belong to different owners.',
      'parcelId',
    )
}
