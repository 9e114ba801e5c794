import type { Advice } from './advice'
import type { SearchHistory } from './history'
import type { Area, Equipment } from '../knowledge/knowledge-schema'

export interface SuspectReport<Finding = string> {
  readonly id: string
  readonly fault: string
  readonly place: string
  readonly area: string
  readonly words: string
  readonly chance: number
  /** Seen beyond doubt and not yet mended. */
  readonly confirmed: boolean
  readonly remedy: {
    readonly id: string
    readonly words: string
    readonly minutes: number
    readonly parts: readonly string[]
    readonly products: readonly string[]
    readonly caution: string
    readonly school: string
  }
  /** Parts to take off yet for it, and minutes with getting there and back. */
  readonly takesOff: readonly string[]
  readonly totalMinutes: number
  readonly speaksFor: ReadonlyArray<ReportedTestimony<Finding>>
  readonly speaksAgainst: ReadonlyArray<ReportedTestimony<Finding>>
}

export interface ReportedTestimony<Finding = string> {
  readonly finding: Finding
  /** How many times as likely it made the finding; below one it speaks against. */
  readonly times: number
}

export interface NextTestReport {
  readonly id: string
  readonly words: string
  readonly how: string
  /** Of the test itself. */
  readonly minutes: number
  /** With getting there and back. */
  readonly totalMinutes: number
  readonly takesOff: readonly string[]
  readonly needsWhole: boolean
  readonly caution: string
  readonly equipment: readonly Equipment[]
  /** Minutes it is expected to save. */
  readonly value: number
  readonly outcomes: ReadonlyArray<{ readonly id: string; readonly words: string; readonly chance: number }>
  readonly why: string
  readonly then: string | null
}

export interface SearchReport<Finding = string> {
  readonly state: number
  readonly advice: Advice
  /** Most likely first; those confirmed and not mended lead. */
  readonly suspects: ReadonlyArray<SuspectReport<Finding>>
  /** Chance that nothing is wrong but what is confirmed. */
  readonly nothingElse: number
  readonly next: readonly NextTestReport[]
  readonly contradictions: ReadonlyArray<{
    readonly repeat: Finding
    readonly against: Finding
    readonly chance: number
    readonly words: string
  }>
  /** Tests not offered, with the reason. */
  readonly withheld: ReadonlyArray<{ readonly test: string; readonly words: string; readonly why: string }>
  /** Share of the belief expected to lie in sets of three faults that were not followed. */
  readonly leftOut: number
  /** Chance that something is wrong in each area; what no row names is in none. */
  readonly byArea: ReadonlyArray<{ readonly area: Area; readonly chance: number }>
  /** Chance of every component's place by its most suspected fault, for the drawing. */
  readonly byPlace: ReadonlyArray<{
    readonly place: string
    readonly components: readonly string[]
    readonly links: readonly string[]
    readonly chance: number
  }>
}

/** The report with the findings named as the history has them. */
export function named(report: SearchReport<number>, { findings }: SearchHistory): SearchReport {
  const name = (finding: number): string => findings[finding]?.id ?? ''
  const told = (testimony: ReadonlyArray<ReportedTestimony<number>>): ReportedTestimony[] =>
    testimony.map(({ finding, times }) => ({ finding: name(finding), times }))
  return {
    ...report,
    suspects: report.suspects.map((suspect) => ({
      ...suspect,
      speaksFor: told(suspect.speaksFor),
      speaksAgainst: told(suspect.speaksAgainst),
    })),
    contradictions: report.contradictions.map((entry) => ({
      ...entry,
      repeat: name(entry.repeat),
      against: name(entry.against),
    })),
  }
}
