/** A failure the person who started the program can do something about: printed as it is, without a stack. */
export class SentenceError extends Error {}

/** The code of a failed system call, if that is what the error is. */
export function systemErrorCode(error: unknown): string | undefined {
  return error instanceof Error && 'code' in error && typeof error.code === 'string' ? error.code : undefined
}
