import { readFileSync } from 'node:fs'
import { reckonFit } from './reckon-fit'

/** The command-line door to the core: prints JSON, one line of advice on standard error when called wrongly. */
const [verb, file, ...rest] = process.argv.slice(2)

if (verb !== 'fit' || !file || rest.length > 0) {
  console.error('Use: bin/reckon fit FILE.csv   (- reads standard input). See docs/formats.md.')
  process.exit(2)
}

let text: string
try {
  text = readFileSync(file === '-' ? 0 : file, 'utf8')
} catch {
  console.error(`${file} cannot be read: is the name right?`)
  process.exit(2)
}
console.log(JSON.stringify(reckonFit(text), null, 2))
