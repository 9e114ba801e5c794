import { describe, expect, it } from 'vitest'
import { Diagnosis } from '../core/diagnosis/diagnosis'
import { constructionPlans, describeConstruction } from '../core/knowledge/constructions'
import { diagnosisKnowledge } from '../core/knowledge/diagnosis-knowledge'
import type { JobBook } from '../messages/book'
import { circumstancesIn, searchOf } from './search-history'
import { tellableOf, toldFindings } from './told-at-the-counter'

const tank = describeConstruction('tank-open')
type Told = NonNullable<JobBook['job']['told']>
const jobWith = (told: Told, past: JobBook['job']['past'] = null) =>
  ({
    job: { told, past, complaint: 'It does not go', takenInAt: '2026-11-30T09:00:00Z' },
    engine: { stateNumber: 4 },
    search: [],
    strip: [],
    findings: [],
    earlier: [],
    sheets: [],
    continuity: [],
  }) as unknown as JobBook
const told = (test: string, outcome: string) => ({ test, outcome, words: `${test} ${outcome}` })
const chanceOf = (report: { suspects: ReadonlyArray<{ fault: string; chance: number }> }, fault: string): number =>
  report.suspects.find((suspect) => suspect.fault === fault)?.chance ?? 0

describe('what is told and seen when an engine is taken in', () => {
  it('every construction offers its own: a horn only where there is one, the change of direction only on three rails', () => {
    for (const { id } of constructionPlans) {
      const description = describeConstruction(id)
      const offered = tellableOf(description, diagnosisKnowledge)
      expect(offered.length).toBeGreaterThan(20)
      expect(new Set(offered.map(({ words }) => words)).size).toBe(offered.length)
      expect(offered.some(({ test }) => test === 'horn-test')).toBe(id === 'three-rail-twin')
      expect(offered.some(({ test }) => test === 'sequence-step')).toBe(description.power === 'ac')
    }
  })

  it('belongs to the state the engine came in, at every place the words may mean', () => {
    const found = toldFindings(
      jobWith([told('treads-look', 'black'), told('gone-test', 'x')]),
      tank,
      diagnosisKnowledge,
    )
    expect(found.length).toBeGreaterThan(0)
    expect(found.every(({ test, from }) => test.startsWith('treads-look') && from === 'counter')).toBe(true)
    const { history } = searchOf(jobWith([]), '', found)
    expect(history.findings.every(({ state, told: hearsay }) => state === 0 && hearsay === undefined)).toBe(true)
  })

  it('what the owner tells moves the belief the way it would seen here, but less, and is looked at all the same', () => {
    const diagnosis = new Diagnosis(tank, diagnosisKnowledge)
    const smell = (hearsay: boolean) =>
      diagnosis.report({
        findings: [{ id: '1', test: 'smell', outcome: 'burnt', state: 0, ...(hearsay ? { told: true } : {}) }],
        events: [],
      })
    const nothing = diagnosis.report({ findings: [], events: [] })
    const burnt = (report: typeof nothing): number => report.byArea.find(({ area }) => area === 'motor')?.chance ?? 0
    expect(burnt(smell(true))).toBeLessThan(burnt(smell(false)))
    // The winding is what smells of it.
    const winding = ['winding-shorted', 'coil-shorted', 'winding-open'].find(
      (fault) => chanceOf(smell(false), fault) > 0.05,
    )
    expect(winding).toBeDefined()
    expect(chanceOf(smell(true), winding ?? '')).toBeGreaterThan(chanceOf(nothing, winding ?? ''))
    expect(chanceOf(smell(true), winding ?? '')).toBeLessThan(chanceOf(smell(false), winding ?? ''))
    const offersTheRun = (hearsay: boolean): boolean =>
      diagnosis
        .report({
          findings: [{ id: '1', test: 'track-run', outcome: 'stands', state: 0, ...(hearsay ? { told: true } : {}) }],
          events: [],
        })
        .next.some(({ observations }) => observations.some(({ id }) => id === 'track-run'))
    expect(offersTheRun(true)).toBe(true)
    expect(offersTheRun(false)).toBe(false)
  })

  it('its past is read from the words until somebody taps', () => {
    const about = 'Ten years in a damp cellar.'
    expect(searchOf(jobWith([]), about).circumstances).toEqual(['complained-of', ...circumstancesIn(about)])
    expect(searchOf(jobWith([], ['garden']), about).circumstances).toEqual(['complained-of', 'garden'])
  })
})
