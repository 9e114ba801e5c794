import { diagnosisKnowledge } from '../../core/knowledge/diagnosis-knowledge'
import { perturbedKnowledge } from './perturbed-knowledge'
import { diagnosisFor, policies, searchCasualty, searched } from './search-casualty'
import { linesOf, writeLine } from './search-record'
import { report } from './search-report'

/**
 * `npm run searches -- FIRST PER_CONSTRUCTION FILE [perturbed]`: searches casualties in the three ways, adds what came
 * of each to FILE, and prints what they come to. Seeds FILE holds already are not searched again.
 */
const [first, each] = process.argv.slice(2, 4).map(Number)
const [file, manner] = process.argv.slice(4)
if (
  first === undefined ||
  each === undefined ||
  !Number.isInteger(first) ||
  !Number.isInteger(each) ||
  each < 1 ||
  each > 1000 ||
  file === undefined ||
  (manner !== undefined && manner !== 'perturbed')
) {
  console.error(
    'Usage: npm run searches -- FIRST PER_CONSTRUCTION FILE [perturbed], with 1 to 1000 casualties of each construction',
  )
  process.exit(1)
}
const perturbed = manner === 'perturbed'
const key = (seed: number, policy: string): string => `${seed}/${policy}`
const done = new Set(
  linesOf(file)
    .filter((line) => line.perturbed === perturbed)
    .map(({ seed, policy }) => key(seed, policy)),
)
for (const [place, construction] of searched.entries()) {
  const knowledge = perturbed ? perturbedKnowledge(diagnosisKnowledge, first + place) : diagnosisKnowledge
  const diagnosis = diagnosisFor(construction, knowledge, perturbed ? 'perturbed' : 'shipped')
  for (let seed = first + place * 1000; seed < first + place * 1000 + each; seed++) {
    for (const policy of policies) {
      if (done.has(key(seed, policy))) continue
      const outcome = searchCasualty(seed, policy, construction, diagnosis)
      writeLine(file, seed, policy, perturbed, outcome)
      if (policy === 'advice')
        console.log(
          `${construction} ${seed}: ${outcome.truth.map((fault) => `${fault.name} @ ${fault.place.id}`).join(', ')} | missed ${outcome.missed.join(', ') || 'none'} | ${outcome.minutes.toFixed(0)} min, ${outcome.acts} acts, ${outcome.needlessRepairs} needless repairs`,
        )
    }
  }
}
console.log(`\n${report(linesOf(file))}`)
