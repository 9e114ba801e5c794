import type { SearchReport } from '../core/diagnosis/report/search-report'

/** What is kept of a judgement beside the step that led to it, so that the reasoning can be read again later. */
export interface Reckoned {
  readonly advice: { readonly kind: SearchReport['advice']['kind']; readonly words: string; readonly why: string }
  /** The likeliest first. */
  readonly believed: ReadonlyArray<{ readonly suspect: string; readonly words: string; readonly chance: number }>
  readonly nothingElse: number
  readonly contradictions: readonly string[]
  /** Why nothing could be reckoned; empty otherwise. */
  readonly failure: string
  readonly milliseconds: number
}

const MOST_BELIEVED = 5

export function reckonedOf(report: SearchReport, milliseconds: number): Reckoned {
  const { advice } = report
  const words =
    advice.kind === 'act'
      ? (report.next.find((act) => act.id === advice.act)?.words ?? advice.act)
      : advice.kind === 'repair'
        ? (report.suspects.find((suspect) => suspect.id === advice.suspect)?.remedy.words ?? advice.suspect)
        : 'Nothing left to look for'
  return {
    advice: { kind: advice.kind, words, why: advice.why },
    believed: report.suspects
      .slice(0, MOST_BELIEVED)
      .map(({ id, words: name, chance }) => ({ suspect: id, words: name, chance: Number(chance.toFixed(4)) })),
    nothingElse: Number(report.nothingElse.toFixed(4)),
    contradictions: report.contradictions.map((entry) => entry.words),
    failure: '',
    milliseconds: Math.round(milliseconds),
  }
}

export function notReckoned(failure: string): Reckoned {
  return {
    advice: { kind: 'done', words: '', why: '' },
    believed: [],
    nothingElse: 0,
    contradictions: [],
    failure,
    milliseconds: 0,
  }
}
