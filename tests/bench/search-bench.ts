import { SeededRandom } from '../../bench/casualty/random'
import { Diagnosis } from '../../core/diagnosis/diagnosis'
import type { TestFinding } from '../../core/diagnosis/history'
import { constructionPlans, describeConstruction } from '../../core/knowledge/constructions'
import { diagnosisKnowledge } from '../../core/knowledge/diagnosis-knowledge'

/** What the speed promises of the search come to: `npm run bench:search`. */
const FINDINGS = 12

for (const plan of constructionPlans) {
  const description = describeConstruction(plan.id, plan.power)
  const started = performance.now()
  const diagnosis = new Diagnosis(description, diagnosisKnowledge)
  for (const share of diagnosis.prepare()) void share
  const compiled = performance.now() - started
  const random = new SeededRandom(7)
  const updates: number[] = []
  for (let round = 0; round < 3; round++) {
    const findings: TestFinding[] = []
    for (let count = 0; count < FINDINGS; count++) {
      const { tests } = diagnosis.engine
      const { id, test } = tests[Math.floor(random.next() * tests.length)] as (typeof tests)[number]
      // Mostly what a sound engine gives, now and then not.
      const outcome = random.next() < 0.7 ? test.outcomes[0] : test.outcomes[test.outcomes.length - 1]
      findings.push({ id: String(count), test: id, outcome: outcome?.id ?? '', state: 0 })
      const before = performance.now()
      diagnosis.report({ findings, events: [] })
      updates.push(performance.now() - before)
    }
  }
  updates.sort((first, second) => first - second)
  console.log(`${plan.id}: ${diagnosis.engine.suspects.length} suspects, ${diagnosis.engine.tests.length} tests, ready in ${(compiled / 1000).toFixed(1)} s; one update with up to ${FINDINGS} findings: median ${updates[updates.length >> 1]?.toFixed(0)} ms, worst ${updates.at(-1)?.toFixed(0)} ms; ${Math.round(process.memoryUsage().rss / 1e6)} MB in use`)
}
