import { describeConstruction } from '../knowledge/constructions'
import { diagnosisKnowledge } from '../knowledge/diagnosis-knowledge'
import type { Circumstance } from '../knowledge/knowledge-schema'
import type { BenchNow } from './advice/advice'
import type { Belief } from './belief/belief'
import { Diagnosis } from './diagnosis'
import type { EngineEvent, SearchHistory } from './history'
import type { ActReport, SearchReport } from './report/search-report'
import type { Suspect } from './places/suspects'

/** Cases from practice (common practice, invented machines): what must be believed, and asked next, at each point. */
export type Seen = readonly [test: string, outcome: string, state?: number]

/** One machine, asked with what was noted of it. */
export class Case {
  readonly diagnosis: Diagnosis
  constructor(construction: string, power: 'dc' | 'dcc' = 'dc', circumstances: readonly Circumstance[] = []) {
    this.diagnosis = new Diagnosis(describeConstruction(construction, power), diagnosisKnowledge, { circumstances })
  }

  history(seen: readonly Seen[], events: readonly EngineEvent[] = []): SearchHistory {
    return {
      findings: seen.map(([test, outcome, state = 0]) => ({ id: `${test}=${outcome}@${state}`, test, outcome, state })),
      events,
    }
  }

  after(
    seen: readonly Seen[],
    events: readonly EngineEvent[] = [],
    bench: BenchNow = {},
  ): {
    readonly report: SearchReport
    readonly belief: Belief
    readonly any: (test: (suspect: Suspect) => boolean) => number
    readonly chance: (id: string) => number
  } {
    const history = this.history(seen, events)
    const belief = this.diagnosis.believe(history)
    const { suspects } = this.diagnosis.engine
    return {
      report: this.diagnosis.report(history, bench),
      belief,
      any: (test) => belief.chanceOfAny(new Set(suspects.flatMap((suspect, index) => (test(suspect) ? [index] : [])))),
      chance: (id) => belief.marginals[this.diagnosis.engine.indexOfSuspect(id)] as number,
    }
  }
}

export const inArea =
  (...areas: string[]) =>
  (suspect: Suspect): boolean =>
    areas.includes(suspect.fault.area)
export const ofFault =
  (...faults: string[]) =>
  (suspect: Suspect): boolean =>
    faults.includes(suspect.fault.id)
export const ofRole =
  (...roles: string[]) =>
  (suspect: Suspect): boolean =>
    roles.includes(suspect.place.role)
/** The act advised, or what is advised instead. */
export const actOf = ({ advice }: SearchReport): string => (advice.kind === 'act' ? advice.act : advice.kind)
export const advised = (report: SearchReport): ActReport | undefined =>
  report.next.find(({ id }) => report.advice.kind === 'act' && id === report.advice.act)
/** Everything that can be noted at the acts offered. */
export const askedOf = (report: SearchReport): string[] =>
  report.next.flatMap(({ observations }) => observations.map(({ id }) => id))
