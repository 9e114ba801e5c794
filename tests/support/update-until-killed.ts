import type { DatabaseAddress } from '../../server/db/book'
import { updateBook } from '../../launcher/update-book'
import { MIGRATIONS } from './older-migrations'

/** Brings a book up to date, in a process of its own that a test kills: says when it begins. */
const [address = '', dumps = ''] = process.argv.slice(2)
console.log('begins')
await updateBook(JSON.parse(address) as DatabaseAddress, {
  migrations: MIGRATIONS,
  dumps,
  now: new Date(),
  say: () => {},
})
