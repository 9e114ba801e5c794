import type { FieldProblem } from './problem-sentences'

/** A refusal as the browser gets it: RFC 9457 problem+json, with the fields named. */
export interface ProblemDocument {
  readonly type: string
  readonly title: string
  readonly status: number
  readonly detail: string
  readonly fields?: readonly FieldProblem[]
  /** For a stale write: the row as it stands now. */
  readonly current?: unknown
  readonly retryAfterSeconds?: number
}
