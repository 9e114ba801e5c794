import { writeFileSync } from 'node:fs'
import { Diagnosis } from '../core/diagnosis/diagnosis'
import type { EngineEvent, TestFinding } from '../core/diagnosis/history'
import { describeConstruction } from '../core/knowledge/constructions'
import { practised } from '../core/knowledge/schools-of-practice'
import { schools } from '../core/knowledge/schools'
import { diagnosisKnowledge } from '../core/knowledge/diagnosis-knowledge'
import { demoSearches, searchKey, type DemoSearch } from './search-steps'

/** What was believed at every step of the demo's searches, as the screen would have kept it: `npm run demo:searches`. */
export interface WrittenStep {
  readonly kind: 'outcome' | 'could-not' | 'confirmed' | 'repaired' | 'ruled-out'
  readonly test?: string
  readonly outcome?: string
  readonly suspect?: string
  readonly words: string
  readonly why?: string
  readonly off?: readonly string[]
  readonly believed?: ReadonlyArray<{ readonly suspect: string; readonly words: string; readonly chance: number }>
}

export function writtenSearch(search: DemoSearch): WrittenStep[] {
  const description = describeConstruction(search.construction, search.power)
  const diagnosis = new Diagnosis(description, practised(diagnosisKnowledge, schools, {}, description), {
    circumstances: search.circumstances,
  })
  const findings: TestFinding[] = []
  const events: EngineEvent[] = []
  const off: string[] = []
  let state = 0
  return search.steps.map((step): WrittenStep => {
    const report = diagnosis.report({ findings: [...findings], events: [...events] }, { off: [...off] })
    const believed = report.suspects
      .slice(0, 3)
      .map(({ id, words, chance }) => ({ suspect: id, words, chance: Number(chance.toFixed(4)) }))
    const [kind, first, second] = step
    if (kind === 'saw' || kind === 'could-not') {
      const { engine, costs } = diagnosis
      if (kind === 'could-not')
        return { kind, test: first, words: costs.acts.find(({ id }) => id === first)?.name ?? first }
      const index = engine.indexOfTest(first)
      const { name, test } = engine.tests[index] as (typeof engine.tests)[number]
      const outcome = test.outcomes[engine.indexOfOutcome(index, second)]
      off.push(...costs.test(index, new Set(off)).parts)
      findings.push({ id: String(findings.length), test: first, outcome: second, state })
      return {
        kind: 'outcome',
        test: first,
        outcome: second,
        words: `${name}: ${outcome?.name.toLowerCase() ?? ''}`,
        why: report.next.find(({ observations }) => observations.some(({ id }) => id === first))?.why ?? '',
        off: [...off],
        believed,
      }
    }
    const suspect = diagnosis.engine.suspects[
      diagnosis.engine.indexOfSuspect(first)
    ] as (typeof diagnosis.engine.suspects)[number]
    if (kind === 'repaired') state++
    events.push({ kind, suspect: first, state })
    return {
      kind,
      suspect: first,
      words: kind === 'repaired' ? `${suspect.remedy.name}: ${suspect.name}` : suspect.name,
      believed,
    }
  })
}

if (import.meta.url === `file://${process.argv[1]}`) {
  writeFileSync(
    new URL('./searches.json', import.meta.url),
    `${JSON.stringify(Object.fromEntries(demoSearches.map((search) => [searchKey(search.engine, search.daysAgo), { circumstances: search.circumstances, steps: writtenSearch(search) }])), null, 1)}\n`,
  )
}
