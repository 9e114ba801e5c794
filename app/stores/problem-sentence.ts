import type { ProblemDocument } from '~~/messages/problem-document'

interface FetchFailure {
  statusCode?: number
  status?: number
  data?: ProblemDocument
}

/** The problem document behind a failed request, or null when the server was not reached at all. */
export function problemDocument(error: unknown): ProblemDocument | null {
  const failure = error as FetchFailure
  return failure?.data && typeof failure.data.detail === 'string' ? failure.data : null
}

/** Status of the answer to a failed request; undefined when there was none. */
export function failedStatus(error: unknown): number | undefined {
  const failure = error as FetchFailure
  return failure?.statusCode ?? failure?.status
}

/** A failed request as a sentence for the screen. */
export function problemSentence(error: unknown): string {
  return (
    problemDocument(error)?.detail ??
    'The server cannot be reached at the moment. Nothing typed is lost; try again shortly.'
  )
}
