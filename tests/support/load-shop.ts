import { loadScenario } from '../../demo/load-scenario'
import { databaseAddressFromEnvironment, openBook } from '../../server/db/book'
import { bringUpToDate } from '../../server/db/migrate'
import { openWorkshop } from '../../server/services/open-workshop'

/** Fills a test's database with the contents it is told. */
const [contents = 'empty', password = ''] = process.argv.slice(2)
const book = openBook(databaseAddressFromEnvironment(process.env))
await bringUpToDate(book, 'server/db/migrations')
if (contents === 'scenario') await loadScenario(book.database, { now: new Date(), password })
if (contents === 'workshop')
  await openWorkshop(book.database, { workshopName: 'Test bench', name: 'Maren Tolvik', signInName: 'maren', password })
await book.close()
