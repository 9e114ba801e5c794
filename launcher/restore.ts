import { parseArgs } from 'node:util'
import { resolve } from 'node:path'
import { putBack } from './put-back'
import { runCommandLine } from './run-command-line'
import { SentenceError } from './sentence-error'
import { dumpsFolder, shopFolder } from './shop-folder'
import { withDatabase } from './use-database'

const DATABASE = {
  database: { type: 'string' },
  'database-password-file': { type: 'string' },
  'database-ca': { type: 'string' },
} as const

runCommandLine(async () => {
  const {
    values,
    positionals: [file, ...more],
  } = parseArgs({
    allowPositionals: true,
    options: { demo: { type: 'boolean' }, folder: { type: 'string' }, ...DATABASE },
  })
  if (!file || more.length > 0) throw new SentenceError('Name the file to put back: bin/restore FILE')
  const folder = shopFolder(values)
  await withDatabase(folder, { ...values, besideTheShop: false }, (address) =>
    putBack(address, resolve(file), { dumps: dumpsFolder(folder), now: new Date(), say: console.log }),
  )
  console.log(`The book is as it was in ${file}, every row compared. Everybody signs in anew.`)
})
