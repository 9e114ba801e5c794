import { SeededRandom } from '../../bench/casualty/random'
import { CompiledEngine } from '../../core/diagnosis/compiled-engine'
import type { SearchHistory } from '../../core/diagnosis/history'
import type { SearchReport } from '../../core/diagnosis/report/search-report'
import { constructionPlans, describeConstruction } from '../../core/knowledge/constructions'
import { diagnosisKnowledge } from '../../core/knowledge/diagnosis-knowledge'
import { SearchJudge } from '../../work/judge-search'
import { shippedPractice } from '../../work/practised-knowledge'

/**
 * What the speed promises of the search come to: `npm run bench:search`, everything asked as the screen's worker asks
 * it, without taking a breath: any outcome of any observation; and the advice followed, its first row noted as likely
 * as was said, its repairs made.
 */
const FINDINGS = 12
const ROUNDS = 3

type Answer = (
  history: SearchHistory,
  report: SearchReport,
  tests: CompiledEngine['tests'],
  random: SeededRandom,
) => SearchHistory | null

/** Mostly what a sound engine gives, now and then not. */
const anyOutcome: Answer = (history, _report, tests, random) => {
  const { id, test } = tests[Math.floor(random.next() * tests.length)] as (typeof tests)[number]
  const outcome = (random.next() < 0.7 ? test.outcomes[0] : test.outcomes[test.outcomes.length - 1])?.id ?? ''
  return { ...history, findings: [...history.findings, { id: '', test: id, outcome, state: 0 }] }
}

const asAdvised: Answer = (history, { advice, next, state }, _tests, random) => {
  if (advice.kind === 'done') return null
  if (advice.kind === 'repair')
    return { ...history, events: [...history.events, { kind: 'repaired', suspect: advice.suspect, state: state + 1 }] }
  const row = next.find(({ id }) => id === advice.act)?.observations[0]
  let left = random.next()
  const come = row?.outcomes.find(({ chance }) => (left -= chance) < 0) ?? row?.outcomes[0]
  return row && come
    ? { ...history, findings: [...history.findings, { id: '', test: row.id, outcome: come.id, state }] }
    : null
}

for (const plan of constructionPlans) {
  const engine = new CompiledEngine(describeConstruction(plan.id, plan.power), diagnosisKnowledge)
  const any = await updates(engine, anyOutcome)
  const followed = await updates(engine, asAdvised)
  console.log(
    `${plan.id}: ${engine.suspects.length} suspects, ${engine.tests.length} observations, ready in ${(any.ready / 1000).toFixed(1)} s; one update with up to ${FINDINGS} findings, median and worst in ms: any answer ${any.each}; the advice followed ${followed.each}; ${Math.round(process.memoryUsage().rss / 1e6)} MB in use`,
  )
}

async function updates(
  { description, tests }: CompiledEngine,
  answer: Answer,
): Promise<{ readonly ready: number; readonly each: string }> {
  const judge = new SearchJudge()
  const random = new SeededRandom(7)
  const taken: number[] = []
  const ask = async (history: SearchHistory): Promise<readonly [report: SearchReport, milliseconds: number]> => {
    const started = performance.now()
    const report = await judge.report({ description, practice: shippedPractice, context: {}, history, bench: {} })
    return [report, performance.now() - started]
  }
  const untold: SearchHistory = { findings: [], events: [] }
  const [first, ready] = await ask(untold)
  for (let round = 0; round < ROUNDS; round++) {
    let [history, report] = [untold, first]
    if (round > 0) await ask(untold)
    while (history.findings.length < FINDINGS) {
      const came = answer(history, report, tests, random)
      if (!came) break
      history = came
      const [next, milliseconds] = await ask(history)
      report = next
      taken.push(milliseconds)
    }
  }
  taken.sort((one, other) => one - other)
  return {
    ready,
    each: `${(taken[taken.length >> 1] ?? 0).toFixed(0)} and ${(taken.at(-1) ?? 0).toFixed(0)} of ${taken.length}`,
  }
}
