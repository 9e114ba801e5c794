import { describe, expect, it } from 'vitest'
import { SeededRandom } from '../../bench/casualty/random'
import { constructionPlans, describeConstruction } from '../knowledge/constructions'
import { diagnosisKnowledge } from '../knowledge/diagnosis-knowledge'
import { EXCHANGE_MOTOR } from '../knowledge/knowledge-schema'
import { Diagnosis } from './diagnosis'
import type { EngineEvent, SearchHistory, TestFinding } from './history'
import type { SearchReport } from './report/search-report'

/**
 * Common sense, whatever the machine answers: searches by the advice, every answer drawn as likely as was said. More of
 * them by `SEARCHES=200 npx vitest run core/diagnosis/common-sense.test.ts`.
 */
const SEARCHES = Number(process.env.SEARCHES ?? 1)
const STEPS = 9

interface Step {
  readonly history: SearchHistory
  readonly off: readonly string[]
  readonly report: SearchReport
}

function searchOf(
  construction: string,
  seed: number,
): { readonly diagnosis: Diagnosis; readonly steps: readonly Step[] } {
  const diagnosis = new Diagnosis(describeConstruction(construction), diagnosisKnowledge, {
    circumstances: ['complained-of'],
  })
  const random = new SeededRandom(seed)
  const steps: Step[] = []
  const findings: TestFinding[] = []
  const events: EngineEvent[] = []
  let [off, state]: [string[], number] = [[], 0]
  for (let step = 0; step < STEPS; step++) {
    const history = { findings: [...findings], events: [...events] }
    const report = diagnosis.report(history, { off })
    steps.push({ history, off: [...off], report })
    const { advice } = report
    if (advice.kind === 'done') break
    if (advice.kind === 'repair') {
      for (const suspect of [advice.suspect, ...advice.also]) events.push({ kind: 'repaired', suspect, state: ++state })
      continue
    }
    const act = report.next.find(({ id }) => id === advice.act)
    off = [...new Set([...off, ...(act?.takesOff ?? [])])]
    let standing = false
    for (const row of act?.observations ?? []) {
      if (standing && row.needsRunning) continue
      let left = random.next()
      const come = row.outcomes.find(({ chance }) => (left -= chance) < 0) ?? row.outcomes[0]
      if (come) findings.push({ id: `${findings.length}`, test: row.id, outcome: come.id, state })
      standing ||= come?.id === 'stands'
    }
  }
  return { diagnosis, steps }
}

describe.each(constructionPlans.map(({ id }, index) => [id, index] as const))(
  'a search on %s',
  (construction, index) => {
    it.each(Array.from({ length: SEARCHES }, (_, search) => 1000 * (index + 1) + search))(
      'asks, mends and ends as a sensible person would (seed %i)',
      (seed) => {
        const { diagnosis, steps } = searchOf(construction, seed)
        const { engine, costs } = diagnosis
        expect(steps.length).toBeGreaterThan(1)
        for (const { history, report, off } of steps) {
          const { advice, next } = report
          const here = new Set(history.findings.filter(({ state }) => state === report.state).map(({ test }) => test))
          // Nothing that was just noted is asked again.
          for (const act of next) for (const row of act.observations) expect(here.has(row.id), row.id).toBe(false)
          // None that makes no sense of a machine that stands.
          const ran = history.findings.filter(({ test, state }) => {
            const { test: known } = engine.tests[engine.indexOfTest(test)] as (typeof engine.tests)[number]
            return state === report.state && known.reading.kind === 'motion' && known.reach === 'as-it-stands'
          })
          if (ran.length > 0 && ran.every(({ outcome }) => outcome === 'stands' || outcome === 'trips'))
            for (const act of next) for (const row of act.observations) expect(row.needsRunning, row.id).toBe(false)
          // Chances are chances, and no number is none.
          expect(JSON.stringify(report)).not.toMatch(/NaN|Infinity|null,"says"/)
          for (const { chance } of report.suspects) expect(chance).toBeLessThanOrEqual(1)
          if (advice.kind === 'repair') {
            for (const id of [advice.suspect, ...advice.also]) {
              expect(id).not.toBe('unlisted')
              const suspect = report.suspects.find((entry) => entry.id === id)
              const { remedy } = engine.suspects[engine.indexOfSuspect(id)] as (typeof engine.suspects)[number]
              // No motor is exchanged, and nothing rewound, on a mere suspicion.
              if (remedy.id === EXCHANGE_MOTOR || remedy.id === 'rewind')
                expect(suspect?.confirmed === true || (suspect?.chance ?? 1) > 0.2, id).toBe(true)
              // Nothing measured good since it was last touched is mended.
              const measured = history.findings.filter(({ test, outcome }) => {
                const known = engine.tests[engine.indexOfTest(test)] as (typeof engine.tests)[number]
                return (
                  known.test.reading.kind === 'component-ohms' &&
                  known.place.id === suspect?.place &&
                  outcome === known.test.outcomes[0]?.id
                )
              })
              if (measured.length > 0 && !suspect?.confirmed)
                expect(suspect?.chance ?? 1, id).toBeGreaterThanOrEqual(0.15)
            }
          }
          // After a repair one act proves it.
          const justMended = history.events.some(({ kind, state }) => kind === 'repaired' && state === report.state)
          if (justMended && here.size === 0 && advice.kind !== 'repair')
            expect(advice).toMatchObject({ kind: 'act', act: diagnosis.trial })
          // What is advised can be done, and its price is told.
          if (advice.kind === 'act') {
            const act = next.find(({ id }) => id === advice.act)
            expect(act?.observations.length).toBeGreaterThan(0)
            expect(act?.totalMinutes).toBeGreaterThan(0)
            expect(
              costs.act(
                costs.acts.findIndex(({ id }) => id === advice.act),
                new Set(off),
              ).barred,
            ).toBeNull()
            expect(advice.why).not.toMatch(/from \d+ % to/)
          }
          if (advice.kind === 'done')
            for (const { chance, minutes } of advice.left) {
              expect(chance).toBeGreaterThan(0)
              expect(minutes).toBeGreaterThan(0)
            }
        }
      },
      120_000,
    )
  },
)

describe('the same history, told otherwise', () => {
  it('gives the same answer in one go, step by step and backwards', () => {
    const { diagnosis, steps } = searchOf('side-brush-bogie', 4)
    const last = steps.at(-1) as Step
    const fresh = new Diagnosis(describeConstruction('side-brush-bogie'), diagnosisKnowledge, {
      circumstances: ['complained-of'],
    })
    const said = ({ suspects, advice }: SearchReport): unknown => [
      advice.kind === 'act' ? advice.act : advice.kind,
      suspects.map(({ id, chance }) => [id, chance.toFixed(9)]),
    ]
    const again = diagnosis.report(last.history, { off: last.off })
    expect(said(fresh.report(last.history, { off: last.off }))).toEqual(said(again))
    const backwards = { ...last.history, findings: [...last.history.findings].reverse() }
    expect(said(fresh.report(backwards, { off: last.off }))).toEqual(said(again))
    // Asked anew with nothing of the circuit remembered, and half of it noted first.
    fresh.engine.forgetRows()
    const half = last.history.findings.slice(0, last.history.findings.length >> 1)
    fresh.report({
      findings: half,
      events: last.history.events.filter(({ state }) => state <= (half.at(-1)?.state ?? 0)),
    })
    fresh.engine.forgetRows()
    expect(said(fresh.report(last.history, { off: last.off }))).toEqual(said(again))
  }, 60_000)
})
