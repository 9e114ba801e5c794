import { openDB, type IDBPDatabase } from 'idb'
import type { PhoneAim } from '~~/messages/photograph-entries'

/** A picture the phone has taken and the shop has not got yet. */
export interface PhonePicture {
  readonly id: string
  readonly commandId: string
  readonly token: string
  readonly aim: PhoneAim
  readonly takenAt: string
  readonly bytes: Blob
}

let opened: Promise<IDBPDatabase> | undefined
const storage = (): Promise<IDBPDatabase> =>
  (opened ??= openDB('echoppe-phone', 1, {
    upgrade(database) {
      database.createObjectStore('pictures', { keyPath: 'id' })
    },
  }))

/** Kept in the phone's own database until the shop has them: a page that is closed loses none. */
export const phonePictures = {
  all: async (): Promise<PhonePicture[]> => (await (await storage()).getAll('pictures')) as PhonePicture[],
  keep: async (picture: PhonePicture): Promise<void> => void (await (await storage()).put('pictures', picture)),
  remove: async (id: string): Promise<void> => (await storage()).delete('pictures', id),
}
