import { statSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { backUp } from './back-up'
import { runCommandLine } from './run-command-line'
import { SentenceError } from './sentence-error'
import { shopFolder } from './shop-folder'
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
  if (!file || more.length > 0) throw new SentenceError('Name the file to write: bin/backup FILE')
  await withDatabase(shopFolder(values), { ...values, besideTheShop: true }, (address) =>
    backUp(address, file, new Date()),
  )
  console.log(
    `The whole book is in ${file} (${(statSync(file).size / 1e6).toFixed(1)} MB). Put it back with  bin/restore ${file}`,
  )
})
