import { SeededRandom } from '../../bench/casualty/random'
import { CompiledEngine } from '../../core/diagnosis/compiled-engine'
import type { SearchReport } from '../../core/diagnosis/search-report'
import { likelyNext, type Told } from '../../core/diagnosis/likely-next'
import { constructionPlans, describeConstruction } from '../../core/knowledge/constructions'
import { diagnosisKnowledge } from '../../core/knowledge/diagnosis-knowledge'
import { SearchJudge } from '../../work/judge-search'
import { shippedPractice } from '../../work/practised-knowledge'

/**
 * What the speed promises of the search come to: `npm run bench:search`, everything asked as the screen's worker asks
 * it. Three times: any outcome of any test, answered without taking a breath; the same with a pause before each, which
 * leaves time to work ahead; and with a pause, the advice followed, its outcomes as likely as was said, its repairs made.
 */
const FINDINGS = 12
const ROUNDS = 3
/** In the pauses no more than this is waited for; at the bench a test takes longer. */
const PAUSE_MS = 15_000

type Answer = (told: Told, report: SearchReport, tests: CompiledEngine['tests'], random: SeededRandom) => Told | null

/** Mostly what a sound engine gives, now and then not. */
const anyOutcome: Answer = ({ history, bench }, _report, tests, random) => {
  const { id, test } = tests[Math.floor(random.next() * tests.length)] as (typeof tests)[number]
  const outcome = (random.next() < 0.7 ? test.outcomes[0] : test.outcomes[test.outcomes.length - 1])?.id ?? ''
  return { history: { ...history, findings: [...history.findings, { id: '', test: id, outcome, state: 0 }] }, bench }
}

const asAdvised: Answer = (told, report, _tests, random) => {
  const { advice, next } = report
  const [first] = likelyNext(told, report)
  if (advice.kind === 'repair' || advice.kind === 'done' || !first)
    return advice.kind === 'repair' ? (first ?? null) : null
  const made = first.history.findings.at(-1)
  const outcomes = next.find(({ id }) => id === made?.test)?.outcomes ?? []
  let left = random.next()
  const come = outcomes.find(({ chance }) => (left -= chance) < 0) ?? outcomes[0]
  return made && come
    ? { ...first, history: { ...first.history, findings: [...told.history.findings, { ...made, outcome: come.id }] } }
    : null
}

for (const plan of constructionPlans) {
  const engine = new CompiledEngine(describeConstruction(plan.id, plan.power), diagnosisKnowledge)
  const breathless = await updates(engine, anyOutcome, false)
  const paused = await updates(engine, anyOutcome, true)
  const followed = await updates(engine, asAdvised, true)
  const unforeseen = await updates(engine, asAdvised, false)
  console.log(
    `${plan.id}: ${engine.suspects.length} suspects, ${engine.tests.length} tests, ready in ${(breathless.ready / 1000).toFixed(1)} s; one update with up to ${FINDINGS} findings, median and worst in ms: the advice followed, with the pause a test takes ${followed.tests}, a repair ${followed.repairs}; without a pause ${unforeseen.tests}, a repair ${unforeseen.repairs}; any answer after a pause ${paused.tests}; any answer at once ${breathless.tests}; ${Math.round(process.memoryUsage().rss / 1e6)} MB in use`,
  )
}

async function updates(
  { description, tests }: CompiledEngine,
  answer: Answer,
  pauses: boolean,
): Promise<{ readonly ready: number; readonly tests: string; readonly repairs: string }> {
  const judge = new SearchJudge()
  const random = new SeededRandom(7)
  const [afterTests, afterRepairs]: [number[], number[]] = [[], []]
  const ask = async (told: Told): Promise<readonly [report: SearchReport, milliseconds: number]> => {
    const started = performance.now()
    const report = await judge.report({ description, practice: shippedPractice, context: {}, ...told })
    return [report, performance.now() - started]
  }
  const untold: Told = { history: { findings: [], events: [] }, bench: {} }
  const [first, ready] = await ask(untold)
  for (let round = 0; round < ROUNDS; round++) {
    let [told, report] = [untold, first]
    if (round > 0) await ask(untold)
    while (told.history.findings.length < FINDINGS) {
      const came = answer(told, report, tests, random)
      if (!came) break
      if (pauses) pause(judge)
      const mended = came.history.events.length > told.history.events.length
      told = came
      const [next, milliseconds] = await ask(told)
      report = next
      ;(mended ? afterRepairs : afterTests).push(milliseconds)
    }
  }
  return { ready, tests: figures(afterTests), repairs: figures(afterRepairs) }
}

function figures(found: number[]): string {
  found.sort((one, other) => one - other)
  return found.length === 0
    ? 'none made'
    : `${(found[found.length >> 1] ?? 0).toFixed(0)} and ${(found.at(-1) ?? 0).toFixed(0)} of ${found.length}`
}

function pause(judge: SearchJudge): void {
  const until = performance.now() + PAUSE_MS
  for (const _ of judge.ahead()) if (performance.now() > until) return
}
