import { expect, it, vi } from 'vitest'
import { describeConstruction } from '../knowledge/constructions'
import { diagnosisKnowledge } from '../knowledge/diagnosis-knowledge'
import { Diagnosis } from './diagnosis'
import { HypothesisSets } from './hypothesis-sets'
import type { EngineEvent, SearchHistory } from './history'

const description = describeConstruction('narrow-gauge')
const begun: SearchHistory = {
  findings: [
    { id: 'a', test: 'track-run', outcome: 'falters', state: 0 },
    { id: 'b', test: 'track-current', outcome: 'flickers', state: 0 },
  ],
  events: [],
}

/** The report, and how often it took weighing the sets of hidden faults anew. */
function weighing(
  diagnosis: Diagnosis,
  history: SearchHistory,
  bench = {},
): { readonly report: ReturnType<Diagnosis['report']>; readonly times: number } {
  const weighed = vi.spyOn(HypothesisSets.prototype, 'rankTriples')
  try {
    const report = diagnosis.report(history, bench)
    return { report, times: weighed.mock.calls.length }
  } finally {
    weighed.mockRestore()
  }
}

function foreseeing(history: SearchHistory): {
  readonly foreseen: Diagnosis
  readonly fresh: Diagnosis
  readonly report: ReturnType<Diagnosis['report']>
} {
  const [foreseen, fresh] = [
    new Diagnosis(description, diagnosisKnowledge),
    new Diagnosis(description, diagnosisKnowledge),
  ]
  const report = foreseen.report(history)
  for (const _ of foreseen.foresee({ history, bench: {} }, report)) void _
  return { foreseen, fresh, report }
}

it('every outcome of the advised test and of those beside it is there when it comes, the same as unforeseen', () => {
  const { report } = foreseeing(begun)
  if (report.advice.kind !== 'test') throw new Error('There is something to test.')
  const tests = report.next.slice(0, 3)
  expect(tests.map(({ id }) => id)).toContain(report.advice.test)
  const fresh = new Diagnosis(description, diagnosisKnowledge)
  for (const test of tests) {
    const { foreseen } = foreseeing(begun)
    const outcome = test.outcomes.at(-1)?.id ?? ''
    const history = { ...begun, findings: [...begun.findings, { id: 'c', test: test.id, outcome, state: 0 }] }
    const bench = { off: test.takesOff }
    const answer = weighing(foreseen, history, bench)
    const expected = weighing(fresh, history, bench)
    expect(answer.report).toEqual(expected.report)
    expect(
      answer.report.suspects.flatMap(({ speaksFor, speaksAgainst }) =>
        [...speaksFor, ...speaksAgainst].map(({ finding }) => finding),
      ),
    ).toContain('c')
    expect(expected.times).toBeGreaterThan(0)
    expect(answer.times).toBe(0)
    // And the answer after it, which nobody foresaw.
    const after = {
      ...history,
      findings: [...history.findings, { id: 'd', test: 'smell', outcome: 'burnt', state: 0 }],
    }
    expect(foreseen.report(after, bench)).toEqual(fresh.report(after, bench))
  }
}, 120_000)

it('so is that the advised test could not be done', () => {
  const { foreseen, fresh, report } = foreseeing(begun)
  const refused = report.advice.kind === 'test' ? [report.advice.test] : []
  const answer = weighing(foreseen, begun, { refused })
  expect(answer.times).toBe(0)
  expect(answer.report).toEqual(fresh.report(begun, { refused }))
  expect(answer.report.withheld.map(({ test }) => test)).toEqual(expect.arrayContaining(refused))
}, 60_000)

it('so is the repair that is advised, and what the retest after it settles', () => {
  const [suspect] = foreseeing(begun).report.suspects
  if (!suspect) throw new Error('Something is suspected.')
  const confirmed: EngineEvent = { kind: 'confirmed', suspect: suspect.id, state: 0 }
  const found = { ...begun, events: [confirmed] }
  const { foreseen, fresh, report } = foreseeing(found)
  expect(report.advice).toMatchObject({ kind: 'repair', suspect: suspect.id })
  const mended: SearchHistory = { ...found, events: [confirmed, { kind: 'repaired', suspect: suspect.id, state: 1 }] }
  const answer = weighing(foreseen, mended)
  expect(answer.times).toBe(0)
  expect(answer.report).toEqual(fresh.report(mended))
  for (const _ of foreseen.foresee({ history: mended, bench: {} }, answer.report)) void _
  const advised = answer.report.next.find(
    ({ id }) => answer.report.advice.kind === 'test' && id === answer.report.advice.test,
  )
  const retested: SearchHistory = {
    ...mended,
    findings: [...mended.findings, { id: 'c', test: advised?.id ?? '', outcome: 'runs', state: 1 }],
  }
  const retest = weighing(foreseen, retested)
  expect(retest.times).toBe(0)
  expect(retest.report).toEqual(fresh.report(retested))
}, 120_000)

it('what was let go of for want of room is worked out again, and is the same', () => {
  const [forgetful, fresh] = [
    new Diagnosis(description, diagnosisKnowledge, {}, 0),
    new Diagnosis(description, diagnosisKnowledge),
  ]
  expect(forgetful.report(begun)).toEqual(fresh.report(begun))
  const first = forgetful.engine.rowCount
  let [history, most, letGo] = [begun, first, 0]
  for (const suspect of [
    'treads-film@treads.frame-axles',
    'gauge-off@wheel-sets',
    'commutator-black@motor.brushes',
    'bearing-dry@motor',
  ]) {
    history = { ...history, events: [...history.events, { kind: 'confirmed', suspect, state: 0 }] }
    expect(forgetful.report(history)).toEqual(fresh.report(history))
    if (forgetful.engine.rowCount === 0) letGo++
    most = Math.max(most, forgetful.engine.rowCount)
  }
  expect(letGo).toBeGreaterThan(0)
  expect(most).toBeLessThanOrEqual(2 * first)
  expect(fresh.engine.rowCount).toBeGreaterThan(2 * first)
}, 60_000)
