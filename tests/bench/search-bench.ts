import { SeededRandom } from '../../bench/casualty/random'
import { Diagnosis } from '../../core/diagnosis/diagnosis'
import type { TestFinding } from '../../core/diagnosis/history'
import { constructionPlans, describeConstruction } from '../../core/knowledge/constructions'
import { diagnosisKnowledge } from '../../core/knowledge/diagnosis-knowledge'

/**
 * What the speed promises of the search come to: `npm run bench:search`. Once as if somebody answered without taking a
 * breath, and once as at the bench, where the first test leaves time to solve the rest of the circuits.
 */
const FINDINGS = 12
const ROUNDS = 3

for (const plan of constructionPlans) {
  const description = describeConstruction(plan.id, plan.power)
  const inOneBreath = new Diagnosis(description, diagnosisKnowledge)
  const ready = timed(() => drain(inOneBreath.prepare()))
  const atOnce = updates(inOneBreath)
  const diagnosis = new Diagnosis(description, diagnosisKnowledge)
  drain(diagnosis.prepare())
  const ahead = timed(() => drain(diagnosis.prepareAhead()))
  const later = updates(diagnosis)
  console.log(`${plan.id}: ${diagnosis.engine.suspects.length} suspects, ${diagnosis.engine.tests.length} tests, ready in ${seconds(ready)} s, the rest solved in ${seconds(ahead)} s more; one update with up to ${FINDINGS} findings: median ${later.median} ms, worst ${later.worst} ms (at once: ${atOnce.median} and ${atOnce.worst}); ${Math.round(process.memoryUsage().rss / 1e6)} MB in use`)
}

function updates(diagnosis: Diagnosis): { readonly median: string; readonly worst: string } {
  const random = new SeededRandom(7)
  const found: number[] = []
  for (let round = 0; round < ROUNDS; round++) {
    const findings: TestFinding[] = []
    for (let count = 0; count < FINDINGS; count++) {
      const { tests } = diagnosis.engine
      const { id, test } = tests[Math.floor(random.next() * tests.length)] as (typeof tests)[number]
      // Mostly what a sound engine gives, now and then not.
      const outcome = random.next() < 0.7 ? test.outcomes[0] : test.outcomes[test.outcomes.length - 1]
      findings.push({ id: String(count), test: id, outcome: outcome?.id ?? '', state: 0 })
      found.push(timed(() => diagnosis.report({ findings, events: [] })))
    }
  }
  found.sort((first, second) => first - second)
  return { median: (found[found.length >> 1] as number).toFixed(0), worst: (found.at(-1) as number).toFixed(0) }
}

function drain(steps: Iterable<unknown>): void {
  for (const step of steps) void step
}

function timed(work: () => unknown): number {
  const started = performance.now()
  work()
  return performance.now() - started
}

function seconds(milliseconds: number): string {
  return (milliseconds / 1000).toFixed(1)
}
