import { diagnosisKnowledge } from '../../core/knowledge/diagnosis-knowledge'
import { perturbedKnowledge } from './perturbed-knowledge'
import { diagnosisFor, policies, searchCasualty, searched } from './search-casualty'
import { linesOf, writeLine } from './search-record'
import { report } from './search-report'

/**
 * `npm run searches -- FIRST PER_CONSTRUCTION FILE [perturbed] [advice-alone]`: searches casualties in the three ways, or
 * as advised alone, adds what came of each to FILE, and prints what they come to. Seeds FILE holds already are not
 * searched again. One of each machine, then the next of each: a run that is broken off has seen them all alike.
 */
const [first, each] = process.argv.slice(2, 4).map(Number)
const [file, ...manner] = process.argv.slice(4)
if (
  first === undefined ||
  each === undefined ||
  !Number.isInteger(first) ||
  !Number.isInteger(each) ||
  each < 1 ||
  each > 1000 ||
  file === undefined ||
  manner.some((word) => word !== 'perturbed' && word !== 'advice-alone')
) {
  console.error(
    'Usage: npm run searches -- FIRST PER_CONSTRUCTION FILE [perturbed] [advice-alone], with 1 to 1000 casualties of each construction',
  )
  process.exit(1)
}
const perturbed = manner.includes('perturbed')
const asked = manner.includes('advice-alone') ? (['advice'] as const) : policies
const key = (seed: number, policy: string): string => `${seed}/${policy}`
const done = new Set(
  linesOf(file)
    .filter((line) => line.perturbed === perturbed)
    .map(({ seed, policy }) => key(seed, policy)),
)
const machines = searched.map((construction, place) => ({
  construction,
  from: first + place * 1000,
  diagnosis: diagnosisFor(
    construction,
    perturbed ? perturbedKnowledge(diagnosisKnowledge, first + place) : diagnosisKnowledge,
    perturbed ? 'perturbed' : 'shipped',
  ),
}))
for (let round = 0; round < each; round++)
  for (const { construction, from, diagnosis } of machines)
    for (const policy of asked) {
      const seed = from + round
      if (done.has(key(seed, policy))) continue
      const outcome = searchCasualty(seed, policy, construction, diagnosis)
      writeLine(file, seed, policy, perturbed, outcome)
      if (policy === 'advice')
        console.log(
          `${construction} ${seed}: ${outcome.truth.map((fault) => `${fault.name} @ ${fault.place.id}`).join(', ')} | missed ${outcome.missed.join(', ') || 'none'} | ${outcome.minutes.toFixed(0)} min, ${outcome.acts} acts, ${outcome.needlessRepairs} needless repairs`,
        )
    }
console.log(`\n${report(linesOf(file))}`)
