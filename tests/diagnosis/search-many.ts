import { diagnosisKnowledge } from '../../core/knowledge/diagnosis-knowledge'
import { perturbedKnowledge } from './perturbed-knowledge'
import { diagnosisFor, policies, searchCasualty, searched, type Policy, type SearchOutcome } from './search-casualty'
import { bootstrapped, foundShare, foundShareOf, meanMinutes, minutesRatio, reliability, type Interval } from './search-summary'

/** `npm run searches -- FIRST PER_CONSTRUCTION [perturbed]`: prints what the three ways of searching come to. */
const [first = 50_001, each = 8] = process.argv.slice(2, 4).map(Number)
const perturbed = process.argv[4] === 'perturbed'
const outcomes = new Map<Policy, SearchOutcome[]>(policies.map((policy) => [policy, []]))
for (const [place, construction] of searched.entries()) {
  const knowledge = perturbed ? perturbedKnowledge(diagnosisKnowledge, first + place) : diagnosisKnowledge
  const diagnosis = diagnosisFor(construction, knowledge, perturbed ? 'perturbed' : 'shipped')
  for (let count = 0; count < each; count++) {
    const seed = first + place * 1000 + count
    for (const policy of policies) {
      const outcome = searchCasualty(seed, policy, construction, diagnosis)
      outcomes.get(policy)?.push(outcome)
      if (policy === 'advice') console.log(`${construction} ${seed}: ${outcome.truth.map((fault) => `${fault.name} @ ${fault.place.id}`).join(', ')} | missed ${outcome.missed.join(', ') || 'none'} | ${outcome.minutes.toFixed(0)} min, ${outcome.tests} tests, ${outcome.needlessRepairs} needless repairs`)
    }
  }
}
const of = (policy: Policy): SearchOutcome[] => outcomes.get(policy) as SearchOutcome[]
const say = ({ value, low, high }: Interval, digits: number): string => `${value.toFixed(digits)} (${low.toFixed(digits)} to ${high.toFixed(digits)})`
const count = of('advice').length
console.log(`\n${count} casualties, seeds from ${first}${perturbed ? ', knowledge perturbed' : ''}; means with 95 % bootstrap intervals`)
for (const policy of policies) {
  const list = of(policy)
  const updates = list.flatMap((outcome) => outcome.updateMilliseconds).sort((one, other) => one - other)
  console.log(`${policy}: found ${say(bootstrapped(count, foundShare(list)), 3)}, minutes ${say(bootstrapped(count, meanMinutes(list)), 1)}, last fault on top ${(list.filter((outcome) => outcome.lastOnTop).length / count).toFixed(3)}, needless repairs ${(list.reduce((sum, outcome) => sum + outcome.needlessRepairs, 0) / count).toFixed(2)}, update median ${updates[updates.length >> 1]?.toFixed(0)} ms`)
}
const advised = of('advice')
console.log(`advice, found of what is always there: ${say(bootstrapped(count, foundShareOf(advised, false)), 3)}; of what comes and goes: ${say(bootstrapped(count, foundShareOf(advised, true)), 3)}`)
console.log(`minutes against the checklist: ${say(bootstrapped(count, minutesRatio(of('advice'), of('checklist'))), 2)}`)
console.log(`minutes against most probable first: ${say(bootstrapped(count, minutesRatio(of('advice'), of('most-probable-first'))), 2)}`)
console.log('believed → so:', reliability(of('advice')).map(({ believed, so, count: beliefs }) => `${believed.toFixed(2)} → ${so.toFixed(2)} (${beliefs})`).join(', '))
