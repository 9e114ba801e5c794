import { readFileSync } from 'node:fs'
import { reckonFit } from './reckon-fit'
import { listCare, reckonCard } from './reckon-card'
import { listFor, listKnowledge, reckonFind } from './reckon-find'
import { listGoals, reckonStrip } from './reckon-strip'
import { SentenceError } from './sentence-error'

/** The command-line door to the core: prints JSON; one sentence on standard error when something is wrong. */
const USE = `Use: bin/reckon fit FILE.csv                          judge a voltage sweep
     bin/reckon find FILE.json                        what is wrong, and which test is next
     bin/reckon find --list [CONSTRUCTION [dc|ac|dcc]]   ids of faults, tests and outcomes
     bin/reckon strip FILE.json                       the way in, and the way back
     bin/reckon strip --list CONSTRUCTION [dc|ac|dcc]    what it can be opened for
     bin/reckon card FILE.json                        what cleans it, what is oiled, what never
     bin/reckon card --list [CONSTRUCTION [dc|ac|dcc]]   soils, agents, tools, products, schools
     (- reads standard input.) See docs/formats.md.`

function stop(sentence: string): never {
  console.error(sentence)
  process.exit(2)
}

function read(file: string): string {
  try {
    return readFileSync(file === '-' ? 0 : file, 'utf8')
  } catch {
    return stop(`${file} cannot be read: is the name right?`)
  }
}

function reckon([verb, first, ...rest]: readonly string[]): unknown {
  if (verb === 'fit' && first && rest.length === 0) return reckonFit(read(first))
  if (verb === 'find' && first === '--list') {
    const [construction, power = 'dc', ...more] = rest
    if (more.length > 0 || !['dc', 'ac', 'dcc'].includes(power)) stop(USE)
    return construction ? listFor(construction, power as 'dc' | 'ac' | 'dcc') : listKnowledge()
  }
  if (verb === 'find' && first && rest.length === 0) return reckonFind(read(first))
  if (verb === 'strip' && first === '--list') {
    const [construction, power = 'dc', ...more] = rest
    if (!construction || more.length > 0 || !['dc', 'ac', 'dcc'].includes(power)) stop(USE)
    return listGoals(construction as string, power as 'dc' | 'ac' | 'dcc')
  }
  if (verb === 'strip' && first && rest.length === 0) return reckonStrip(read(first))
  if (verb === 'card' && first === '--list') {
    const [construction, power = 'dc', ...more] = rest
    if (more.length > 0 || !['dc', 'ac', 'dcc'].includes(power)) stop(USE)
    return listCare(construction, power as 'dc' | 'ac' | 'dcc')
  }
  if (verb === 'card' && first && rest.length === 0) return reckonCard(read(first))
  return stop(USE)
}

try {
  console.log(JSON.stringify(reckon(process.argv.slice(2)), null, 2))
} catch (error) {
  if (error instanceof SentenceError) stop(error.message)
  throw error
}
