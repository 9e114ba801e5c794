import type { BenchNow } from './advice'
import type { NextTestReport, SearchReport } from './search-report'
import type { EngineEvent, SearchHistory } from './history'

/** What was told of an engine, and how it lies on the bench. */
export interface Told {
  readonly history: SearchHistory
  readonly bench: BenchNow
}

/** Tests offered besides the one advised that are gone through too. */
const RUNNERS_UP = 2

/** The same for all that is told alike; only what a finding is called by does not count. */
export function keyOf({ history: { findings, events }, bench: { off = [], refused = [], leave = [] } }: Told): string {
  return JSON.stringify([
    findings.map(({ test, outcome, state }) => [test, outcome, state]),
    events,
    off,
    refused,
    leave,
  ])
}

/**
 * What may be told after a report: first what is advised, its outcomes likeliest first, or that it could not be done;
 * then the outcomes of the tests offered besides.
 *
 * @param told so far
 * @param report on that
 */
export function likelyNext(
  { history, bench }: Told,
  { advice, next, state }: Pick<SearchReport, 'advice' | 'next' | 'state'>,
): Told[] {
  const seen = (test: NextTestReport): Told[] =>
    [...test.outcomes]
      .sort((first, second) => second.chance - first.chance)
      .map((outcome) => ({
        history: { ...history, findings: [...history.findings, { id: '', test: test.id, outcome: outcome.id, state }] },
        bench: { ...bench, off: [...(bench.off ?? []), ...test.takesOff] },
      }))
  const happened = (event: EngineEvent, then: BenchNow): Told => ({
    history: { ...history, events: [...history.events, event] },
    bench: then,
  })
  const couldNot = (test: string): Told => ({ history, bench: { ...bench, refused: [...(bench.refused ?? []), test] } })
  const advised = new Set(
    advice.kind === 'test' ? [advice.test] : advice.kind === 'prove' ? advice.tests.slice(0, 1) : [],
  )
  const beside = next
    .filter(({ id }) => !advised.has(id))
    .slice(0, RUNNERS_UP)
    .flatMap(seen)
  const first = next.filter(({ id }) => advised.has(id)).flatMap((test) => [...seen(test), couldNot(test.id)])
  if (advice.kind !== 'repair') return [...first, ...beside]
  const { suspect } = advice
  // In the state a repair brings about nothing was refused yet.
  return [
    happened({ kind: 'repaired', suspect, state: state + 1 }, { ...bench, refused: [] }),
    happened({ kind: 'confirmed', suspect, state }, bench),
    ...beside,
  ]
}
