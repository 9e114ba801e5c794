import type { Area, Equipment } from '../../knowledge/knowledge-schema'
import type { Advice } from '../advice/advice'
import type { ChainStretch } from './chain-left'

export interface SuspectReport<Finding = string> {
  readonly id: string
  readonly fault: string
  readonly place: string
  readonly area: string
  readonly words: string
  readonly chance: number
  /** Seen beyond doubt and not yet mended. */
  readonly confirmed: boolean
  /** What was found speaks for it; the others may be there anyway. */
  readonly implied: boolean
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

/** A suspect that a look shows itself, as it goes to the ledger. */
export type FoundReport = Pick<SuspectReport, 'id' | 'words' | 'area'> & {
  readonly remedy: Pick<SuspectReport['remedy'], 'words'>
}

/** Something that can be noted at an act. */
export interface ObservationReport {
  readonly id: string
  readonly words: string
  readonly how: string
  readonly equipment: readonly Equipment[]
  /** It can only be judged while it turns. */
  readonly needsRunning: boolean
  /** How far the answer hangs on what is wrong; the rows that matter most stand first. */
  readonly says: number
  readonly outcomes: ReadonlyArray<{
    readonly id: string
    readonly words: string
    readonly chance: number
    /** The suspect it shows itself: who notes it has found it. */
    readonly finds: FoundReport | null
  }>
}

export interface ActReport {
  readonly id: string
  readonly words: string
  readonly how: string
  /** Of the act itself. */
  readonly minutes: number
  /** With getting there and back. */
  readonly totalMinutes: number
  readonly takesOff: readonly string[]
  readonly needsWhole: boolean
  readonly caution: string
  /** It is entered wheel by wheel, on a sheet of its own. */
  readonly byWheel: boolean
  /** Minutes it is expected to save. */
  readonly value: number
  readonly why: string
  readonly observations: readonly ObservationReport[]
}

export interface SearchReport<Finding = string> {
  readonly state: number
  readonly advice: Advice
  /** Most likely first; those confirmed and not mended lead. */
  readonly suspects: ReadonlyArray<SuspectReport<Finding>>
  /** Chance that nothing is wrong but what is confirmed. */
  readonly nothingElse: number
  /** Acts worth their minutes, and the one advised: the best first. */
  readonly next: readonly ActReport[]
  /** Everything that can be said of this engine, whatever is advised. */
  readonly sayable: ReadonlyArray<Pick<ObservationReport, 'id' | 'words' | 'outcomes'> & { readonly act: string }>
  readonly contradictions: ReadonlyArray<{
    readonly repeat: Finding
    readonly against: Finding
    readonly chance: number
    readonly words: string
  }>
  /** Tests not offered, with the reason. */
  readonly withheld: ReadonlyArray<{ readonly test: string; readonly words: string; readonly why: string }>
  /** Chance that something is left, hidden, that somebody who runs it would notice. */
  readonly leftToNotice: number
  /** Chance that something what was found speaks for is wrong in each area; what no row names is in none. */
  readonly byArea: ReadonlyArray<{ readonly area: Area; readonly chance: number }>
  /** The chain from the rails to the wheels, with what is left to suspect in each stretch. */
  readonly chain: readonly ChainStretch[]
  /** Chance of every component's place by its most suspected fault, for the drawing. */
  readonly byPlace: ReadonlyArray<{
    readonly place: string
    readonly components: readonly string[]
    readonly links: readonly string[]
    readonly chance: number
  }>
}

/** The same report with its findings called otherwise. */
export function withFindingsNamed<One, Other>(
  report: SearchReport<One>,
  name: (finding: One) => Other,
): SearchReport<Other> {
  const told = (testimony: ReadonlyArray<ReportedTestimony<One>>): Array<ReportedTestimony<Other>> =>
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
