import { SeededRandom } from '../../bench/casualty/random'
import { CompiledEngine } from '../../core/diagnosis/compiled-engine'
import type { SearchReport } from '../../core/diagnosis/diagnosis'
import type { TestFinding } from '../../core/diagnosis/history'
import { constructionPlans, describeConstruction } from '../../core/knowledge/constructions'
import { diagnosisKnowledge } from '../../core/knowledge/diagnosis-knowledge'
import { SearchJudge } from '../../shared/judge-search'
import { shippedPractice } from '../../shared/practised-knowledge'

/**
 * What the speed promises of the search come to: `npm run bench:search`, everything asked as the screen's worker asks
 * it. Three times: any outcome of any test, answered without taking a breath; the same with a pause before each, which
 * leaves time to work ahead; and with a pause, the advice followed, its outcomes as likely as was said.
 */
const FINDINGS = 12
const ROUNDS = 3
/** In the pauses no more than this is waited for; at the bench a test takes longer. */
const PAUSE_MS = 15_000

type Answer = (report: SearchReport, tests: CompiledEngine['tests'], random: SeededRandom) => { readonly test: string; readonly outcome: string } | null

/** Mostly what a sound engine gives, now and then not. */
const anyOutcome: Answer = (_report, tests, random) => {
  const { id, test } = tests[Math.floor(random.next() * tests.length)] as (typeof tests)[number]
  return { test: id, outcome: (random.next() < 0.7 ? test.outcomes[0] : test.outcomes[test.outcomes.length - 1])?.id ?? '' }
}

const asAdvised: Answer = ({ advice, next }, _tests, random) => {
  const advised = advice.kind === 'test' ? next.find(({ id }) => id === advice.test) : undefined
  if (!advised) return null
  let left = random.next()
  const come = advised.outcomes.find(({ chance }) => (left -= chance) < 0) ?? advised.outcomes[0]
  return { test: advised.id, outcome: come?.id ?? '' }
}

for (const plan of constructionPlans) {
  const engine = new CompiledEngine(describeConstruction(plan.id, plan.power), diagnosisKnowledge)
  const breathless = await updates(engine, anyOutcome, false)
  const paused = await updates(engine, anyOutcome, true)
  const followed = await updates(engine, asAdvised, true)
  console.log(`${plan.id}: ${engine.suspects.length} suspects, ${engine.tests.length} tests, ready in ${(breathless.ready / 1000).toFixed(1)} s; one update with up to ${FINDINGS} findings, median and worst in ms: the advice followed ${followed.figures}; any answer after a pause ${paused.figures}; any answer at once ${breathless.figures}; ${Math.round(process.memoryUsage().rss / 1e6)} MB in use`)
}

async function updates({ description, tests }: CompiledEngine, answer: Answer, pauses: boolean): Promise<{ readonly ready: number; readonly figures: string }> {
  const judge = new SearchJudge()
  const random = new SeededRandom(7)
  const found: number[] = []
  const ask = async (findings: readonly TestFinding[]): Promise<readonly [report: SearchReport, milliseconds: number]> => {
    const started = performance.now()
    const report = await judge.report({ description, practice: shippedPractice, context: {}, history: { findings, events: [] }, bench: {} })
    return [report, performance.now() - started]
  }
  const [first, ready] = await ask([])
  for (let round = 0; round < ROUNDS; round++) {
    let report = first
    const findings: TestFinding[] = []
    if (round > 0) await ask([])
    for (let count = 0; count < FINDINGS; count++) {
      const came = answer(report, tests, random)
      if (!came) break
      if (pauses) pause(judge)
      findings.push({ id: String(count), ...came, state: 0 })
      const [next, milliseconds] = await ask([...findings])
      report = next
      found.push(milliseconds)
    }
  }
  found.sort((one, other) => one - other)
  return { ready, figures: `${(found[found.length >> 1] ?? 0).toFixed(0)} and ${(found.at(-1) ?? 0).toFixed(0)} of ${found.length}` }
}

function pause(judge: SearchJudge): void {
  const until = performance.now() + PAUSE_MS
  for (const _ of judge.ahead()) if (performance.now() > until) return
}
